/** Something that may make a unit restart, and how it is taken out of the way. */
export interface HuntSuspect {
  id: string;
  name: string;
  /** What is done so that it cannot be the cause. */
  how: string;
}

/** One try: what was taken out, how often the unit was started cold, and how often it restarted by itself. */
export interface HuntTry {
  out: readonly string[];
  starts: number;
  restarts: number;
}

export type HuntState =
  /** Nothing was started yet: as it stands, to see how often it happens. */
  | 'baseline'
  /** Half of what is left goes out of the way. */
  | 'halve'
  /** The last try stopped it, but too few starts were seen. */
  | 'repeat'
  /** One is left; it alone goes out of the way. */
  | 'confirm'
  | 'found'
  /** As it stands it restarts no longer, though nothing was cured: more starts. */
  | 'watch'
  | 'vanished'
  /** Every suspect was excluded. */
  | 'none-left';

export interface Hunt {
  state: HuntState;
  /** Ids that are still suspected, in order. */
  left: string[];
  /** What goes out of the way in the next try; null: no try is proposed. */
  next: string[] | null;
  /** Starts without a restart before a try counts as quiet. */
  startsNeeded: number;
  /** How many of them the next try still wants. */
  startsDue: number;
  /** Restarts over starts, where it did restart; null before. */
  restartFraction: number | null;
}

/** That a fault which comes and goes was seen by chance not to come is this likely at most. */
export const missedAtMost = 0.05;
/** Beyond this nobody goes on starting a unit. */
const startsAtMost = 60;

const sameSet = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((one) => b.includes(one));

/**
 * The next try in the hunt for one cause of restarts. A restart with something out of the way excludes that; enough quiet starts
 * exclude the rest. How many are enough follows from how often it happened: (1 − p)^N at most `missedAtMost`.
 *
 * @param suspects the likely and the easily taken out first
 * @param coldStarts at the least, before quiet counts
 */
export function hunt(
  suspects: readonly Pick<HuntSuspect, 'id'>[],
  tries: readonly HuntTry[],
  coldStarts: number,
): Hunt {
  const loud = tries.filter(({ restarts }) => restarts > 0);
  const starts = loud.reduce((sum, one) => sum + one.starts, 0);
  const restartFraction =
    starts === 0 ? null : Math.min(1, loud.reduce((sum, one) => sum + one.restarts, 0) / starts);
  const startsNeeded = neededStarts(restartFraction, coldStarts);
  const answer = (
    state: HuntState,
    left: string[],
    next: string[] | null,
    startsDue = startsNeeded,
  ): Hunt => ({
    state,
    left,
    next,
    startsNeeded,
    startsDue: next === null ? 0 : Math.max(1, startsDue),
    restartFraction,
  });
  // Of one arrangement the starts add up; one restart makes it loud, whenever it was.
  const arrangements: { out: readonly string[]; starts: number; restarts: number; last: number }[] = [];
  tries.forEach((one, i) => {
    const known = arrangements.find(({ out }) => sameSet(out, one.out));
    if (known === undefined) arrangements.push({ ...one, last: i });
    else {
      known.starts += one.starts;
      known.restarts += one.restarts;
      known.last = i;
    }
  });
  const all = suspects.map(({ id }) => id);
  const asItStands = arrangements.find(({ out }) => out.length === 0);
  let left = all;
  for (const { out, starts: of, restarts } of arrangements) {
    if (restarts > 0) left = left.filter((id) => !out.includes(id));
    else if (out.length > 0 && of >= startsNeeded) left = left.filter((id) => out.includes(id));
  }
  if (loud.length === 0) {
    if (asItStands === undefined) return answer('baseline', left, []);
    const due = startsNeeded - asItStands.starts;
    return due > 0 ? answer('watch', left, [], due) : answer('vanished', left, null);
  }
  if (left.length === 0) return answer('none-left', left, null);
  const quiet = arrangements
    .filter(({ out, restarts, starts: of }) => out.length > 0 && restarts === 0 && of < startsNeeded)
    // What it would exclude is still open.
    .filter(
      ({ out }) =>
        left.some((id) => out.includes(id)) && (left.length === 1 || !left.every((id) => out.includes(id))),
    )
    .sort((a, b) => b.last - a.last)[0];
  if (quiet !== undefined) return answer('repeat', left, [...quiet.out], startsNeeded - quiet.starts);
  if (left.length === 1) {
    const alone = arrangements.find(({ out }) => sameSet(out, left));
    return alone !== undefined && alone.restarts === 0 && alone.starts >= startsNeeded
      ? answer('found', left, null)
      : answer('confirm', left, left);
  }
  return answer('halve', left, left.slice(0, Math.ceil(left.length / 2)));
}

/** Starts without a restart that leave `missedAtMost` for chance. */
function neededStarts(restartFraction: number | null, coldStarts: number): number {
  if (restartFraction === null || restartFraction >= 1) return coldStarts;
  const byChance = Math.ceil(Math.log(missedAtMost) / Math.log(1 - restartFraction) - 1e-9);
  return Math.min(startsAtMost, Math.max(coldStarts, byChance));
}
