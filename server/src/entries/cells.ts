import { balanceStates } from '@torvek/core/balance';
import { asPresent } from '@torvek/core/record';
import { invalidInput } from '../http/errors';
import type { Bench } from './court';
import type { Subjects } from './subjects';

/** Every cell asked about, as it stands; each once. */
export function cellsOf({ job, entries }: Bench, ids: readonly string[], field: (i: number) => string) {
  const states = new Map(balanceStates(job.design, asPresent(entries)).map((state) => [state.id, state]));
  const seen = new Set<string>();
  return ids.map((id, i) => {
    const state = states.get(id);
    if (state === undefined) throw invalidInput([{ path: field(i), message: 'is no cell of this design' }]);
    if (seen.has(id)) throw invalidInput([{ path: field(i), message: 'is named twice' }]);
    seen.add(id);
    return state;
  });
}

/** The modules of cells are what the entry is about: a module's page shows it. */
export const modulesOf = (cells: ReturnType<typeof cellsOf>): Subjects => [
  ...new Map(cells.map(({ module, moduleTag }) => [module, { id: module, tag: moduleTag }])).values(),
];
