import { balanceStates } from '@torvek/core/balance';
import type { BalanceBody, CellVoltagesBody, Detail } from '@torvek/core/record';
import { HttpError, invalidInput } from '../http/errors';
import type { Bench } from './ledger';
import type { EntryRequest } from './request';

type Asked<Kind extends EntryRequest['kind']> = Extract<EntryRequest, { kind: Kind }>;
type Subjects = { id: string; tag: string }[];

/** Every cell asked about, as it stands; each once. */
function cellsOf({ job, entries }: Bench, ids: readonly string[], field: (i: number) => string) {
  const states = new Map(balanceStates(job.design, entries).map((state) => [state.id, state]));
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
const modulesOf = (cells: ReturnType<typeof cellsOf>): Subjects => [
  ...new Map(cells.map(({ module, moduleTag }) => [module, { id: module, tag: moduleTag }])).values(),
];

/** Voltages of cells, each with the tag it had. */
export function judgeCellVoltages(
  { cells, entered, remark }: Asked<'cell-voltages'>,
  bench: Bench,
): { body: CellVoltagesBody; subjects: Subjects } {
  const known = cellsOf(
    bench,
    cells.map(({ cell }) => cell),
    (i) => `cells.${i}.cell`,
  );
  return {
    subjects: modulesOf(known),
    body: {
      kind: 'cell-voltages',
      entered,
      cells: cells.map(({ cell, samples }, i) => ({ cell, tag: known[i]!.tag, samples })),
      ...(remark !== undefined && { remark }),
    },
  };
}

/** A load, bleed, charger or joint on cells that are off, or off cells that are on. */
export function judgeBalance(
  { act, gear, cells, place, remark }: Asked<'balance'>,
  bench: Bench,
): { body: BalanceBody; subjects: Subjects } {
  const known = cellsOf(bench, cells, (i) => `cells.${i}`);
  const wrong = known.filter(({ phase }) => (phase === 'on') === (act === 'on'));
  if (wrong.length > 0)
    throw new HttpError(
      409,
      'not-so',
      `${wrong
        .slice(0, 6)
        .map(({ tag }) => tag)
        .join(', ')} ${act === 'on' ? 'is on already: take it off first' : 'is not on'}`,
    );
  const plan = bench.job.design.pack.balance ?? {};
  const recipe: Detail[] = [];
  const say = (label: string, value: number | undefined, unit: string) => {
    if (value !== undefined) recipe.push({ label, value, unit });
  };
  if (gear === 'load') {
    say('load', plan.loadOhm, 'Ω');
    say('cut-off', plan.cutOffV, 'V');
    say('on again at', plan.engageV, 'V');
    say('hours', plan.drawHours, 'h');
  } else if (gear === 'bleed') say('bleed', plan.bleedCurrentA, 'A');
  return {
    subjects: modulesOf(known),
    body: {
      kind: 'balance',
      act,
      gear,
      cells,
      place: place ?? known[0]?.place ?? null,
      recipe,
      ...(remark !== undefined && { remark }),
    },
  };
}
