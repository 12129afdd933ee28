import { rulesByStation } from '../../trade/norms';
import { checkKey, gapText, type Check, type Gap } from '../../ground/figure';
import { designFields, thingOfPack } from '../../model/document';
import { judge, type Evaluation } from '../../model/step';

const ruleOf = rulesByStation(
  'contradiction',
  'mend',
  'Something that is given cannot be',
  'What follows from it is not computed, and no rule that needs it is checked.',
  'Set it right where it stands: the sentence names it and what it must be.',
  'Bounds of each calculation',
);

/** Collections that are spoken of as a whole. */
const wholes: Record<string, string> = {
  strings: 'pack',
  modules: 'pack',
  masses: 'vehicle',
  settings: 'pack',
};

/** What a place belongs to: an item of a collection by its id, else the root that holds it; null: no place of a design. */
const subjectOf = (path: string): string | null => {
  const [root = '', id, field] = path.split('.');
  if (root === 'parts' || !Object.hasOwn(designFields, root)) return null;
  if (root === 'pack' || root === 'vehicle') return thingOfPack(path) ?? root;
  return field === undefined ? (wholes[root] ?? root) : (id ?? root);
};

/**
 * A gap that is caused by a contradiction, and not by something that is not given yet, is itself a finding: without one, every rule that
 * needs the figure would fall silent. One finding for each thing and station, whatever hangs on it.
 *
 * @returns the same for the same evaluation; findings keep their identity while their words do
 */
export function withContradictions(): (evaluation: Evaluation) => Evaluation {
  let last: { evaluation: Evaluation; finished: Evaluation } | null = null;
  let known = new Map<string, Check>();
  return (evaluation) => {
    if (last?.evaluation === evaluation) return last.finished;
    const found = contradictionsIn(evaluation);
    const now = new Map<string, Check>();
    for (const [key, gaps] of found) {
      const made = checkOf(gaps);
      const before = known.get(key);
      const same = before?.state === 'raised' && made.state === 'raised' && before.message === made.message;
      now.set(key, same ? before : made);
    }
    known = now;
    const checks = [...evaluation.checks, ...now.values()];
    const finished =
      now.size === 0
        ? evaluation
        : { ...evaluation, checks: checks.sort((a, b) => (a.key < b.key ? -1 : 1)) };
    last = { evaluation, finished };
    return finished;
  };
}

/** A contradiction with the thing that it is about. */
interface Found {
  gap: Extract<Gap, { kind: 'invalid' }>;
  subject: string;
}

/** Contradictions by the finding they make, each place once. */
function contradictionsIn({ figures, checks }: Evaluation): Map<string, Found[]> {
  const places = new Map<string, { gap: Found['gap']; carriers: Set<string> }>();
  const take = (gaps: readonly Gap[], carrier: string) => {
    for (const gap of gaps) {
      if (gap.kind !== 'invalid') continue;
      const place = `${gap.path}\n${gap.message}`;
      const known = places.get(place);
      if (known === undefined) places.set(place, { gap, carriers: new Set([carrier]) });
      else known.carriers.add(carrier);
    }
  };
  for (const { id, value, gaps } of Object.values(figures))
    if (value === null && gaps.length > 0) take(gaps, id.slice(id.indexOf(':') + 1, id.lastIndexOf(':')));
  for (const check of checks)
    if (check.state === 'not-checked') take(check.gaps, check.subjects[0] ?? 'pack');
  const found = new Map<string, Found[]>();
  for (const { gap, carriers } of places.values()) {
    // What a part's sheet says has no place of its own: it is the pack's where that rests on it, else the first thing's that does.
    const subject = subjectOf(gap.path) ?? (carriers.has('pack') ? 'pack' : [...carriers][0]!);
    const key = checkKey(ruleOf(gap.path), [subject]);
    found.set(key, [...(found.get(key) ?? []), { gap, subject }]);
  }
  return found;
}

function checkOf(found: Found[]): Check {
  const { gap, subject } = found[0]!;
  const words = found.map((one) => gapText(one.gap)).sort();
  const sentence = words.map((one) => `${one[0]!.toUpperCase()}${one.slice(1)}.`).join(' ');
  // An acceptance is of these contradictions: it lapses when one goes or another comes.
  const values = words.map((label) => ({ label, value: 1, unit: '' }));
  return judge(ruleOf(gap.path), [subject], [], sentence, values);
}
