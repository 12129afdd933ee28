import { restPredict, type RestVerdict } from './rest-predict';

/** How a cell's rest will end, or has ended. */
export interface Outlook {
  verdict: RestVerdict;
  /** null: fewer than six readings, and it has not rested out. */
  settledV: number | null;
  lowV: number | null;
  highV: number | null;
  /** From the end of the load; null: not known. */
  settledAfterH: number | null;
  by: 'prediction' | 'rested out' | 'too few readings';
}

/** What one must hit. */
export interface LevelTarget {
  targetV: number;
  toleranceV: number;
  /** A rest of this length is over: what the meter says then is where the cell has settled. */
  restHours: number;
}

export const leastSamples = 6;

/**
 * Where a resting cell will settle: by prediction from six readings on, by the meter once it has rested out.
 *
 * @param samples hours from the end of the load, and volts, rising in time
 */
export function outlookOf(
  samples: readonly [number, number][],
  { targetV, toleranceV, restHours }: LevelTarget,
): Outlook {
  const [lastH, lastV] = samples.at(-1) ?? [0, null];
  if (lastV !== null && lastH >= restHours) {
    const off = lastV - targetV;
    const inside = Math.abs(off) <= toleranceV + 1e-9;
    return {
      verdict: inside ? 'will settle inside' : off > 0 ? 'will settle too high' : 'will settle too low',
      settledV: lastV,
      lowV: lastV,
      highV: lastV,
      settledAfterH: lastH,
      by: 'rested out',
    };
  }
  const parsed = restPredict.parse({ samples, targetV, toleranceV });
  if (samples.length < leastSamples || !parsed.ok)
    return {
      verdict: 'too early to tell',
      settledV: null,
      lowV: null,
      highV: null,
      settledAfterH: null,
      by: 'too few readings',
    };
  const { result } = restPredict.calculate(parsed.input);
  return {
    verdict: result.verdict,
    settledV: result.settledV,
    lowV: result.settledLowV,
    highV: result.settledHighV,
    settledAfterH: result.hoursToWithin1mV,
    by: 'prediction',
  };
}
