import { checkDesign, designFields, edit, type Design } from '../../../model/document';
import type { Evaluator } from '../../../model/step';

type Collection = keyof typeof designFields;

/**
 * Every rule that was judged of a design as it is and of which nothing is heard any more once a field is gone.
 *
 * @param names what stands once, or a collection; of a collection at most `most` things are looked at
 * @param goneWithIt what is gone because the thing itself is, by the field
 */
export function silenced(
  design: Design,
  names: readonly Collection[],
  goneWithIt: Readonly<Record<string, RegExp>>,
  evaluator: Pick<Evaluator, 'evaluate'>,
  most = Infinity,
): string[] {
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
  for (const name of names) {
    const held = design[name] as Record<string, object> | undefined;
    if (held === undefined) continue;
    if (designFields[name].inner?.kind === 'one')
      for (const field of Object.keys(held))
        without(`${name}.${field}`, (draft) => delete draft[name]![field]);
    else
      for (const [id, item] of Object.entries(held).slice(0, most))
        for (const field of Object.keys(item).filter((one) => one !== 'tag'))
          without(`${name}.${field}`, (draft) => delete (draft[name]![id] as Record<string, unknown>)[field]);
  }
  return [...found];
}
