/** How far each value lies from its batch, by the robust rule. */
export interface BatchScores {
  /** null: no value. */
  median: number | null;
  /** Median of the absolute deviations from it. */
  mad: number | null;
  /** 0.6745·|x − median|/MAD; null where there is no value, or the deviations have no measure and the value is not the median. */
  scores: (number | null)[];
  outliers: boolean[];
  /** Values beyond these are outliers; null where no bound can be drawn. */
  bounds: [low: number, high: number] | null;
}

/** Scaled deviations beyond which a value is an outlier. */
export const outlierScore = 3.5;
const normalFraction = 0.6745;
/** Fewer values make no batch. */
export const leastBatch = 4;

/** The middle value; of an even number the mean of the two in the middle. */
export function medianOf(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** To which side a value must lie to be an outlier, and how far from the median at least: less tells nothing, however even the rest. */
export interface OutlierRule {
  side: 'both' | 'low' | 'high';
  /** Of the median. */
  leastFraction?: number;
  /** In the unit of the values. */
  leastOff?: number;
}

/**
 * Scores a batch by median and median absolute deviation: one wild value does not hide itself by widening the spread.
 *
 * Source: modified z-score, outlier beyond 3.5 scaled deviations.
 *
 * @param values null where nothing was measured
 */
export function scoreBatch(
  values: readonly (number | null)[],
  { side, leastFraction = 0, leastOff = 0 }: OutlierRule = { side: 'both' },
): BatchScores {
  const given = values.filter((value) => value !== null);
  const median = medianOf(given);
  const mad = median === null ? null : medianOf(given.map((value) => Math.abs(value - median)));
  if (median === null || mad === null || given.length < leastBatch)
    return { median, mad, scores: values.map(() => null), outliers: values.map(() => false), bounds: null };
  const scores = values.map((value) => {
    if (value === null) return null;
    const off = Math.abs(value - median);
    if (off === 0) return 0;
    return mad === 0 ? null : (normalFraction * off) / mad;
  });
  const least = Math.max(leastFraction * Math.abs(median), leastOff);
  const reach = Math.max((outlierScore * mad) / normalFraction, least);
  const isOff = (value: number) =>
    side === 'both' ? value !== median : side === 'low' ? value < median : value > median;
  return {
    median,
    mad,
    scores,
    outliers: values.map(
      (value, i) =>
        value !== null &&
        isOff(value) &&
        (scores[i] ?? Infinity) > outlierScore &&
        Math.abs(value - median) > least,
    ),
    bounds: [side === 'high' ? -Infinity : median - reach, side === 'low' ? Infinity : median + reach],
  };
}
