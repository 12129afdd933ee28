import { formatNumber } from '../../ground/quantity';
import { airJPerKgK, exchange } from './exchanger';
import { fluidAt, type FluidTable } from './fluid';

/** A radiator at work, as it was read. */
export interface RadiatorReading {
  flowLPerMin: number;
  inC: number;
  outC: number;
  airInC: number;
  airKgPerS: number;
}

export type MeasuredUa =
  | {
      ok: true;
      heatW: number;
      uaWPerK: number;
      /** What it would be were both thermometers wrong by so much, each the other way. */
      betweenWPerK: [least: number, most: number];
    }
  | { ok: false; message: string };

/** How wrong a thermometer of the shop is, K. */
export const thermometerOffK = 0.3;

/**
 * What a radiator exchanges, out of what coolant and air are at work.
 *
 * Source: heat by flow and temperatures of the coolant; effectiveness of a cross flow turned round.
 */
export function uaFromReading(reading: RadiatorReading, table: FluidTable): MeasuredUa {
  const { flowLPerMin, inC, outC, airInC, airKgPerS } = reading;
  if (!(flowLPerMin > 0)) return { ok: false, message: 'the flow must be above 0' };
  if (!(airKgPerS > 0)) return { ok: false, message: 'the air through it must be above 0' };
  if (!(inC > outC)) return { ok: false, message: 'coolant must leave it colder than it comes' };
  if (!(outC > airInC)) return { ok: false, message: 'coolant cannot leave it colder than its air comes' };
  const at = (dropK: number): { heatW: number; uaWPerK: number | null } => {
    const { densityKgM3, specificHeatJPerKgK } = fluidAt(table, (inC + outC) / 2);
    const coolantWPerK = (flowLPerMin * densityKgM3 * specificHeatJPerKgK) / 60_000;
    const airWPerK = airKgPerS * airJPerKgK;
    const heatW = coolantWPerK * dropK;
    const wanted = heatW / (Math.min(coolantWPerK, airWPerK) * (inC - airInC));
    const reached = (uaWPerK: number) => exchange(uaWPerK, coolantWPerK, airWPerK).effectiveness;
    let [low, high] = [0, Math.min(coolantWPerK, airWPerK)];
    while (reached(high) < wanted && high < 1e7) high *= 2;
    if (reached(high) < wanted) return { heatW, uaWPerK: null };
    for (let i = 0; i < 80; i += 1) {
      const middle = (low + high) / 2;
      if (reached(middle) < wanted) low = middle;
      else high = middle;
    }
    return { heatW, uaWPerK: (low + high) / 2 };
  };
  const { heatW, uaWPerK } = at(inC - outC);
  if (uaWPerK === null)
    return {
      ok: false,
      message: `${formatNumber(heatW)} W is more than this air can take up: read flow, air or temperatures again`,
    };
  const offK = 2 * thermometerOffK;
  const least = inC - outC > offK ? (at(inC - outC - offK).uaWPerK ?? 0) : 0;
  const most = at(inC - outC + offK).uaWPerK ?? Infinity;
  return { ok: true, heatW, uaWPerK, betweenWPerK: [least, most] };
}
