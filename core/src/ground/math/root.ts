// Bound once: the inner loops ask for these a million times.
const { abs, sign, max, min, sqrt } = Math;
export interface Root {
  x: number;
  /** The function's value at `x`. */
  residual: number;
  iterations: number;
}

/**
 * A root of a continuous function between two points of opposite sign.
 *
 * Brent's method (R. P. Brent, Algorithms for Minimization without Derivatives, 1973, chapter 4).
 *
 * @returns null when the ends have the same sign
 */
export function findRoot(
  f: (x: number) => number,
  low: number,
  high: number,
  relativeTolerance = 1e-13,
): Root | null {
  let a = low;
  let b = high;
  let fa = f(a);
  let fb = f(b);
  if (fa === 0) return { x: a, residual: 0, iterations: 0 };
  if (fb === 0) return { x: b, residual: 0, iterations: 0 };
  if (fa > 0 === fb > 0) return null;
  let c = a;
  let fc = fa;
  let step = b - a;
  let before = step;
  for (let iterations = 1; iterations <= 200; iterations += 1) {
    if (fb > 0 === fc > 0) {
      c = a;
      fc = fa;
      step = before = b - a;
    }
    if (abs(fc) < abs(fb)) {
      [a, b, c] = [b, c, b];
      [fa, fb, fc] = [fb, fc, fb];
    }
    const tolerance = 2 * Number.EPSILON * abs(b) + 0.5 * relativeTolerance * abs(b) + 1e-300;
    const half = (c - b) / 2;
    if (abs(half) <= tolerance || fb === 0) return { x: b, residual: fb, iterations };
    if (abs(before) >= tolerance && abs(fa) > abs(fb)) {
      const s = fb / fa;
      let p: number;
      let q: number;
      if (a === c) {
        p = 2 * half * s;
        q = 1 - s;
      } else {
        const r = fb / fc;
        const t = fa / fc;
        p = s * (2 * half * t * (t - r) - (b - a) * (r - 1));
        q = (t - 1) * (r - 1) * (s - 1);
      }
      if (p > 0) q = -q;
      else p = -p;
      if (2 * p < min(3 * half * q - abs(tolerance * q), abs(before * q))) {
        before = step;
        step = p / q;
      } else {
        step = before = half;
      }
    } else {
      step = before = half;
    }
    a = b;
    fa = fb;
    b += abs(step) > tolerance ? step : sign(half) * tolerance;
    fb = f(b);
  }
  return { x: b, residual: fb, iterations: 200 };
}

/**
 * The least value of a function of one variable: a grid over the whole interval, then a golden-section
 * search around the best grid point, so that a narrow global minimum is not lost to a local one.
 *
 * @returns the place, and whether it lies on an end of the interval
 */
export function minimise(
  f: (x: number) => number,
  low: number,
  high: number,
  gridPoints = 240,
): { x: number; onBound: boolean } {
  const step = (high - low) / (gridPoints - 1);
  let best = 0;
  let bestValue = Infinity;
  for (let i = 0; i < gridPoints; i += 1) {
    const value = f(low + i * step);
    if (value < bestValue) {
      bestValue = value;
      best = i;
    }
  }
  const golden = (sqrt(5) - 1) / 2;
  let a = low + max(0, best - 1) * step;
  let b = low + min(gridPoints - 1, best + 1) * step;
  let x1 = b - golden * (b - a);
  let x2 = a + golden * (b - a);
  let f1 = f(x1);
  let f2 = f(x2);
  for (let i = 0; i < 90 && b - a > 1e-12 * (high - low); i += 1) {
    if (f1 < f2) {
      b = x2;
      x2 = x1;
      f2 = f1;
      x1 = b - golden * (b - a);
      f1 = f(x1);
    } else {
      a = x1;
      x1 = x2;
      f1 = f2;
      x2 = a + golden * (b - a);
      f2 = f(x2);
    }
  }
  const x = (a + b) / 2;
  const margin = step * 1e-3;
  return { x, onBound: x - low < margin || high - x < margin };
}
