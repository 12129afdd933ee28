import { compareWorth, layExactly, same, worthOf, type Laying } from './place-cuts';

/** How many cuts and reels are laid exactly. */
export const exactCuts = 15;
export const exactReels = 4;

type Pick = (left: readonly number[], need: number, used: readonly boolean[]) => number;

const firstThatFits: Pick = (left, need) => left.findIndex((one) => one >= need - same);

/** The tightest of those that are open already, else the tightest of all. */
const tightest: Pick = (left, need, used) => {
  let best = -1;
  left.forEach((one, i) => {
    if (one < need - same) return;
    if (best < 0 || Number(used[i]) > Number(used[best]) || (used[i] === used[best] && one < left[best]!))
      best = i;
  });
  return best;
};

function lay(
  reels: readonly number[],
  cuts: readonly number[],
  kerfM: number,
  order: readonly number[],
  pick: Pick,
): Laying {
  const left = [...reels];
  const used = reels.map(() => false);
  const reelOf = cuts.map(() => -1);
  for (const cut of order) {
    const need = cuts[cut]! + kerfM;
    const reel = pick(left, need, used);
    if (reel < 0) continue;
    left[reel]! -= need;
    used[reel] = true;
    reelOf[cut] = reel;
  }
  return { reelOf };
}

/**
 * A good laying of many cuts on many reels: the best of several simple ones, never worse than first-fit, then improved by laying the
 * cuts of a few reels exactly, until that finds nothing better.
 *
 * @param mostTries how often a few reels are laid anew; 0: the simple ones alone
 */
export function layWell(
  reels: readonly number[],
  cuts: readonly number[],
  kerfM: number,
  mostTries = 60,
): Laying {
  const input = cuts.map((_cut, i) => i);
  const rising = [...input].sort((a, b) => cuts[a]! - cuts[b]!);
  const orders = [input, [...rising].reverse(), rising];
  const worth = (one: Laying) => worthOf(reels, cuts, kerfM, one);
  let best = orders
    .flatMap((order) => [firstThatFits, tightest].map((pick) => lay(reels, cuts, kerfM, order, pick)))
    .reduce((a, b) => (compareWorth(worth(b), worth(a)) < 0 ? b : a));
  let tries = 0;
  for (let improved = true; improved && tries < mostTries;) {
    improved = false;
    for (const few of groupsOf(reels, best)) {
      tries += 1;
      const again = relaid(reels, cuts, kerfM, best, few);
      if (again !== null && compareWorth(worth(again), worth(best)) < 0) {
        best = again;
        improved = true;
        break;
      }
      if (tries >= mostTries) break;
    }
  }
  return best;
}

/** Laid anew together: more would take long. */
const togetherCuts = 11;

/** Reels two by two, and each with what lies on none. */
function* groupsOf(reels: readonly number[], { reelOf }: Laying): Generator<number[]> {
  const used = reels.map((_reel, i) => i).filter((reel) => reelOf.includes(reel));
  const spare = reels.map((_reel, i) => i).filter((reel) => !used.includes(reel));
  for (const [i, a] of used.entries()) for (const b of used.slice(i + 1)) yield [a, b];
  for (const a of used) for (const b of spare.slice(0, 3)) yield [a, b];
}

/** Lays the cuts of these reels, and of none, anew; null: they are too many. */
function relaid(
  reels: readonly number[],
  cuts: readonly number[],
  kerfM: number,
  { reelOf }: Laying,
  few: readonly number[],
): Laying | null {
  const own = reelOf.flatMap((reel, cut) => (few.includes(reel) ? [cut] : []));
  if (own.length > togetherCuts) return null;
  const loose = reelOf
    .flatMap((reel, cut) => (reel < 0 ? [cut] : []))
    .sort((a, b) => cuts[a]! - cuts[b]!)
    .slice(0, togetherCuts - own.length);
  const mine = [...own, ...loose].sort((a, b) => a - b);
  const found = layExactly(
    few.map((reel) => reels[reel]!),
    mine.map((cut) => cuts[cut]!),
    kerfM,
  );
  const next = [...reelOf];
  mine.forEach((cut, i) => (next[cut] = found.reelOf[i]! < 0 ? -1 : few[found.reelOf[i]!]!));
  return { reelOf: next };
}
