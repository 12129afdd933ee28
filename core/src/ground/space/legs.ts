import { angleBetween, distance, lengthOf, minus, times, type Vector } from '../math';

export type Point = [x: number, y: number, z: number];

/** A corner of a polyline between two of its legs. */
export interface Corner {
  /** Index of its point as given. */
  at: number;
  apex: Vector;
  /** By how much the way turns there, rad. */
  turn: number;
}

/** A polyline without the points at which it does not turn. */
export interface Legs {
  /** Start, corners, end. */
  points: Vector[];
  /** Index as given of each of them. */
  at: number[];
  lengths: number[];
  directions: Vector[];
  corners: Corner[];
}

/** A point that turns less is no corner, rad. */
export const leastTurn = (0.01 * Math.PI) / 180;
/** No bend turns more, rad. */
export const mostTurn = (179.9 * Math.PI) / 180;
const coincident = 1e-9;

/** What makes a list of points no way. */
export interface LegsProblem {
  /** Index of the point. */
  at: number;
  message: string;
}

/**
 * Legs between the points of a way: points at which it turns less than 0.01° are dropped, their legs are one.
 *
 * @returns the first problem where points coincide, or the way turns back on itself
 */
export function legsOf(given: readonly Vector[]): Legs | LegsProblem {
  for (let i = 1; i < given.length; i += 1)
    if (distance(given[i - 1]!, given[i]!) <= coincident)
      return { at: i, message: 'coincides with the point before it' };
  const at = [0];
  for (let i = 1; i < given.length - 1; i += 1) {
    const before = minus(given[i]!, given[at.at(-1)!]!);
    const after = minus(given[i + 1]!, given[i]!);
    const turn = angleBetween(before, after);
    if (turn > mostTurn) return { at: i, message: 'turns the way back on itself' };
    if (turn >= leastTurn) at.push(i);
  }
  at.push(given.length - 1);
  const points = at.map((index) => given[index]!);
  const ways = points.slice(1).map((point, i) => minus(point, points[i]!));
  const lengths = ways.map(lengthOf);
  const directions = ways.map((way, i) => times(way, 1 / lengths[i]!));
  const corners = at.slice(1, -1).map((index, i): Corner => ({
    at: index,
    apex: points[i + 1]!,
    turn: angleBetween(directions[i]!, directions[i + 1]!),
  }));
  return { points, at, lengths, directions, corners };
}

export const isProblem = (found: Legs | LegsProblem): found is LegsProblem => 'message' in found;
