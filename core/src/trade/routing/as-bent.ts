import { cross, distance, dot, minus, plus, times, turned, unit, type Vector } from '../../ground/math';
import { isProblem, legsOf, type Point } from '../../ground/space';
import { bendCard, rotationsOf, type BendCardInput, type BendCardResult, type BendOnCard } from './bend-card';

/** A bend as it came out. */
export interface BentBend {
  angleDeg: number;
  /** From the plane of the bend before it; of the first: 0. */
  rotationDeg: number;
}

export type AsBent =
  /** What is still to be bent so that the tube ends where it should. */
  | { kind: 'rest'; bends: BendOnCard[]; lastStraightMm: number; cutLengthMm: number }
  /** Nothing is left to bend: where it ends, sideways of where it should, and the last straight that comes nearest. */
  | { kind: 'ends'; missMm: number; lastStraightMm: number }
  | { kind: 'none'; why: string };

const degrees = 180 / Math.PI;

interface Hand {
  at: Vector;
  along: Vector;
  normal: Vector;
  /** Of the tube so far, mm. */
  usedMm: number;
}

/** Where the tube is after bends as they came out, fed by the marks of its card. */
function after(
  card: BendCardResult,
  points: readonly Point[],
  made: readonly BentBend[],
  radiusM: number,
  startMm: number,
): Hand | null {
  const legs = legsOf(points);
  if (isProblem(legs)) return null;
  const [first, second] = legs.directions;
  let hand: Hand = {
    at: legs.points[0]!,
    along: first!,
    normal: second === undefined ? [0, 0, 1] : unit(cross(first!, second)),
    usedMm: startMm,
  };
  made.forEach(({ angleDeg, rotationDeg }, i) => {
    const bend = card.bends[i]!;
    // The next mark is where the card put it, whatever came out before.
    const straightM = (bend.startMarkMm - hand.usedMm) / 1000;
    const begin = plus(hand.at, times(hand.along, straightM));
    const normal = i === 0 ? hand.normal : turned(hand.normal, hand.along, rotationDeg / degrees);
    const angle = angleDeg / degrees;
    const centre = plus(begin, times(cross(normal, hand.along), radiusM));
    hand = {
      at: plus(centre, turned(minus(begin, centre), normal, angle)),
      along: unit(turned(hand.along, normal, angle)),
      normal,
      usedMm: bend.startMarkMm + radiusM * 1000 * angle,
    };
  });
  return hand;
}

/**
 * The rest of a card after bends that came out otherwise than they should: the next corner lies on the straight that the tube is on now,
 * as near to where it was as that allows; the corners behind it stay, so that the tube ends where the run ends. Nothing is bent back.
 *
 * @param made the bends that are made, in order
 */
export function restOfCard(input: BendCardInput, made: readonly BentBend[]): AsBent {
  const card = bendCard.calculate(input).result;
  const radiusM = input.centrelineRadiusMm / 1000;
  if (made.length > card.bends.length) return { kind: 'none', why: 'there are not so many bends' };
  const hand = after(card, input.points, made, radiusM, input.startAllowanceMm);
  const legs = legsOf(input.points);
  if (hand === null || isProblem(legs)) return { kind: 'none', why: 'its points are no way' };
  const end = legs.points.at(-1)!;
  if (made.length === card.bends.length) {
    const lastM = Math.max(0, dot(minus(end, hand.at), hand.along));
    return {
      kind: 'ends',
      missMm: distance(plus(hand.at, times(hand.along, lastM)), end) * 1000,
      lastStraightMm: lastM * 1000,
    };
  }
  const corners = legs.points.slice(made.length + 1, -1);
  const behind = [...corners.slice(1), end];
  const onward = dot(minus(corners[0]!, hand.at), hand.along);
  const apex = plus(hand.at, times(hand.along, Math.max(onward, radiusM * 0.05)));
  const points = [hand.at, apex, ...behind].map((point): Point => [...point] as Point);
  const parsed = bendCard.parse({
    points,
    centrelineRadiusMm: input.centrelineRadiusMm,
    tubeOuterMm: input.tubeOuterMm,
    wallMm: input.wallMm,
    springbackFraction: input.springbackFraction,
    endAllowanceMm: input.endAllowanceMm,
  });
  if (!parsed.ok) return { kind: 'none', why: parsed.issues[0]!.message };
  const rest = bendCard.calculate(parsed.input).result;
  const again = legsOf(points);
  if (isProblem(again) || again.corners.length === 0)
    return { kind: 'none', why: 'the tube already points where it should' };
  const rotations = rotationsOf(again);
  const normal = cross(again.directions[0]!, again.directions[1]!);
  const first =
    made.length === 0
      ? 0
      : Math.atan2(dot(cross(hand.normal, normal), hand.along), dot(hand.normal, normal)) * degrees;
  return {
    kind: 'rest',
    bends: rest.bends.map((bend, i) => ({
      ...bend,
      number: made.length + i + 1,
      rotationDeg: i === 0 ? (first <= -180 + 1e-7 ? 180 : first) : rotations[i]!,
      startMarkMm: bend.startMarkMm + hand.usedMm,
      centreMarkMm: bend.centreMarkMm + hand.usedMm,
      endMarkMm: bend.endMarkMm + hand.usedMm,
    })),
    lastStraightMm: rest.lastStraightMm,
    cutLengthMm: rest.cutLengthMm + hand.usedMm,
  };
}

/** What a trial bend says: set to so much, it came out at so much; null: it cannot be. */
export function springbackOf(setDeg: number, cameOutDeg: number): number | null {
  const fraction = setDeg / cameOutDeg - 1;
  return cameOutDeg > 0 && fraction >= 0 && fraction <= 0.5 ? fraction : null;
}
