import type { upstreamKinds } from '../../model/document';
import type { BreakerData } from '../../model/parts';

/** IEC 60898-1: from so many times its rated current a breaker may open at once. */
export const opensFrom: Record<BreakerData['trip'], number> = { B: 3, C: 5, D: 10 };
/**
 * Least I²t at which a gG fuse begins to melt at 10 ms, A²s, by its rated current: IEC 60269-1, table of pre-arcing values. A breaker
 * that parts a short circuit within a half-wave lets no more through than I²·10 ms.
 */
const meltsFromA2s: readonly (readonly [ratedA: number, a2s: number])[] = [
  [16, 300],
  [20, 500],
  [25, 1000],
  [32, 1800],
  [40, 3000],
  [50, 5000],
  [63, 9000],
  [80, 16_000],
  [100, 27_000],
  [125, 46_000],
  [160, 86_000],
  [200, 140_000],
  [250, 250_000],
  [315, 400_000],
  [400, 760_000],
];
export const halfWaveS = 0.01;
/** IEC 60269-1: so many times its rated current a gG fuse carries for its conventional time. */
export const fuseHoldsTimes = 1.25;

/**
 * Up to which short circuit the breaker opens alone, A. A fuse between two ratings of the table is taken for the smaller: it melts sooner.
 *
 * @returns null for a fuse that the table does not reach
 */
export function opensAloneToA(upstreamA: number, kind: (typeof upstreamKinds)[number]): number | null {
  if (kind !== 'gG fuse') return opensFrom[kind] * upstreamA;
  const row = meltsFromA2s.findLast(([ratedA]) => ratedA <= upstreamA);
  return row === undefined || upstreamA > meltsFromA2s.at(-1)![0] ? null : Math.sqrt(row[1] / halfWaveS);
}
