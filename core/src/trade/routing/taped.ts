import { cross, distance, dot, lengthOf, minus, plus, times, unit, type Vector } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';

/** What a tape reads to, mm, where nobody says. */
export const tapeMm = 3;

export type Taped =
  | {
      ok: true;
      /** Both places at these distances: one on each side of the plane of the marks, the higher one first. */
      places: [Vector, Vector];
      /** How far off the first and the second may lie when every tape is as wrong as it may be, mm. */
      tolMm: [number, number];
    }
  | { ok: false; message: string };

/** Marks that lie nearly in a line tell only how far a point is from that line. */
const leastSpreadM = 0.05;

/**
 * A place by its distances from three marks. Where the tapes miss each other by no more than they may be wrong, it is the place in the
 * plane of the marks that is nearest to all; where by more, they contradict.
 *
 * Source: intersection of three spheres; its error by all eight ways in which three tapes can be wrong at once.
 *
 * @param tapesM distance from each mark, m
 * @param offMm how wrong each may be
 */
export function taped(
  marks: readonly [Vector, Vector, Vector],
  tapesM: readonly [number, number, number],
  offMm = tapeMm,
): Taped {
  if (!tapesM.every((one) => one > 0)) return { ok: false, message: 'each distance must be above 0' };
  const [a, b, c] = marks;
  const d = distance(a, b);
  if (d < leastSpreadM) return { ok: false, message: 'the first two marks lie in one place' };
  const ex = times(minus(b, a), 1 / d);
  const i = dot(ex, minus(c, a));
  const across = minus(minus(c, a), times(ex, i));
  const j = lengthOf(across);
  if (j < leastSpreadM)
    return {
      ok: false,
      message: `the marks lie in a line, the third ${formatNumber(j * 1000)} mm off it: take one that lies aside`,
    };
  const ey = unit(across);
  const ez = cross(ex, ey);
  const at = ([ra, rb, rc]: readonly [number, number, number]) => {
    const x = (ra * ra - rb * rb + d * d) / (2 * d);
    const y = (ra * ra - rc * rc + i * i + j * j - 2 * i * x) / (2 * j);
    const square = ra * ra - x * x - y * y;
    const foot = plus(a, plus(times(ex, x), times(ey, y)));
    return { foot, square, rise: times(ez, Math.sqrt(Math.max(0, square))) };
  };
  const { foot, square, rise } = at(tapesM);
  if (square < 0) {
    const missM = Math.max(...marks.map((mark, k) => Math.abs(distance(mark, foot) - tapesM[k]!)));
    if (missM * 1000 > 2 * offMm)
      return {
        ok: false,
        message: `the tapes do not meet: they miss each other by ${formatNumber(missM * 1000)} mm; measure again`,
      };
  }
  const off = offMm / 1000;
  const wrong = Array.from({ length: 8 }, (_, k) =>
    at(tapesM.map((one, axis) => one + (k & (1 << axis) ? off : -off)) as [number, number, number]),
  );
  const sides = ([1, -1] as const).map((side) => {
    const place = plus(foot, times(rise, side));
    const offs = wrong.map((one) => distance(plus(one.foot, times(one.rise, side)), place));
    return { place, tolMm: 1000 * Math.max(...offs) };
  });
  const [high, low] = sides.sort((one, other) => other.place[2] - one.place[2]) as [
    (typeof sides)[number],
    (typeof sides)[number],
  ];
  return { ok: true, places: [high.place, low.place], tolMm: [high.tolMm, low.tolMm] };
}
