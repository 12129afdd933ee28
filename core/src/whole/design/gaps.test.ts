import { expect, test } from '@jest/globals';
import { checkDesign, edit, type Design } from '../../model/document';
import { createEvaluator } from '.';
import * as library from './clean/library';
import * as orchard from './clean/orchard';

const designs = Object.entries({ ...orchard, ...library }) as [string, Design][];
const roots = ['vehicle', 'pack', 'settings'] as const;
const collections = ['masses', 'boxes', 'strings', 'devices', 'circuits', 'joints', 'bonds'] as const;

/**
 * What is gone with a field because the thing itself is: a circuit that feeds nothing has no device whose poles, fuses and plugs could be
 * judged, and that it feeds nothing is a finding.
 */
const goneWithIt: Record<string, RegExp> = {
  'circuits.device': /^network\./,
  // That there is no disconnect, no cable and no lead is said of the string itself.
  'strings.disconnectAt': /^disconnect\./,
  'pack.leads': /^cable\./,
  'pack.sense': /^sense\./,
};

/** Every rule that was judged of the design as it is and of which nothing is heard any more once the field is gone. */
function silenced(design: Design): string[] {
  const evaluator = createEvaluator();
  const keysOf = (of: Design) => new Set(evaluator.evaluate(of).checks.map(({ key }) => key));
  const all = keysOf(design);
  const found = new Set<string>();
  const without = (field: string, take: (draft: Record<string, never>) => void) => {
    const edited = edit(design, (draft) => take(draft as unknown as Record<string, never>));
    if (edited === null || !checkDesign(edited.design).ok) return;
    const left = keysOf(edited.design);
    for (const key of all) {
      const rule = key.split('|')[0]!;
      if (!left.has(key) && goneWithIt[field]?.test(rule) !== true) found.add(`${field} silences ${rule}`);
    }
  };
  for (const root of roots)
    for (const field of Object.keys(design[root]))
      without(`${root}.${field}`, (draft) => delete draft[root]![field]);
  for (const name of collections)
    for (const [id, item] of Object.entries(design[name] ?? {}))
      for (const field of Object.keys(item as object).filter((one) => one !== 'tag'))
        without(`${name}.${field}`, (draft) => delete (draft[name]![id] as Record<string, unknown>)[field]);
  return [...found];
}

test.each(designs)('%s: a gap silences no rule: what cannot be judged says so', (_, design) => {
  expect(silenced(design)).toEqual([]);
});
