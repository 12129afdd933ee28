/** J/kgK of air. */
export const airJPerKgK = 1006;

export interface Exchange {
  effectiveness: number;
  /** Heat capacity of the smaller stream, W/K. */
  leastWPerK: number;
  ratio: number;
  ntu: number;
}

/**
 * What a radiator exchanges, both streams unmixed, over what it could at the most.
 *
 * Source: ε-NTU, cross flow: 1 − exp(NTU^0.22/C_r·(exp(−C_r·NTU^0.78) − 1)); 1 − e^−NTU where one stream is endless.
 */
export function exchange(uaWPerK: number, coolantWPerK: number, airWPerK: number): Exchange {
  const leastWPerK = Math.min(coolantWPerK, airWPerK);
  const ratio = leastWPerK / Math.max(coolantWPerK, airWPerK);
  const ntu = uaWPerK / leastWPerK;
  const effectiveness =
    ratio < 1e-12 ? -Math.expm1(-ntu) : -Math.expm1((ntu ** 0.22 / ratio) * Math.expm1(-ratio * ntu ** 0.78));
  return { effectiveness, leastWPerK, ratio, ntu };
}
