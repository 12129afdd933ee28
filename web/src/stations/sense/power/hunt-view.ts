import { sensingDefaults, type Design } from '@torvek/core/document';
import { hunt, restartSuspects, type Hunt, type HuntSuspect } from '@torvek/core/monitoring';
import { formatNumber } from '@torvek/core/quantity';
import type { Entry, EntryOf, HuntTryBody } from '@torvek/core/record';
import { ofKind } from '@torvek/core/record';

export interface HuntView {
  suspects: HuntSuspect[];
  /** Of the hunt that was begun last. */
  tries: EntryOf<HuntTryBody>[];
  now: Hunt;
  /** What to do next, or what came out, in words. */
  says: string;
}

/** The hunt that was begun last, and what it proposes. */
export function huntView(
  design: Pick<Design, 'boards' | 'strings' | 'modules' | 'boxes' | 'sensors' | 'sensing'>,
  entries: readonly Entry[],
): HuntView {
  const suspects = restartSuspects(design);
  const all = ofKind<HuntTryBody>(entries, 'hunt-try');
  const first = all.findLastIndex(({ body }) => body.begins);
  const tries = all.slice(Math.max(0, first));
  const coldStarts = design.sensing?.coldStarts ?? sensingDefaults.coldStarts;
  const now = hunt(
    suspects,
    tries.map(({ body }) => body),
    coldStarts,
  );
  return { suspects, tries, now, says: sayHunt(now, suspects) };
}

export function sayHunt(now: Hunt, suspects: readonly HuntSuspect[]): string {
  const name = (id: string) => suspects.find((one) => one.id === id)?.name ?? id;
  const often =
    now.restartFraction === null
      ? ''
      : ` It comes in ${formatNumber(now.restartFraction * 100, 2)} % of starts.`;
  switch (now.state) {
    case 'baseline':
      return `First as it stands, nothing taken out: start it cold ${now.startsDue} times, and count.`;
    case 'watch':
      return `It did not come: ${now.startsDue} more cold starts before it counts as gone.`;
    case 'vanished':
      return `Not seen in ${now.startsNeeded} cold starts. A fault that went by itself comes back: look at what was touched last.`;
    case 'halve':
      return `${now.left.length} are left. Take half of them out of the way, then start it cold ${now.startsDue} times.${often}`;
    case 'repeat':
      return `Quiet so far, which may be chance: ${now.startsDue} more cold starts the same way.${often}`;
    case 'confirm':
      return `One is left: ${name(now.left[0]!)}. All else back in, this one alone out, ${now.startsDue} cold starts.`;
    case 'found':
      return `It is ${name(now.left[0]!)}: without it quiet in ${now.startsNeeded} starts. Mend it, record the work, then begin a new hunt to see that it is gone.`;
    case 'none-left':
      return 'Everything was excluded: there are two causes, one that comes and goes more rarely than was counted, or one that is not in this list. Begin anew with more starts.';
  }
}
