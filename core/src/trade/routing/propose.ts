import TinyQueue from 'tinyqueue';
import { formatNumber } from '../../ground/quantity';
import { distance, minus, plus, times, type Vector } from '../../ground/math';
import { filleted, isProblem, legsOf, nearestTo, type Point } from '../../ground/space';
import { dropBefore, leadsIn } from './drip';
import { isWithin, offSolidM, Room, type Keeping } from './free-room';
import { depthIn, pointsAlong, type Solid } from './solids';

export interface ProposeInput extends Keeping {
  from: Point;
  to: Point;
  /** What it begins and ends at: it leaves them at a right angle. */
  ends: [Solid | null, Solid | null];
  bendRadiusM: number;
  /** What could be taken out: led around, and beside that tried as if it were gone. Absent: nothing. */
  obstacles?: { id: string; tag: string; outHours?: number; solid: Solid }[];
  /** Where it leads rather not. */
  crush: Solid[];
  /** Where it leads rather. */
  corridors: Solid[];
  /** Whether it enters what it begins and ends at where it gets wet. */
  wet?: [boolean, boolean];
}

export interface Proposal {
  points: Point[];
  lengthM: number;
  bends: number;
  totalBendDeg: number;
  /** The least that is left to a line beyond what it asks, m; null: there is none. */
  spareM: number | null;
  /** What has to be taken out for it, and stay out. */
  out: string[];
  says: string;
}

/** One way of looking for a way. */
interface School {
  says: string;
  /** What a corner costs, as if it were so much longer, m. */
  cornerM: number;
  /** What is kept to lines beyond what they ask, m. */
  extraM: number;
  /** How much a metre in a corridor costs. */
  corridor: number;
  /** Corners are cut off where nothing is in the way. */
  straight: boolean;
}

const schools: School[] = [
  { says: 'short', cornerM: 0.1, extraM: 0, corridor: 0.9, straight: true },
  { says: 'few bends', cornerM: 0.6, extraM: 0, corridor: 0.9, straight: false },
  { says: 'along the corridors', cornerM: 0.3, extraM: 0, corridor: 0.45, straight: false },
  { says: 'far from the lines', cornerM: 0.3, extraM: 0.06, corridor: 0.9, straight: true },
];
const stepM = 0.05;
const crushCost = 4;
const directions = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
] as const;
const slice = 2000;
/** The search runs ahead a little: ways may be a few percent longer than the best on the grid. */
const eagerness = 1.15;

/** The way out of a solid at a point of its outside; null: it lies at none. */
function wayOut(solid: Solid | null, at: Vector): Vector | null {
  if (solid === null || Math.abs(depthIn(solid, at)) > 0.06) return null;
  let best: { off: number; way: Vector } | null = null;
  for (const axis of [0, 1, 2] as const)
    for (const [face, sign] of [
      [solid.low[axis], -1],
      [solid.high[axis], 1],
    ] as const) {
      const off = Math.abs(at[axis] - face);
      const way: Vector = [axis === 0 ? sign : 0, axis === 1 ? sign : 0, axis === 2 ? sign : 0];
      if (best === null || off < best.off) best = { off, way };
    }
  return best!.way;
}

/**
 * Ways between two points: around boxes, devices and forbidden places, away from lines, rather along corridors, never lower than may be,
 * with bends of this radius. A search on a grid of 50 mm, once for each of a few wishes; what does not hold as a rounded way is left out.
 *
 * Source: A* over cells and directions; a corner costs like a length.
 *
 * @returns by length, then bends; gives way often, telling how far it is
 */
export function* propose(input: ProposeInput): Generator<number, Proposal[]> {
  const { obstacles = [], solids } = input;
  const around = { ...input, solids: [...solids, ...obstacles.map(({ solid }) => solid)] };
  // Taking something out is tried by the two wishes that gain most by it.
  const tries = [
    ...schools.map((school) => ({ school, input: around })),
    ...(!obstacles.some(({ solid }) => isNear(solid, input))
      ? []
      : schools.slice(0, 2).map((school) => ({ school, input }))),
  ];
  const found: Proposal[] = [];
  let isShut = false;
  for (const [i, one] of tries.entries()) {
    // Where there is no way at all, no other wish finds one.
    if (isShut && one.input === around) continue;
    const search = wayOf(one.input, one.school);
    let step = search.next();
    while (step.done !== true) {
      yield (i + step.value) / tries.length;
      step = search.next();
    }
    isShut ||= i === 0 && step.value === null;
    const made = step.value === null ? null : proposalOf(step.value, one.input, one.school);
    if (made !== null && !found.some((other) => sameWay(other.points, made.points))) found.push(made);
    yield (i + 1) / tries.length;
  }
  return found.sort((a, b) => a.lengthM - b.lengthM || a.bends - b.bends);
}

/** An obstacle far off the two ends costs no way anything. */
const isNear = ({ low, high }: Solid, { from, to }: ProposeInput) =>
  ([0, 1, 2] as const).every(
    (axis) =>
      low[axis] < Math.max(from[axis], to[axis]) + nearM &&
      high[axis] > Math.min(from[axis], to[axis]) - nearM,
  );
const nearM = 0.5;

const sameWay = (a: readonly Point[], b: readonly Point[]) =>
  a.length === b.length && a.every((point, i) => distance(point, b[i]!) < 0.02);

function* wayOf(input: ProposeInput, school: School): Generator<number, Point[] | null> {
  const { from, to, ends, bendRadiusM, halfM, bounds } = input;
  const room = new Room(input, school.extraM);
  const stubM = bendRadiusM + halfM + offSolidM + 0.02;
  const [out, into] = [wayOut(ends[0], from), wayOut(ends[1], to)];
  const start = out === null ? from : plus(from, times(out, stubM));
  const goal = into === null ? to : plus(to, times(into, stubM));
  if (!room.isFree(start) || !room.isFree(goal)) return null;
  // Cells around the first point: it lies in the middle of one.
  const least = [0, 1, 2].map((axis) => -Math.floor((start[axis]! - bounds.low[axis]!) / stepM));
  const most = [0, 1, 2].map((axis) => Math.floor((bounds.high[axis]! - start[axis]!) / stepM));
  const size = [0, 1, 2].map((axis) => most[axis]! - least[axis]! + 1) as [number, number, number];
  const cells = size[0] * size[1] * size[2];
  if (cells > 4_000_000 || size.some((one) => one < 1)) return null;
  const pointOfCell = (cell: number): Vector => {
    const [x, rest] = [cell % size[0], Math.floor(cell / size[0])];
    const [y, z] = [rest % size[1], Math.floor(rest / size[1])];
    return [
      start[0] + (x + least[0]!) * stepM,
      start[1] + (y + least[1]!) * stepM,
      start[2] + (z + least[2]!) * stepM,
    ];
  };
  const cellAt = (point: Vector) => {
    const at = [0, 1, 2].map((axis) => Math.round((point[axis]! - start[axis]!) / stepM) - least[axis]!);
    return at[0]! + size[0] * (at[1]! + size[1] * at[2]!);
  };
  const strides = [1, -1, size[0], -size[0], size[0] * size[1], -size[0] * size[1]];
  /** 0: not looked at; 1: free; 2: taken. */
  const known = new Uint8Array(cells);
  const free = (cell: number, point: Vector) => {
    if (known[cell] === 0) known[cell] = room.isFree(point) ? 1 : 2;
    return known[cell] === 1;
  };
  const cost = (point: Vector) =>
    input.crush.some((solid) => isWithin(solid, point[0], point[1], point[2], 0))
      ? crushCost
      : input.corridors.some((solid) => isWithin(solid, point[0], point[1], point[2], 0))
        ? school.corridor
        : 1;
  const cheapest = input.corridors.length === 0 ? 1 : Math.min(1, school.corridor);
  const [first, last] = [cellAt(start), cellAt(goal)];
  const best = new Float64Array(cells * 6).fill(Infinity);
  const cameFrom = new Int32Array(cells * 6).fill(-1);
  const queue = new TinyQueue<{ state: number; cost: number; guess: number }>(
    [],
    (a, b) => a.guess - b.guess,
  );
  const guess = (point: Vector) =>
    (Math.abs(point[0] - goal[0]) + Math.abs(point[1] - goal[1]) + Math.abs(point[2] - goal[2])) *
    cheapest *
    eagerness;
  directions.forEach((way, d) => {
    // It goes on the way it comes out.
    if (out !== null && way.some((one, axis) => one !== out[axis])) return;
    best[first * 6 + d] = 0;
    queue.push({ state: first * 6 + d, cost: 0, guess: guess(start) });
  });
  const whole = Math.max(guess(start), stepM);
  let nearest = whole;
  let looked = 0;
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    const { state, cost: now } = next;
    if (now > best[state]! + 1e-12) continue;
    const cell = Math.floor(state / 6);
    const way = state % 6;
    if (cell === last) return tidy(backFrom(state, cameFrom, pointOfCell), input, goal, room, school);
    const point = pointOfCell(cell);
    looked += 1;
    if (looked % slice === 0) {
      nearest = Math.min(nearest, guess(point));
      yield 1 - nearest / whole;
    }
    for (let d = 0; d < 6; d += 1) {
      // Not back on itself.
      if ((d ^ 1) === way) continue;
      const [dx, dy, dz] = directions[d]!;
      const to: Vector = [point[0] + dx * stepM, point[1] + dy * stepM, point[2] + dz * stepM];
      if (!isWithin(bounds, to[0], to[1], to[2], 0)) continue;
      const there = cell + strides[d]!;
      if (!free(there, to)) continue;
      const arrives = now + stepM * cost(to) + (d === way ? 0 : school.cornerM);
      const of = there * 6 + d;
      if (arrives >= best[of]! - 1e-12) continue;
      best[of] = arrives;
      cameFrom[of] = state;
      queue.push({ state: of, cost: arrives, guess: arrives + guess(to) });
    }
  }
  return null;
}

function backFrom(state: number, cameFrom: Int32Array, pointOfCell: (cell: number) => Vector): Vector[] {
  const points: Vector[] = [];
  for (let at = state; at >= 0; at = cameFrom[at]!) points.push(pointOfCell(Math.floor(at / 6)));
  return points.reverse();
}

/** Corners alone, from the run’s own ends; steps of the grid and, where asked, corners that nothing needs are left out. */
function tidy(
  cells: readonly Vector[],
  input: ProposeInput,
  goal: Vector,
  room: Room,
  school: School,
): Point[] {
  const straightened = cells.filter((point, i) => {
    const [a, b] = [cells[i - 1], cells[i + 1]];
    if (a === undefined || b === undefined) return true;
    const [before, after] = [minus(point, a), minus(b, point)];
    return before.some((one, axis) => Math.abs(one - after[axis]!) > 1e-9);
  });
  // The last cell lies beside the goal: the last leg is moved onto it.
  const points = straightened.slice(0, -1);
  const end = straightened.at(-1)!;
  for (let i = points.length - 1; i > 0; i -= 1) {
    const moved = points[i]!.map((one, axis) =>
      Math.abs(one - end[axis]!) < 1e-9 ? goal[axis]! : one,
    ) as unknown as Vector;
    points[i] = moved;
    if (i < points.length - 1) break;
  }
  points.push(goal);
  let way: Vector[] = points;
  for (let i = 0; i + 2 < way.length;) {
    const [a, , c] = [way[i]!, way[i + 1]!, way[i + 2]!];
    const short =
      distance(way[i + 1]!, a) < 2.2 * input.bendRadiusM ||
      distance(c, way[i + 1]!) < 2.2 * input.bendRadiusM;
    if ((school.straight || short) && room.isOpen(a, c)) way = way.filter((_point, at) => at !== i + 1);
    else i += 1;
  }
  return [input.from, ...way, input.to]
    .map((point): Point => [point[0], point[1], point[2]].map((one) => Number(one.toFixed(4))) as Point)
    .filter((point, i, all) => i === 0 || distance(point, all[i - 1]!) > 1e-3);
}

/** The way as a run is judged; null: it does not hold once its corners are round. */
function proposalOf(points: Point[], input: ProposeInput, { says }: School): Proposal | null {
  const legs = legsOf(points);
  if (isProblem(legs)) return null;
  const path = filleted(legs, () => input.bendRadiusM);
  if (path.short.length > 0) return null;
  const room = new Room({ ...input, solids: input.solids.map(shrunk) }, 0);
  const [from, to] = [points[0]!, points.at(-1)!];
  const near = (point: Vector) =>
    distance(point, from) < input.bendRadiusM || distance(point, to) < input.bendRadiusM;
  if (pointsAlong(path).some((point) => !near(point) && !room.isFree(point))) return null;
  const spare = input.hazards.map(
    ({ points: line, minM }) => nearestTo(path, line).distanceM - input.halfM - minM,
  );
  if (spare.some((one) => one < -1e-9)) return null;
  const totalBendDeg = (legs.corners.reduce((sum, { turn }) => sum + turn, 0) * 180) / Math.PI;
  const along = pointsAlong(path);
  const out = (input.obstacles ?? []).filter(
    ({ solid }) =>
      !input.solids.includes(solid) && along.some(([x, y, z]) => isWithin(solid, x, y, z, input.halfM)),
  );
  const [atStart, atEnd] = [along, along.toReversed()].map(
    (outwards, end) => input.wet?.[end] === true && leadsIn(dropBefore(outwards)),
  );
  const drips = [atStart === true ? 'beginning' : '', atEnd === true ? 'end' : '']
    .filter(Boolean)
    .join(' and ');
  const hours = out.every(({ outHours }) => outHours !== undefined)
    ? `${formatNumber(out.reduce((sum, { outHours = 0 }) => sum + outHours, 0))} h`
    : 'hours not given';
  const spareM = spare.length === 0 ? null : Math.min(...spare);
  return {
    points,
    lengthM: path.lengthM,
    bends: legs.corners.length,
    totalBendDeg,
    spareM,
    out: out.map(({ id }) => id),
    says: `${out.length === 0 ? '' : `with ${out.map(({ tag }) => tag).join(' and ')} out for good (${hours}), `}${says}: ${formatNumber(path.lengthM)} m, ${legs.corners.length} ${legs.corners.length === 1 ? 'bend' : 'bends'}, ${formatNumber(totalBendDeg)}°${spareM === null ? '' : `, ${formatNumber(spareM * 1000)} mm more than asked to the nearest line`}${drips === '' ? '' : `; at its ${drips} it still has to hang below its entry`}`,
  };
}

/** A rounded corner may come a few millimetres nearer than the cells did. */
const shrunk = ({ low, high }: Solid): Solid => ({
  low: plus(low, [0.008, 0.008, 0.008]),
  high: minus(high, [0.008, 0.008, 0.008]),
});
