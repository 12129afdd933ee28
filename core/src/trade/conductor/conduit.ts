import type { CableInput } from './cable';

/** Of the inside of a conduit one cable may fill so much, two so much, more so much. */
const fillOf = (cables: number) => (cables <= 1 ? 0.53 : cables === 2 ? 0.31 : 0.4);

export interface ConduitFill {
  cables: number;
  /** Share of the inside that the cables take, and may take. */
  fill: number;
  most: number;
  conduitInnerMm: number;
}

/**
 * Both poles of a circuit in their conduit, with all that lies side by side; null in free air, or while it is not measured.
 *
 * Source: practice of electrical installation, 53 % for one cable, 31 % for two, 40 % for more.
 */
export function conduitFill(
  {
    install,
    conduitInnerMm,
    parallel = 1,
  }: Pick<CableInput, 'install' | 'conduitInnerMm'> & { parallel?: number },
  outerDiameterMm: number,
): ConduitFill | null {
  if (install !== 'steel-conduit' || conduitInnerMm === undefined || !(conduitInnerMm > 0)) return null;
  const cables = 2 * parallel;
  return {
    cables,
    fill: cables * (outerDiameterMm / conduitInnerMm) ** 2,
    most: fillOf(cables),
    conduitInnerMm,
  };
}

/** What does not hold of it, or null. */
export const overfilled = (one: ConduitFill | null): boolean =>
  one !== null && one.fill > one.most * (1 + 1e-9);
