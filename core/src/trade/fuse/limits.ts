import { circuitDefaults } from '../../model/document';
import { interpolate } from '../../ground/math';
import type { FuseInput } from './fuse';

/** Load a fuse carries for years, as a share of its derated rating. */
export const continuousShare = 0.8;
/** The longest clearing of the smallest fault where the circuit does not say, s. */
export const defaultMaxClearS = circuitDefaults.maxClearS;
/** Currents at which a fuse is tried, from the smallest fault to the largest. */
export const faultPoints = 40;

/** The factor of an ambient on the rating; held beyond the ends of its table. */
export function derating({ ambientDerating, ambientC }: Pick<FuseInput, 'ambientDerating' | 'ambientC'>): {
  value: number;
  held: boolean;
} {
  if (ambientDerating === undefined) return { value: 1, held: false };
  const held =
    ambientC < ambientDerating[0]![0] || ambientC > ambientDerating[ambientDerating.length - 1]![0];
  return { value: interpolate(ambientDerating, ambientC), held };
}
