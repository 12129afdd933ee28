import { axleLoads, type MassChange } from '../vehicle';
import { fitModules, type BoxRoom, type ModuleSize } from './fit';
import { shortestOrder, type Place } from './order';

export interface ArrangeBox extends BoxRoom, Place {
  id: string;
  tag: string;
}

export interface ArrangeInput {
  boxes: ArrangeBox[];
  /** Kinds of module by key. */
  kinds: Record<string, ModuleSize & { massKg: number }>;
  /** How many of each kind each string takes. */
  strings: { id: string; counts: Record<string, number> }[];
  wheelbaseM: number;
  frontKg: number;
  rearKg: number;
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
  const shiftOf = shifter(input, kinds);
  const split = new Splitter(
    strings.map(({ counts }) => kinds.map((kind) => counts[kind] ?? 0)),
    boxes.length,
  );
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
  let steps = 0;

  function judge(): void {
    feasible += 1;
    const shiftPoints = shiftOf(division);
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
      if (fits[box]!(left) === null) return;
      left.forEach((count, k) => (division[box * kinds.length + k] = count));
      judge();
      return;
    }
    const choices = [...counted(left)];
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
  return { done: true, best, feasible };
}

/** Every vector between zero and the limits. */
function* counted(limits: readonly number[]): Generator<number[]> {
  const own = limits.map(() => 0);
  for (;;) {
    yield [...own];
    let k = 0;
    while (k < limits.length && own[k] === limits[k]) {
      own[k] = 0;
      k += 1;
    }
    if (k === limits.length) return;
    own[k]! += 1;
  }
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

/** Shift of the axle split for a division; the axle loads are linear in the masses. */
function shifter(input: ArrangeInput, kinds: string[]) {
  const { frontKg, rearKg, wheelbaseM, changes, boxes } = input;
  const before = frontKg / (frontKg + rearKg);
  const base = axleLoads.calculate({ frontKg, rearKg, wheelbaseM, changes }).result;
  const perModule = boxes.flatMap((box) =>
    kinds.map((kind) => {
      const { massKg } = input.kinds[kind]!;
      return { massKg, frontKg: massKg * (1 + box.xM / wheelbaseM) };
    }),
  );
  return (division: readonly number[]): number => {
    let front = base.frontKg;
    let total = base.totalKg;
    for (let i = 0; i < division.length; i += 1) {
      front += division[i]! * perModule[i]!.frontKg;
      total += division[i]! * perModule[i]!.massKg;
    }
    return (front / total - before) * 100;
  };
}

/** Divides what each box holds among the strings so that as few joints as can be lead from box to box. */
class Splitter {
  private readonly known = new Map<string, { links: number; parts: number[][][] }>();

  constructor(
    private readonly strings: number[][],
    private readonly boxes: number,
  ) {}

  best(division: readonly number[]): { links: number; parts: number[][][] } {
    return this.from(0, [...division]);
  }

  /** The least joints of strings `s` and later, which take all that is left. */
  private from(s: number, left: number[]): { links: number; parts: number[][][] } {
    const kinds = this.strings[0]?.length ?? 0;
    if (s === this.strings.length) return { links: 0, parts: [] };
    if (s === this.strings.length - 1) {
      const own = this.boxesOf(left, kinds);
      return { links: joints(own), parts: [own] };
    }
    const key = `${s}|${left.join(',')}`;
    const before = this.known.get(key);
    if (before !== undefined) return before;
    let best: { links: number; parts: number[][][] } | null = null;
    for (const take of this.takes(this.strings[s]!, left, 0)) {
      const own = this.boxesOf(take, kinds);
      const links = joints(own);
      if (best !== null && links >= best.links) continue;
      const rest = this.from(
        s + 1,
        left.map((count, i) => count - take[i]!),
      );
      if (best === null || links + rest.links < best.links)
        best = { links: links + rest.links, parts: [own, ...rest.parts] };
      if (best.links === 0) break;
    }
    this.known.set(key, best!);
    return best!;
  }

  private boxesOf(flat: readonly number[], kinds: number): number[][] {
    return Array.from({ length: this.boxes }, (_, b) => flat.slice(b * kinds, (b + 1) * kinds));
  }

  /** Every way a string can take its modules from what is left. */
  private *takes(wanted: readonly number[], left: readonly number[], box: number): Generator<number[]> {
    const kinds = wanted.length;
    if (box === this.boxes - 1) {
      const last = left.slice(box * kinds);
      if (wanted.every((count, k) => count <= last[k]!)) yield [...wanted];
      return;
    }
    const limits = wanted.map((count, k) => Math.min(count, left[box * kinds + k]!));
    for (const own of counted(limits))
      for (const rest of this.takes(
        wanted.map((count, k) => count - own[k]!),
        left,
        box + 1,
      ))
        yield [...own, ...rest];
  }
}

const joints = (own: number[][]) =>
  Math.max(own.filter((counts) => counts.some((count) => count > 0)).length - 1, 0);

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
