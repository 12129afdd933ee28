/** What is measured at a plug against its reference, V. */
export interface Ladder {
  cells: number;
  minV: number;
  maxV: number;
  /** One for each cell, from the lowest. */
  taps: readonly number[];
  /** Channels above them that are tied to the top. */
  ties: readonly number[];
}

export type FaultKind =
  | 'swapped'
  | 'swapped-far'
  | 'reversed'
  | 'open'
  | 'shifted'
  | 'missing-tie'
  | 'low-cell'
  | 'high-cell'
  | 'unknown';

export interface Fault {
  kind: FaultKind;
  taps: number[];
}

/** Of several explanations with as few faults, the one whose kinds come first here. */
const order: readonly FaultKind[] = [
  'swapped',
  'swapped-far',
  'reversed',
  'open',
  'shifted',
  'missing-tie',
  'low-cell',
  'high-cell',
  'unknown',
];

/** A reading equals another within this, V. */
const sameV = 0.02;
/** Up to so much of its highest voltage a step may still be a cell. */
const stillCell = 1.25;
/** All readings below this: the reference is open, V. */
const nothingV = 0.5;
/** Of more taps beside odd steps no pairs of exchanges are tried. */
const mostSuspects = 26;

/** A ladder with an assumption undone: where a tap is open its reading is unknown. */
interface Undone {
  faults: Fault[];
  taps: (number | null)[];
  ties: number[];
}

/**
 * The fewest faults that explain a ladder; one `unknown` where no two do.
 *
 * Source: each assumption (an exchange, a turned plug, open taps, a shift) is undone, and what is left is held against what cells can have.
 */
export function explain(ladder: Ladder): Fault[] {
  const { taps, ties, cells } = ladder;
  if ([...taps, ...ties].every((v) => Math.abs(v) < nothingV)) return [{ kind: 'open', taps: [0] }];
  let best: Fault[] | null = null;
  const offer = (undone: Undone) => {
    const rest = restOf(ladder, undone);
    if (rest === null) return;
    const faults = [...undone.faults, ...rest];
    if (best === null || isBetter(faults, best)) best = faults;
  };
  const asRead: Undone = { faults: [], taps: [...taps], ties: [...ties] };
  offer(asRead);
  const suspects = suspectsOf(ladder);
  const swaps = pairsOf(suspects).filter(([, k]) => k <= cells);
  const swapped = swaps.map((pair) => ({ pair, undone: swap(asRead, pair) }));
  for (const { undone } of swapped) offer(undone);
  const opens = suspects.filter((k) => k > 0);
  for (const k of opens) offer(open(asRead, [k]));
  for (const [a, b] of pairsOf(opens)) offer(open(asRead, [a, b]));
  if (suspects.length <= mostSuspects)
    for (const { pair, undone } of swapped) {
      for (const [i, j] of swaps)
        if (i > pair[0] && !pair.includes(i) && !pair.includes(j)) offer(swap(undone, [i, j]));
      for (const k of opens) if (!pair.includes(k)) offer(open(undone, [k]));
    }
  if (cells >= 4) for (const undone of turned(asRead, cells)) offer(undone);
  for (const fault of shifts(ladder)) if (best === null || isBetter([fault], best)) best = [fault];
  if (best === null) return [{ kind: 'unknown', taps: [] }];
  return (best as Fault[]).sort((a, b) => (a.taps[0] ?? 0) - (b.taps[0] ?? 0));
}

function isBetter(one: readonly Fault[], than: readonly Fault[]): boolean {
  if (one.length !== than.length) return one.length < than.length;
  const ranks = (faults: readonly Fault[]) =>
    faults.map(({ kind }) => order.indexOf(kind)).sort((a, b) => a - b);
  const [a, b] = [ranks(one), ranks(than)];
  const at = a.findIndex((rank, i) => rank !== b[i]);
  return at >= 0 && a[at]! < b[at]!;
}

const pairsOf = (those: readonly number[]): [number, number][] =>
  those.flatMap((a, i) => those.slice(i + 1).map((b): [number, number] => [a, b]));

/** Taps beside a step that no good cell has, and the reference; with ties, the top. */
function suspectsOf({ taps, ties, minV, maxV, cells }: Ladder): number[] {
  const odd = new Set([0]);
  taps.forEach((v, i) => {
    const step = v - (i === 0 ? 0 : taps[i - 1]!);
    if (step >= minV && step <= maxV) return;
    odd.add(i);
    odd.add(i + 1);
  });
  if (ties.some((v) => Math.abs(v - taps[cells - 1]!) > sameV)) odd.add(cells);
  return [...odd].sort((a, b) => a - b);
}

/** Two taps, or the reference and a tap, put back in their places. */
function swap({ faults, taps, ties }: Undone, [i, k]: [number, number]): Undone {
  const fault: Fault = { kind: k - i === 1 ? 'swapped' : 'swapped-far', taps: [i, k] };
  const next = [...taps];
  if (i > 0) {
    [next[i - 1], next[k - 1]] = [taps[k - 1]!, taps[i - 1]!];
    return { faults: [...faults, fault], taps: next, ties };
  }
  const at = taps[k - 1]!;
  // All was read against tap k: it reads what it is above the reference, turned round.
  return {
    faults: [...faults, fault],
    taps: taps.map((v, n) => (v === null ? null : n === k - 1 ? -v : v - at)),
    ties: ties.map((v) => v - at),
  };
}

const open = ({ faults, taps, ties }: Undone, those: readonly number[]): Undone => ({
  faults: [...faults, ...those.map((k): Fault => ({ kind: 'open', taps: [k] }))],
  taps: taps.map((v, n) => (those.includes(n + 1) ? null : v)),
  ties,
});

/** A plug that is turned round, without its reference and with it. */
function turned({ taps, ties }: Undone, n: number): Undone[] {
  const all = (from: number): Fault[] => [
    { kind: 'reversed', taps: Array.from({ length: n - from + 1 }, (_, i) => from + i) },
  ];
  const topV = -taps[n - 1]!;
  return [
    { faults: all(1), taps: [...taps].reverse(), ties },
    {
      faults: all(0),
      taps: Array.from({ length: n }, (_, i) => (i === n - 1 ? topV : taps[n - 2 - i]! + topV)),
      ties: ties.map((v) => v + topV),
    },
  ];
}

/** Faults of cells and ties that are left over; null: these readings are no cells’. */
function restOf(ladder: Ladder, { faults, taps, ties }: Undone): Fault[] | null {
  const { cells, minV, maxV } = ladder;
  const rest: Fault[] = [];
  let below = 0;
  for (let k = 1; k <= cells; k += 1) {
    const v = taps[k - 1]!;
    if (v !== null) {
      const step = v - below;
      if (!(step > 0) || step > stillCell * maxV) return null;
      if (step < minV) rest.push({ kind: 'low-cell', taps: [k] });
      else if (step > maxV) rest.push({ kind: 'high-cell', taps: [k] });
      below = v;
      continue;
    }
    let last = k;
    while (last < cells && taps[last] === null) last += 1;
    if (!isOpen(ladder, faults, taps, ties, k, last, below)) return null;
    if (last === cells) {
      below = Number.NaN;
      break;
    }
    below = taps[last]!;
    k = last + 1;
  }
  const topV = Number.isNaN(below) ? (ties.length > 0 ? mostCommon(ties) : null) : below;
  ties.forEach((v, j) => {
    if (topV !== null && Math.abs(v - topV) > sameV)
      rest.push({ kind: 'missing-tie', taps: [cells + j + 1] });
  });
  return rest;
}

const mostCommon = (ties: readonly number[]): number =>
  ties.reduce((best, v) =>
    ties.filter((one) => Math.abs(one - v) <= sameV).length >
    ties.filter((one) => Math.abs(one - best) <= sameV).length
      ? v
      : best,
  );

/** Whether taps `first` to `last` may be called open: the readings beside them fit, and their own do not. */
function isOpen(
  ladder: Ladder,
  faults: readonly Fault[],
  taps: readonly (number | null)[],
  ties: readonly number[],
  first: number,
  last: number,
  below: number,
): boolean {
  const { cells, minV, maxV } = ladder;
  // As the readings are once exchanges are undone: what an open tap read moved with them.
  const read = readAgain(ladder, faults);
  const count = last - first + 1;
  const isGood = (step: number) => step >= minV && step <= maxV;
  const firstStep = read[first - 1]! - below;
  if (last < cells) {
    const span = taps[last]! - below;
    if (span < (count + 1) * minV || span > (count + 1) * maxV) return false;
    return !isGood(firstStep) && !isGood(taps[last]! - read[last - 1]!);
  }
  const tieV = ties.length > 0 ? mostCommon(ties) : null;
  const proved =
    tieV !== null &&
    Math.abs(tieV - read[cells - 1]!) > sameV &&
    tieV - below >= count * minV &&
    tieV - below <= count * maxV;
  if (proved) return count === 1 || !isGood(firstStep);
  if (tieV !== null && Math.abs(tieV - read[cells - 1]!) <= sameV) return false;
  return count === 1 && (firstStep <= 0 || firstStep > stillCell * maxV);
}

/** The readings with exchanges undone and nothing left out. */
function readAgain({ taps, ties }: Ladder, faults: readonly Fault[]): number[] {
  let undone: Undone = { faults: [], taps: [...taps], ties: [...ties] };
  for (const { kind, taps: pair } of faults)
    if (kind === 'swapped' || kind === 'swapped-far') undone = swap(undone, [pair[0]!, pair[1]!]);
  return undone.taps as number[];
}

/** From a tap on every wire sits one pin too low: its step is that of two cells. */
function shifts({ taps, cells, minV, maxV }: Ladder): Fault[] {
  const steps = taps.map((v, i) => v - (i === 0 ? 0 : taps[i - 1]!));
  return Array.from({ length: Math.max(0, cells - 1) }, (_, i) => i + 1).flatMap((k): Fault[] => {
    const step = steps[k - 1]!;
    if (step < 2 * minV || step > 2 * maxV) return [];
    const others = steps.slice(0, cells - 1).filter((_, i) => i !== k - 1);
    if (others.some((one) => one < minV || one > maxV)) return [];
    const sorted = [...others].sort((a, b) => a - b);
    const middle = sorted.length >> 1;
    const median =
      sorted.length === 0
        ? 0
        : sorted.length % 2 === 1
          ? sorted[middle]!
          : (sorted[middle - 1]! + sorted[middle]!) / 2;
    return step >= 1.5 * median ? [{ kind: 'shifted', taps: [k] }] : [];
  });
}
