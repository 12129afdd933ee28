import { axleLoads, type MassChange } from '../vehicle';
import { fitModules, type BoxRoom, type ModuleSize } from './fit';
import { shortestOrder, type Place } from './order';
import { counted, Splitter } from './splitter';

export interface ArrangeBox extends BoxRoom, Place {
  id: string;
  tag: string;
}

export interface ArrangeInput {
  boxes: ArrangeBox[];
  /** Kinds of module by key. */
  kinds: Record<string, ModuleSize & { massKg: number }>;
  /** How many of each kind each string takes, and how many of them stay in which box. */
  strings: {
    id: string;
    counts: Record<string, number>;
    stay?: Record<string, Record<string, number>>;
  }[];
  wheelbaseM: number;
  frontKg: number;
  rearKg: number;
  /** What each axle may carry; absent: nobody said. */
  frontLimitKg?: number;
  rearLimitKg?: number;
  /** Everything but the modules: what leaves, what comes, empty boxes. */
  changes: MassChange[];
  /** Where strings begin and end. */
  mains: Place;
  /** How many proposals are kept. Default 8. */
  keep?: number;
}

/** One feasible arrangement with what it is ranked by. */
export interface Arrangement {
  /** Modules of each kind, by string and box: `counts[string][box][kind]`. */
  counts: Record<string, Record<string, Record<string, number>>>;
  /** Boxes of each string in series order, from the negative end. */
  order: Record<string, string[]>;
  shiftPoints: number;
  frontKg: number;
  rearKg: number;
  /** Joints of all strings that lead from one box to another. */
  linksBetween: number;
  /** Cable from the mains through the boxes and back, all strings, along the axes. */
  linkWayM: number;
  /** The free share of length in the fullest box. */
  spareFraction: number;
}

export interface ArrangeProgress {
  done: false;
  /** 0 to 1, rough. */
  fraction: number;
  feasible: number;
}

export interface ArrangeResult {
  done: true;
  best: Arrangement[];
  /** Feasible divisions of the modules over the boxes. */
  feasible: number;
  /** Divisions that fit their boxes and load an axle beyond its limit. */
  tooHeavy: number;
}

/** Shifts that differ by less are equal to the one who stands at the scales, points. */
export const shiftStepPoints = 0.1;

/** What arrangements are ranked by, first to last; smaller is better. */
export function rankOf({
  shiftPoints,
  linksBetween,
  spareFraction,
}: Pick<Arrangement, 'shiftPoints' | 'linksBetween' | 'spareFraction'>): [number, number, number] {
  return [
    Math.round(Math.abs(shiftPoints) / shiftStepPoints),
    linksBetween,
    -Math.round(spareFraction * 1e6) / 1e6,
  ];
}

function compare(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i += 1) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}

const everySteps = 256;

/**
 * Every way to divide modules over boxes that fits, ranked by shift of the axle split, joints between boxes, spare
 * room. Modules of one kind are the same to it. It gives way often, so that it can be shown and cancelled.
 *
 * @yields how far it has come
 * @returns the best, in rank order
 */
export function* arrange(input: ArrangeInput): Generator<ArrangeProgress, ArrangeResult> {
  const { boxes, strings } = input;
  const keep = input.keep ?? 8;
  const kinds = Object.keys(input.kinds);
  const totals = kinds.map((kind) => strings.reduce((sum, { counts }) => sum + (counts[kind] ?? 0), 0));
  const fits = boxes.map((box) => fitCache(box, kinds, totals, input));
  const loadsOf = loader(input, kinds);
  const stay = strings.map((string) =>
    boxes.flatMap(({ id }) => kinds.map((kind) => string.stay?.[id]?.[kind] ?? 0)),
  );
  const split = new Splitter(
    strings.map(({ counts }) => kinds.map((kind) => counts[kind] ?? 0)),
    boxes.length,
    stay,
  );
  /** What stays in a box, of all strings. */
  const least = boxes.map((_, b) =>
    kinds.map((_kind, k) => stay.reduce((sum, row) => sum + row[b * kinds.length + k]!, 0)),
  );
  /** What stays in this box and all later ones. */
  const kept = (box: number, k: number) => least.slice(box).reduce((sum, own) => sum + own[k]!, 0);
  // Modules in box b of kind k: division[b * kinds + k].
  const division = new Array<number>(boxes.length * kinds.length).fill(0);
  const found: {
    rank: number[];
    division: number[];
    parts: number[][][];
    shiftPoints: number;
    spare: number;
  }[] = [];
  let feasible = 0;
  let tooHeavy = 0;
  let steps = 0;

  function judge(): void {
    const { shiftPoints, within } = loadsOf(division);
    if (!within) {
      tooHeavy += 1;
      return;
    }
    feasible += 1;
    const worst = found.length < keep ? null : found.at(-1)!.rank;
    if (worst !== null && rankOf({ shiftPoints, linksBetween: 0, spareFraction: 0 })[0] > worst[0]!) return;
    let spareFraction = 1;
    let used = 0;
    for (let b = 0; b < boxes.length; b += 1) {
      const own = division.slice(b * kinds.length, (b + 1) * kinds.length);
      if (own.every((count) => count === 0)) continue;
      used += 1;
      spareFraction = Math.min(spareFraction, fits[b]!(own)!);
    }
    // Each box but the first of a string costs a joint, and every used box is some string's.
    const rank: number[] = rankOf({
      shiftPoints,
      linksBetween: Math.max(used - strings.length, 0),
      spareFraction,
    });
    if (worst !== null && compare(rank, worst) >= 0) return;
    const { links, parts } = split.best(division);
    rank[1] = links;
    if (worst !== null && compare(rank, worst) >= 0) return;
    const at = found.findIndex((one) => compare(rank, one.rank) < 0);
    found.splice(at < 0 ? found.length : at, 0, {
      rank,
      division: [...division],
      parts,
      shiftPoints,
      spare: spareFraction,
    });
    if (found.length > keep) found.pop();
  }

  /** Fills box after box; what is left over must find room in the last ones. */
  function* fill(box: number, left: number[], share: number, width: number): Generator<ArrangeProgress> {
    if (box === boxes.length - 1) {
      steps += 1;
      if (steps % everySteps === 0) yield { done: false, fraction: Math.min(share, 1), feasible };
      if (least[box]!.some((count, k) => left[k]! < count) || fits[box]!(left) === null) return;
      left.forEach((count, k) => (division[box * kinds.length + k] = count));
      judge();
      return;
    }
    const choices = [
      ...counted(
        left.map((count, k) => count - kept(box + 1, k)),
        least[box],
      ),
    ];
    const narrower = width / choices.length;
    for (const [i, own] of choices.entries()) {
      if (fits[box]!(own) === null) {
        steps += 1;
        if (steps % everySteps === 0) yield { done: false, fraction: share + i * narrower, feasible };
        continue;
      }
      own.forEach((count, k) => (division[box * kinds.length + k] = count));
      yield* fill(
        box + 1,
        left.map((count, k) => count - own[k]!),
        share + i * narrower,
        narrower,
      );
    }
  }

  if (boxes.length > 0) yield* fill(0, totals, 0, 1);
  const best = found.map(({ parts, division: own, shiftPoints, spare }) =>
    described(input, kinds, own, parts, shiftPoints, spare),
  );
  return { done: true, best, feasible, tooHeavy };
}

/** Spare share of a box by what is in it, or null where it does not fit; remembered. */
function fitCache(box: ArrangeBox, kinds: string[], totals: readonly number[], input: ArrangeInput) {
  const known = new Map<number, number | null>();
  return (counts: readonly number[]): number | null => {
    const key = counts.reduce((at, count, k) => at * (totals[k]! + 1) + count, 0);
    const before = known.get(key);
    if (before !== undefined) return before;
    const fit = fitModules(
      box,
      kinds.map((kind, k) => ({ size: input.kinds[kind]!, count: counts[k]! })),
    );
    const spare = fit === null ? null : fit.spareFraction;
    known.set(key, spare);
    return spare;
  };
}

/** Shift of the axle split for a division, and whether both axles carry it; their loads are linear in the masses. */
function loader(input: ArrangeInput, kinds: string[]) {
  const { frontKg, rearKg, wheelbaseM, changes, boxes } = input;
  const before = frontKg / (frontKg + rearKg);
  const base = axleLoads.calculate({ frontKg, rearKg, wheelbaseM, changes }).result;
  const perModule = boxes.flatMap((box) =>
    kinds.map((kind) => {
      const { massKg } = input.kinds[kind]!;
      return { massKg, frontKg: massKg * (1 + box.xM / wheelbaseM) };
    }),
  );
  const { frontLimitKg = Infinity, rearLimitKg = Infinity } = input;
  return (division: readonly number[]): { shiftPoints: number; within: boolean } => {
    let front = base.frontKg;
    let total = base.totalKg;
    for (let i = 0; i < division.length; i += 1) {
      front += division[i]! * perModule[i]!.frontKg;
      total += division[i]! * perModule[i]!.massKg;
    }
    return {
      shiftPoints: (front / total - before) * 100,
      within: front <= frontLimitKg + 1e-6 && total - front <= rearLimitKg + 1e-6,
    };
  };
}

function described(
  input: ArrangeInput,
  kinds: string[],
  division: number[],
  parts: number[][][],
  shiftPoints: number,
  spareFraction: number,
): Arrangement {
  const { boxes, strings } = input;
  const counts: Arrangement['counts'] = {};
  const order: Arrangement['order'] = {};
  let linkWayM = 0;
  let linksBetween = 0;
  strings.forEach(({ id }, s) => {
    const own = parts[s]!;
    const used = boxes.map((_, b) => b).filter((b) => own[b]!.some((count) => count > 0));
    counts[id] = Object.fromEntries(
      used.map((b) => [boxes[b]!.id, Object.fromEntries(kinds.map((kind, k) => [kind, own[b]![k]!]))]),
    );
    const way = shortestOrder(
      used.map((b) => boxes[b]!),
      input.mains,
    );
    order[id] = way.order.map((i) => boxes[used[i]!]!.id);
    linkWayM += way.wayM;
    linksBetween += Math.max(used.length - 1, 0);
  });
  const loads = axleLoads.calculate({
    frontKg: input.frontKg,
    rearKg: input.rearKg,
    wheelbaseM: input.wheelbaseM,
    changes: [
      ...input.changes,
      ...boxes.map((box, b) => ({
        name: box.tag,
        massKg: kinds.reduce(
          (sum, kind, k) => sum + division[b * kinds.length + k]! * input.kinds[kind]!.massKg,
          0,
        ),
        xM: box.xM,
      })),
    ],
  }).result;
  const { frontKg, rearKg } = loads;
  return { counts, order, shiftPoints, frontKg, rearKg, linksBetween, linkWayM, spareFraction };
}
