import type { BoltClass, ThreadMetal } from '../../model/document';

/** Stress area of the coarse metric thread by its diameter, mm². Source: ISO 898-1. */
export const stressAreaMm2: Readonly<Record<number, number>> = {
  4: 8.78,
  5: 14.2,
  6: 20.1,
  8: 36.6,
  10: 58,
  12: 84.3,
  14: 115,
  16: 157,
};

/** What a thread bears without stretching for good, MPa. Source: ISO 898-1 (proof stress), ISO 3506-1 (0.2 % limit). */
export const proofMPa: Readonly<Record<BoltClass, number>> = {
  '4.6': 225,
  '4.8': 310,
  '5.8': 380,
  '8.8': 580,
  '10.9': 830,
  'A2-70': 450,
  'A4-80': 600,
};

/** Torque over force and diameter of a dry, plated thread. */
export const dryNutFactor = 0.2;
/** Share of the proof stress that a joint may be tightened to. */
export const proofShare = 0.9;

export interface Clamp {
  forceN: number;
  stressMPa: number;
  /** Of the proof stress. */
  share: number;
  /** The torque at which the share allowed is reached, N·m. */
  mostNm: number;
}

/**
 * The force of a tightened thread and what it takes of the thread’s proof stress.
 *
 * Source: F = T/(K·d), K = 0.2 dry; stress over the stress area.
 *
 * @returns null for a diameter without a stress area here
 */
export function clampOf(torqueNm: number, studMm: number, boltClass: BoltClass): Clamp | null {
  const areaMm2 = stressAreaMm2[studMm];
  if (areaMm2 === undefined) return null;
  const perNm = 1 / (dryNutFactor * (studMm / 1000));
  const forceN = torqueNm * perNm;
  const stressMPa = forceN / areaMm2;
  const proof = proofMPa[boltClass];
  return { forceN, stressMPa, share: stressMPa / proof, mostNm: (proofShare * proof * areaMm2) / perNm };
}

/** Least engagement over the diameter, by what the thread goes into. Source: workshop practice for full strength. */
export const engagementFactor: Readonly<Record<ThreadMetal, number>> = {
  steel: 0.8,
  brass: 1.2,
  copper: 1.2,
  aluminium: 1.6,
};
