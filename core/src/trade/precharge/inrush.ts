/** What an inrush flows through. */
export interface InrushLoop {
  /** Pack, cable and contacts, both poles. */
  loopOhm: number;
  /** Absent: taken as none, which gives the largest current. */
  inductanceH?: number | undefined;
  capacitanceF: number;
  /** The largest fault of that place: capacitors that fill take no more than a short does. */
  atMostA?: number | undefined;
}

/**
 * The peak of the current when contacts close on a difference of voltage in front of capacitors, A.
 *
 * Without inductance ΔV/R at once. With it ΔV·√(C/L)·exp(−α·t), t the moment of the peak, α = R/(2·L), ω₀² = 1/(L·C).
 * Never more than the largest fault of the place.
 *
 * Source: step response of a series circuit of R, L and C
 */
export function inrushPeakA(
  differenceV: number,
  { loopOhm, inductanceH, capacitanceF, atMostA = Infinity }: InrushLoop,
): number {
  const bare = differenceV / loopOhm;
  if (inductanceH === undefined || inductanceH <= 0) return Math.min(bare, atMostA);
  const alpha = loopOhm / (2 * inductanceH);
  const omega = 1 / Math.sqrt(inductanceH * capacitanceF);
  const beta = Math.sqrt(Math.abs(alpha ** 2 - omega ** 2));
  // Near the critical case both angles are small against α.
  const peakS =
    beta < 1e-9 * omega
      ? 1 / omega
      : (omega > alpha ? Math.atan2(beta, alpha) : Math.atanh(beta / alpha)) / beta;
  const peakA = differenceV * Math.sqrt(capacitanceF / inductanceH) * Math.exp(-alpha * peakS);
  return Math.min(Number.isFinite(peakA) ? peakA : bare, bare, atMostA);
}
