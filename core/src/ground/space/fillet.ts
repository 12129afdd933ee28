import {
  between,
  cross,
  distance,
  minus,
  nearestOfStretches,
  plus,
  pointToStretch,
  times,
  turned,
  unit,
  type Vector,
} from '../math';
import type { Legs } from './legs';

/** A straight of a way, or a bend of constant radius. */
export type Piece =
  | { kind: 'straight'; from: Vector; to: Vector; lengthM: number }
  | {
      kind: 'arc';
      /** Number of the corner, from 0. */
      corner: number;
      centre: Vector;
      /** Of length 1: the way turns about it, right-handed. */
      axis: Vector;
      from: Vector;
      to: Vector;
      radiusM: number;
      turn: number;
      lengthM: number;
    };

/** A leg that is shorter than the tangents of its two bends. */
export interface ShortLeg {
  /** Between the points given by these indices. */
  from: number;
  to: number;
  lengthM: number;
  neededM: number;
}

export interface Path {
  pieces: Piece[];
  /** Of the legs and bends by the formula, also where a leg is too short. */
  lengthM: number;
  short: ShortLeg[];
}

const tooShort = 1e-9;

/**
 * A way with its corners rounded. Where a leg is too short for the tangents it must hold, both of its corners stay sharp.
 *
 * Source: tangent r·tan(θ/2), arc r·θ.
 *
 * @param radiusM of each corner, m
 */
export function filleted(
  { points, at, lengths, directions, corners }: Legs,
  radiusM: (corner: number) => number,
): Path {
  const tangents = corners.map(({ turn }, i) => radiusM(i) * Math.tan(turn / 2));
  const short: ShortLeg[] = [];
  const sharp = corners.map(() => false);
  let lengthM = 0;
  lengths.forEach((leg, i) => {
    const neededM = (tangents[i - 1] ?? 0) + (tangents[i] ?? 0);
    lengthM += leg - neededM;
    if (leg >= neededM - tooShort) return;
    short.push({ from: at[i]!, to: at[i + 1]!, lengthM: leg, neededM });
    for (const corner of [i - 1, i]) if (corner >= 0 && corner < corners.length) sharp[corner] = true;
  });
  corners.forEach(({ turn }, i) => (lengthM += radiusM(i) * turn));
  const pieces: Piece[] = [];
  let from = points[0]!;
  corners.forEach(({ apex, turn }, i) => {
    const cut = sharp[i]! ? 0 : tangents[i]!;
    const [before, after] = [directions[i]!, directions[i + 1]!];
    const begin = minus(apex, times(before, cut));
    addStraight(pieces, from, begin);
    from = begin;
    if (cut === 0) return;
    const axis = unit(cross(before, after));
    const end = plus(apex, times(after, cut));
    const centre = plus(begin, times(cross(axis, before), radiusM(i)));
    pieces.push({
      kind: 'arc',
      corner: i,
      centre,
      axis,
      from: begin,
      to: end,
      radiusM: radiusM(i),
      turn,
      lengthM: radiusM(i) * turn,
    });
    from = end;
  });
  addStraight(pieces, from, points.at(-1)!);
  return { pieces, lengthM, short };
}

function addStraight(pieces: Piece[], from: Vector, to: Vector): void {
  const lengthM = distance(from, to);
  if (lengthM > 0) pieces.push({ kind: 'straight', from, to, lengthM });
}

/** The point of a piece at a share of it. */
export function pointOf(piece: Piece, share: number): Vector {
  if (piece.kind === 'straight') return between(piece.from, piece.to, share);
  const arm = minus(piece.from, piece.centre);
  return plus(piece.centre, turned(arm, piece.axis, piece.turn * share));
}

/** The point at a length along a way. */
export function pointAt({ pieces }: Pick<Path, 'pieces'>, atM: number): Vector {
  let left = atM;
  for (const piece of pieces) {
    if (left <= piece.lengthM) return pointOf(piece, piece.lengthM === 0 ? 0 : left / piece.lengthM);
    left -= piece.lengthM;
  }
  return pointOf(pieces.at(-1)!, 1);
}

/** A spot of least distance between a way and a line. */
export interface Nearest {
  distanceM: number;
  /** On the way. */
  point: Vector;
}

const samples = 24;

/** A ball around each piece: its middle and half its length. */
const balls = new WeakMap<readonly Piece[], Float64Array>();

function ballsOf(pieces: readonly Piece[]): Float64Array {
  const known = balls.get(pieces);
  if (known !== undefined) return known;
  const made = new Float64Array(pieces.length * 4);
  pieces.forEach((piece, i) => {
    const [x, y, z] = pointOf(piece, 0.5);
    made.set([x, y, z, piece.lengthM / 2], i * 4);
  });
  balls.set(pieces, made);
  return made;
}

/** Where a way comes nearest to a polyline: straights exactly, bends to a nanometre or so. */
export function nearestTo({ pieces }: Pick<Path, 'pieces'>, line: readonly Vector[]): Nearest {
  const round = ballsOf(pieces);
  const ends = Math.max(1, line.length - 1);
  // No point of a piece is nearer to a stretch than this; those that may be nearest are looked at first.
  const pairs = pieces.length * ends;
  const bounds = new Float64Array(pairs);
  let first = 0;
  for (let i = 0; i < pieces.length; i += 1)
    for (let j = 0; j < ends; j += 1) {
      const at = i * ends + j;
      bounds[at] =
        pointToStretch(
          round[i * 4]!,
          round[i * 4 + 1]!,
          round[i * 4 + 2]!,
          line[j]!,
          line[j + 1] ?? line[j]!,
        ) - round[i * 4 + 3]!;
      if (bounds[at]! < bounds[first]!) first = at;
    }
  let best: Nearest = { distanceM: Infinity, point: pieces[0]?.from ?? line[0]! };
  const look = (at: number) => {
    const piece = pieces[Math.floor(at / ends)];
    if (piece === undefined || bounds[at]! >= best.distanceM) return;
    const [a, b] = [line[at % ends]!, line[(at % ends) + 1] ?? line[at % ends]!];
    const found = piece.kind === 'straight' ? nearestOnStraight(piece, a, b) : nearestOnArc(piece, a, b);
    if (found.distanceM < best.distanceM) best = found;
  };
  look(first);
  const near: number[] = [];
  for (let at = 0; at < pairs; at += 1) if (bounds[at]! < best.distanceM && at !== first) near.push(at);
  for (const at of near.sort((a, b) => bounds[a]! - bounds[b]!)) look(at);
  return best;
}

function nearestOnStraight({ from, to }: Piece, a: Vector, b: Vector): Nearest {
  const { first, distance: distanceM } = nearestOfStretches(from, to, a, b);
  return { distanceM, point: between(from, to, first) };
}

/** Sampled, then narrowed by golden section around every dip that may be the deepest: the distance has a few of them at most. */
function nearestOnArc(piece: Extract<Piece, { kind: 'arc' }>, a: Vector, b: Vector): Nearest {
  const arm = minus(piece.from, piece.centre);
  const side = cross(piece.axis, arm);
  const { centre, turn } = piece;
  const at = (share: number) => {
    const [c, s] = [Math.cos(turn * share), Math.sin(turn * share)];
    return pointToStretch(
      centre[0] + arm[0] * c + side[0] * s,
      centre[1] + arm[1] * c + side[1] * s,
      centre[2] + arm[2] * c + side[2] * s,
      a,
      b,
    );
  };
  const values = Array.from({ length: samples + 1 }, (_, i) => at(i / samples));
  // Between two samples the way goes no farther than this.
  const reach = piece.lengthM / samples;
  const least = Math.min(...values);
  let best: Nearest = { distanceM: Infinity, point: piece.from };
  values.forEach((value, i) => {
    if (value > least + reach) return;
    if (value > (values[i - 1] ?? Infinity) || value > (values[i + 1] ?? Infinity)) return;
    const share = golden(at, Math.max(0, i - 1) / samples, Math.min(samples, i + 1) / samples);
    for (const one of [share, i / samples]) {
      const distanceM = at(one);
      if (distanceM < best.distanceM) best = { distanceM, point: pointOf(piece, one) };
    }
  });
  return best;
}

const ratio = (Math.sqrt(5) - 1) / 2;

function golden(f: (x: number) => number, from: number, to: number): number {
  let [low, high] = [from, to];
  let [x1, x2] = [high - ratio * (high - low), low + ratio * (high - low)];
  let [f1, f2] = [f(x1), f(x2)];
  for (let i = 0; i < 45; i += 1)
    if (f1 <= f2) {
      [high, x2, f2] = [x2, x1, f1];
      x1 = high - ratio * (high - low);
      f1 = f(x1);
    } else {
      [low, x1, f1] = [x1, x2, f2];
      x2 = low + ratio * (high - low);
      f2 = f(x2);
    }
  return (low + high) / 2;
}
