import type { ProcedureStep } from '@torvek/core/commissioning';
import type { StepStatus } from '@torvek/core/design';
import type { Design, Id } from '@torvek/core/document';
import { stockOf, type Entry, type Look } from '@torvek/core/record';

/** What is known of one module: recorded, or typed and not recorded yet. */
export interface IntakeRow {
  serial?: string;
  look?: Look;
  voltageV?: number;
  insulationMOhm?: number;
  resistanceOhm?: number;
  capacityAh?: number;
}

export interface IntakeSheet {
  rows: Record<Id, IntakeRow>;
}

/** What is measured, with the step of the procedure that records it. */
export const measures = [
  { field: 'voltageV', template: 'intake-voltage', title: 'voltage', unit: 'V', scale: 1 },
  { field: 'insulationMOhm', template: 'intake-insulation', title: 'insulation', unit: 'MΩ', scale: 1 },
  { field: 'resistanceOhm', template: 'intake-resistance', title: 'resistance', unit: 'mΩ', scale: 0.001 },
  { field: 'capacityAh', template: 'intake-capacity', title: 'capacity', unit: 'Ah', scale: 1 },
] as const;
export type Measure = (typeof measures)[number];

/** What the record says of every module of the design. */
export function recordedSheet(
  design: Pick<Design, 'modules'>,
  steps: readonly StepStatus[],
  entries: readonly Entry[],
): IntakeSheet {
  const byStep = new Map(steps.map((status) => [status.step.id, status]));
  const stock = stockOf(entries);
  const rows = Object.keys(design.modules).map((id): [Id, IntakeRow] => {
    const row: IntakeRow = {};
    const known = stock.items.get(stock.inPlace.get(id) ?? '');
    if (known?.serial != null) row.serial = known.serial;
    if (known?.look != null) row.look = known.look;
    for (const { field, template } of measures) {
      const measured = byStep.get(`${template}:${id}`)?.entry?.body.measured;
      if (measured?.kind === 'value') row[field] = measured.value;
    }
    return [id, row];
  });
  return { rows: Object.fromEntries(rows) };
}

/** The same with things on the shelf, each by its own id. */
export const withThings = (
  { rows }: IntakeSheet,
  things: readonly { id: Id; values: Partial<Record<Measure['field'], number>> }[],
): IntakeSheet => ({
  rows: { ...rows, ...Object.fromEntries(things.map(({ id, values }) => [id, values])) },
});

/** The record with what was typed on top. */
export function withTyped(recorded: IntakeSheet, typed: Record<Id, IntakeRow>): IntakeSheet {
  return {
    rows: Object.fromEntries(
      Object.entries(recorded.rows).map(([id, row]) => [id, { ...row, ...typed[id] }]),
    ),
  };
}

/** What stands in a sheet and not in the record. What was emptied again counts as never typed. */
export function typedIn(recorded: IntakeSheet, sheet: IntakeSheet): Record<Id, IntakeRow> {
  const typed: Record<Id, IntakeRow> = {};
  for (const [id, row] of Object.entries(sheet.rows)) {
    const before = recorded.rows[id] ?? {};
    const own = Object.fromEntries(
      Object.entries(row).filter(
        ([key, value]) => value !== undefined && value !== before[key as keyof IntakeRow],
      ),
    );
    if (Object.keys(own).length > 0) typed[id] = own;
  }
  return typed;
}

/** One entry to be made. */
export type ToRecord =
  | { kind: 'reading'; module: Id; step: ProcedureStep; measure: Measure; value: number }
  /** `was`: the serial of what is there by the record, where another one was typed. */
  | { kind: 'intake'; module: Id; serial?: string; look?: Look; was?: string };

/** The entries that what was typed comes to, module after module. */
export function entriesOf(
  typed: Record<Id, IntakeRow>,
  recorded: IntakeSheet,
  procedure: readonly ProcedureStep[],
): ToRecord[] {
  const steps = new Map(procedure.map((step) => [step.id, step]));
  return Object.entries(typed).flatMap(([module, row]): ToRecord[] => {
    const made: ToRecord[] = [];
    if (row.serial !== undefined || row.look !== undefined) {
      const before = recorded.rows[module];
      const { serial, look } = { ...before, ...row };
      const was = before?.serial !== undefined && before.serial !== serial ? before.serial : undefined;
      made.push({
        kind: 'intake',
        module,
        ...(serial !== undefined && { serial }),
        ...(look !== undefined && { look }),
        ...(was !== undefined && { was }),
      });
    }
    for (const measure of measures) {
      const value = row[measure.field];
      const step = steps.get(`${measure.template}:${module}`);
      if (value !== undefined && step !== undefined)
        made.push({ kind: 'reading', module, step, measure, value });
    }
    return made;
  });
}
