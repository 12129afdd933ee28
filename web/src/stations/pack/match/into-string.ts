import { balanceStates, intoString, outlookOf, type IntoString, type Outlook } from '@torvek/core/balance';
import { balanceDefaults, type Design, type Id } from '@torvek/core/document';
import type { Entry } from '@torvek/core/record';

type Slices = Pick<Design, 'strings' | 'modules' | 'parts' | 'pack'>;

/** A module of a series string, with its neighbours and what the record tells of it. */
export interface Newcomer {
  string: string;
  /** Tag and last voltage of each module of the string, in series order; null: nobody measured it. */
  modules: { id: Id; tag: string; voltageV: number | null }[];
  moduleV: number | null;
  capacityAh: number | null;
  /** What is on it now, or was last. */
  phase: 'waiting' | 'on' | 'resting';
  gear: string | null;
  sinceMs: number | null;
  /** Readings of this rest: hours from its beginning, and volts. */
  rest: [hours: number, voltageV: number][];
}

const hourMs = 3.6e6;

/** What is known of a module and of those it stands in series with; null where it stands in no string of several. */
export function newcomerOf(design: Slices, present: readonly Entry[], module: Id): Newcomer | null {
  const string = Object.values(design.strings).find(({ modules }) => modules.includes(module));
  if (string === undefined || string.modules.length < 2) return null;
  const last = new Map<string, { value: number; atMs: number }[]>();
  for (const { body, takenAt } of present)
    if (body.kind === 'result' && body.measured.kind === 'value' && body.measured.over !== true) {
      const readings = last.get(body.step) ?? [];
      readings.push({ value: body.measured.value, atMs: Date.parse(takenAt) });
      last.set(body.step, readings);
    }
  const newest = (template: string, id: Id) => last.get(`${template}:${id}`)?.at(-1)?.value ?? null;
  const cell = balanceStates(design, present).find((one) => one.module === module);
  const { phase = 'waiting', gear = null, sinceMs = null } = cell ?? {};
  const rest =
    phase !== 'resting' || sinceMs === null
      ? []
      : (last.get(`intake-voltage:${module}`) ?? []).filter(({ atMs }) => atMs >= sinceMs);
  return {
    string: string.tag,
    modules: string.modules.map((id) => ({
      id,
      tag: design.modules[id]?.tag ?? id,
      voltageV: newest('intake-voltage', id),
    })),
    moduleV: newest('intake-voltage', module),
    capacityAh: newest('intake-capacity', module),
    phase,
    gear,
    sinceMs,
    // Of two readings at one instant the later one counts.
    rest: [...new Map(rest.map(({ value, atMs }) => [(atMs - sinceMs!) / hourMs, value]))].sort(
      ([a], [b]) => a - b,
    ),
  };
}

/** How it is brought level with the gear at hand; null while a voltage is missing. */
export function levelling(
  design: Slices,
  newcomer: Newcomer,
  module: Id,
  {
    moduleV,
    loadOhm,
    supplyA,
  }: { moduleV?: number | undefined; loadOhm?: number | undefined; supplyA?: number | undefined },
): IntoString | null {
  const part = design.parts[design.modules[module]?.part ?? ''];
  const from = moduleV ?? newcomer.moduleV;
  if (part?.kind !== 'module' || from === null) return null;
  return intoString({
    data: part.data,
    neighboursV: newcomer.modules.flatMap(({ id, voltageV }) =>
      id === module || voltageV === null ? [] : [voltageV],
    ),
    moduleV: from,
    capacityAh: newcomer.capacityAh ?? undefined,
    toleranceVPerCell: design.pack.balance?.toleranceV ?? balanceDefaults.toleranceV,
    loadOhm,
    supplyA,
  });
}

/** Where its rest will end, by the readings so far. */
export const restOf = (design: Slices, { rest }: Newcomer, { targetV, toleranceV }: IntoString): Outlook =>
  outlookOf(rest, {
    targetV,
    toleranceV,
    restHours: design.pack.balance?.restHours ?? balanceDefaults.restHours,
  });
