/** Lays cuts on reels. Numbers here are indices into both lists. */
export interface Laying {
  /** By cut: its reel; -1: on none. */
  reelOf: number[];
}

/** Lengths are compared to this, m. */
export const same = 1e-9;

/** How good a laying is, as the contract orders it. */
export interface Worth {
  placed: number;
  lengthM: number;
  reels: number;
  /** What is left of every reel, opened or not, longest first. */
  left: number[];
  /** Indices of the reels used, rising. */
  used: number[];
}

export function worthOf(
  reels: readonly number[],
  cuts: readonly number[],
  kerfM: number,
  { reelOf }: Laying,
): Worth {
  const left = [...reels];
  let placed = 0;
  let lengthM = 0;
  const used = new Set<number>();
  reelOf.forEach((reel, i) => {
    if (reel < 0) return;
    placed += 1;
    lengthM += cuts[i]!;
    left[reel]! -= cuts[i]! + kerfM;
    used.add(reel);
  });
  return {
    placed,
    lengthM,
    reels: used.size,
    left: left.sort((a, b) => b - a),
    used: [...used].sort((a, b) => a - b),
  };
}

const near = (a: number, b: number) => Math.abs(a - b) <= same;

/** Negative: the first is better. */
export function compareWorth(a: Worth, b: Worth): number {
  if (a.placed !== b.placed) return b.placed - a.placed;
  if (!near(a.lengthM, b.lengthM)) return b.lengthM - a.lengthM;
  if (a.reels !== b.reels) return a.reels - b.reels;
  for (let i = 0; i < a.left.length; i += 1)
    if (!near(a.left[i]!, b.left[i]!)) return b.left[i]! - a.left[i]!;
  for (let i = 0; i < a.used.length; i += 1) if (a.used[i] !== b.used[i]) return a.used[i]! - b.used[i]!;
  return 0;
}

/** Everything about sets of cuts; a set is a number with a bit for each cut. */
class Sets {
  readonly all: number;
  /** What a set takes of a reel, kerfs included, m. */
  readonly need: Float64Array;
  readonly lengths: Float64Array;
  readonly sizes: Uint8Array;
  /** Two bits for each cut, the first cut highest: times a reel, the digits of a laying. */
  readonly digits: Uint32Array;

  constructor(cuts: readonly number[], kerfM: number) {
    this.all = 1 << cuts.length;
    this.need = new Float64Array(this.all);
    this.lengths = new Float64Array(this.all);
    this.sizes = new Uint8Array(this.all);
    this.digits = new Uint32Array(this.all);
    for (let set = 1; set < this.all; set += 1) {
      const low = 31 - Math.clz32(set & -set);
      const rest = set & (set - 1);
      this.need[set] = this.need[rest]! + cuts[low]! + kerfM;
      this.lengths[set] = this.lengths[rest]! + cuts[low]!;
      this.sizes[set] = this.sizes[rest]! + 1;
      this.digits[set] = this.digits[rest]! + 4 ** (cuts.length - 1 - low);
    }
  }
}

/** The best laying of each set of cuts on the first reels. */
class Prefix {
  /** Reels opened; 255: the set does not go onto these reels. */
  readonly opened: Uint8Array;
  /** A bit for each reel opened, the first highest. */
  readonly used: Uint8Array;
  /** Left-overs of these reels, longest first. */
  readonly left: Float64Array;
  /** Reel of each cut, in digits of two bits. */
  readonly code: Uint32Array;

  constructor(
    all: number,
    readonly reels: number,
  ) {
    this.opened = new Uint8Array(all).fill(never);
    this.used = new Uint8Array(all);
    this.left = new Float64Array(all * reels);
    this.code = new Uint32Array(all);
  }
}

const never = 255;

/** Sets that can be placed with the most cuts, and of these the greatest length. */
function mostPlaced(reels: readonly number[], { all, need, lengths, sizes }: Sets): number[] {
  let reach: Uint8Array | null = null;
  for (const reel of reels) {
    const now: Uint8Array = new Uint8Array(all);
    for (let set = 0; set < all; set += 1) {
      if (reach === null) now[set] = need[set]! <= reel + same ? 1 : 0;
      else
        for (let own = set; ; own = (own - 1) & set) {
          if (reach[set ^ own] === 1 && need[own]! <= reel + same) {
            now[set] = 1;
            break;
          }
          if (own === 0) break;
        }
    }
    reach = now;
  }
  const last = reach!;
  let [most, longest] = [0, 0];
  for (let set = 0; set < all; set += 1) {
    if (last[set] !== 1 || sizes[set]! < most) continue;
    if (sizes[set]! > most) [most, longest] = [sizes[set]!, lengths[set]!];
    else longest = Math.max(longest, lengths[set]!);
  }
  const finals: number[] = [];
  for (let set = 0; set < all; set += 1)
    if (last[set] === 1 && sizes[set] === most && near(lengths[set]!, longest)) finals.push(set);
  return finals;
}

/**
 * The best laying of up to 15 cuts on up to 4 reels, by dynamic programming over sets of cuts. Of each set on the first reels the best
 * is kept: fewest reels, then the longest left-overs, then the earliest reels, then the earliest reel for each cut. What is best of a
 * set stays best whatever another reel adds to it, so nothing is lost.
 *
 * @param allFit it is known that all cuts can be placed
 */
export function layExactly(
  reels: readonly number[],
  cuts: readonly number[],
  kerfM: number,
  allFit = false,
): Laying {
  const sets = new Sets(cuts, kerfM);
  const finals = allFit ? [sets.all - 1] : mostPlaced(reels, sets);
  let prefix = new Prefix(sets.all, 0);
  prefix.opened[0] = 0;
  reels.forEach((_reel, k) => {
    prefix = withReel(prefix, reels, k, sets, k === reels.length - 1 ? finals : null);
  });
  const layings = finals.map((set): Laying => ({
    reelOf: cuts.map((_cut, i) =>
      (set & (1 << i)) === 0 ? -1 : Math.floor(prefix.code[set]! / 4 ** (cuts.length - 1 - i)) % 4,
    ),
  }));
  return layings.reduce((best, one) => {
    const by = compareWorth(worthOf(reels, cuts, kerfM, one), worthOf(reels, cuts, kerfM, best));
    return by < 0 || (by === 0 && earlier(one, best)) ? one : best;
  });
}

/** The same with one more reel; only of these sets, where no others matter. */
function withReel(
  before: Prefix,
  reels: readonly number[],
  k: number,
  sets: Sets,
  only: readonly number[] | null,
): Prefix {
  const { all, need } = sets;
  const room = reels[k]! + same;
  const bit = 1 << (reels.length - k - 1);
  const now = new Prefix(all, k + 1);
  const offer = (set: number, own: number) => {
    const rest = set ^ own;
    const opened = before.opened[rest]! + (own === 0 ? 0 : 1);
    const known = now.opened[set]!;
    if (known < opened) return;
    const used = before.used[rest]! | (own === 0 ? 0 : bit);
    const code = before.code[rest]! + k * sets.digits[own]!;
    const left = reels[k]! - need[own]!;
    if (known === opened) {
      const by = compareLeft(now, set, before, rest, left);
      if (by < 0) return;
      if (by === 0) {
        if (now.used[set]! > used) return;
        if (now.used[set] === used && now.code[set]! <= code) return;
      }
    }
    now.opened[set] = opened;
    now.used[set] = used;
    now.code[set] = code;
    keepLeft(now, set, before, rest, left);
  };
  const count = only?.length ?? all;
  for (let i = 0; i < count; i += 1) {
    const set = only?.[i] ?? i;
    // Onto the first reel a set goes whole, or not at all.
    if (k === 0) {
      if (need[set]! <= room) offer(set, set);
      continue;
    }
    for (let own = set; ; own = (own - 1) & set) {
      if (before.opened[set ^ own] !== never && need[own]! <= room) offer(set, own);
      if (own === 0) break;
    }
  }
  return now;
}

/** Left-overs of what is known against those of the rest and one more; negative: what is known has longer ones. */
function compareLeft(now: Prefix, set: number, before: Prefix, rest: number, more: number): number {
  let [from, taken] = [rest * before.reels, false];
  const end = from + before.reels;
  for (let i = 0; i < now.reels; i += 1) {
    const own = !taken && (from === end || more >= before.left[from]!);
    const next = own ? more : before.left[from]!;
    if (own) taken = true;
    else from += 1;
    const known = now.left[set * now.reels + i]!;
    if (!near(known, next)) return next - known;
  }
  return 0;
}

function keepLeft(now: Prefix, set: number, before: Prefix, rest: number, more: number): void {
  let [from, taken] = [rest * before.reels, false];
  const end = from + before.reels;
  for (let i = 0; i < now.reels; i += 1) {
    const own = !taken && (from === end || more >= before.left[from]!);
    now.left[set * now.reels + i] = own ? more : before.left[from]!;
    if (own) taken = true;
    else from += 1;
  }
}

/** The earliest reel for each cut in its order; a cut that is on none comes last. */
function earlier(a: Laying, b: Laying): boolean {
  for (let i = 0; i < a.reelOf.length; i += 1) {
    const [x, y] = [a.reelOf[i]!, b.reelOf[i]!].map((reel) => (reel < 0 ? Infinity : reel)) as [
      number,
      number,
    ];
    if (x !== y) return x < y;
  }
  return false;
}
