import { intakeQuantities, type IntakeQuantity } from '@torvek/core/balance';
import type { ProcedureStep } from '@torvek/core/commissioning';
import type { StepStatus } from '@torvek/core/design';
import type { Design, Id } from '@torvek/core/document';
import { stockOf, type Entry, type Item, type Look, type Seen } from '@torvek/core/record';

type Field = IntakeQuantity['field'];

/** What is known of one module: recorded, or typed and not recorded yet. */
export interface IntakeRow extends Seen, Partial<Record<Field, number>> {
  serial?: string;
  look?: Look;
  /** Readings at which the range of the instrument ended. */
  over?: Partial<Record<Field, true>>;
}

export interface IntakeSheet {
  rows: Record<Id, IntakeRow>;
}

/** What is measured, with the step of the procedure that records it. */
export const measures: readonly IntakeQuantity[] = intakeQuantities;
export type Measure = IntakeQuantity;

/** What is seen of a module, and goes with its serial and look in one entry. */
export const seenNames = ['dateCode', 'drained', 'seals', 'terminals'] as const;
const toldNames = ['serial', 'look', ...seenNames] as const;

/** What a thing is by the record. */
const told = ({ serial, look, seen }: Item): IntakeRow => ({
  ...(serial !== null && { serial }),
  ...(look !== null && { look }),
  ...seen,
});

/** What the record says of every module of the design. */
export function recordedSheet(
  design: Pick<Design, 'modules'>,
  steps: readonly StepStatus[],
  entries: readonly Entry[],
): IntakeSheet {
  const byStep = new Map(steps.map((status) => [status.step.id, status]));
  const stock = stockOf(entries);
  const rows = Object.keys(design.modules).map((id): [Id, IntakeRow] => {
    const known = stock.items.get(stock.inPlace.get(id) ?? '');
    const row: IntakeRow = known === undefined ? {} : told(known);
    for (const { field, template } of measures) {
      const measured = byStep.get(`${template}:${id}`)?.entry?.body.measured;
      if (measured?.kind !== 'value') continue;
      row[field] = measured.value;
      if (measured.over === true) row.over = { ...row.over, [field]: true };
    }
    return [id, row];
  });
  return { rows: Object.fromEntries(rows) };
}

/** The same with things on the shelf, each by its own id: its serial is its name there. */
export const withThings = (
  { rows }: IntakeSheet,
  things: readonly { id: Id; item: Item; values: IntakeRow }[],
): IntakeSheet => ({
  rows: {
    ...rows,
    ...Object.fromEntries(
      things.map(({ id, item, values }) => {
        const { serial: _name, ...seen } = told(item);
        return [id, { ...seen, ...values }];
      }),
    ),
  },
});

/** The record with what was typed on top: a number that was typed says by itself whether a range ended there. */
export function withTyped(recorded: IntakeSheet, typed: Record<Id, IntakeRow>): IntakeSheet {
  return {
    rows: Object.fromEntries(
      Object.entries(recorded.rows).map(([id, row]) => {
        const own = typed[id];
        if (own === undefined) return [id, row];
        const kept = Object.entries(row.over ?? {}).filter(([field]) => own[field as Field] === undefined);
        const over = { ...Object.fromEntries(kept), ...own.over };
        const { over: _over, ...merged } = { ...row, ...own };
        return [id, Object.keys(over).length === 0 ? merged : { ...merged, over }];
      }),
    ),
  };
}

/** What stands in a sheet and not in the record. What was emptied again counts as never typed. */
export function typedIn(recorded: IntakeSheet, sheet: IntakeSheet): Record<Id, IntakeRow> {
  const typed: Record<Id, IntakeRow> = {};
  for (const [id, { over = {}, ...row }] of Object.entries(sheet.rows)) {
    const { over: overBefore = {}, ...before } = recorded.rows[id] ?? {};
    const own: IntakeRow = {};
    for (const name of toldNames)
      if (row[name] !== undefined && row[name] !== before[name]) Object.assign(own, { [name]: row[name] });
    for (const { field } of measures) {
      if (row[field] === undefined) continue;
      if (row[field] === before[field] && over[field] === overBefore[field]) continue;
      own[field] = row[field];
      if (over[field] === true) own.over = { ...own.over, [field]: true };
    }
    if (Object.keys(own).length > 0) typed[id] = own;
  }
  return typed;
}

/** One entry to be made. */
export type ToRecord =
  | { kind: 'reading'; module: Id; step: ProcedureStep; measure: Measure; value: number; over: boolean }
  /** `was`: the serial of what is there by the record, where another one was typed. */
  | ({ kind: 'intake'; module: Id; serial?: string; look?: Look; was?: string } & Seen);

/** The entries that what was typed comes to, module after module. */
export function entriesOf(
  typed: Record<Id, IntakeRow>,
  recorded: IntakeSheet,
  procedure: readonly ProcedureStep[],
): ToRecord[] {
  const steps = new Map(procedure.map((step) => [step.id, step]));
  return Object.entries(typed).flatMap(([module, row]): ToRecord[] => {
    const made: ToRecord[] = [];
    if (toldNames.some((name) => row[name] !== undefined)) {
      const before = recorded.rows[module];
      const { serial, look } = { ...before, ...row };
      const seen = Object.fromEntries(
        seenNames.flatMap((name) => (row[name] === undefined ? [] : [[name, row[name]]])),
      ) as Seen;
      const was = before?.serial !== undefined && before.serial !== serial ? before.serial : undefined;
      made.push({
        kind: 'intake',
        module,
        ...(serial !== undefined && { serial }),
        ...(look !== undefined && { look }),
        ...seen,
        ...(was !== undefined && { was }),
      });
    }
    for (const measure of measures) {
      const value = row[measure.field];
      const step = steps.get(`${measure.template}:${module}`);
      if (value !== undefined && step !== undefined)
        made.push({
          kind: 'reading',
          module,
          step,
          measure,
          value,
          over: row.over?.[measure.field] === true,
        });
    }
    return made;
  });
}
