import { describe, expect, test } from '@jest/globals';
import { procedureFor } from '@torvek/core/commissioning';
import { assess, evaluate } from '@torvek/core/design';
import type { Entry } from '@torvek/core/record';
import { orchardTruck } from '../../../../../demo/orchard-truck';
import { entriesOf, recordedSheet, typedIn, withTyped } from './sheet';

const { design } = orchardTruck;
const evaluation = evaluate(design);
const procedure = procedureFor(design, evaluation);

const entry = (seq: number, module: string, body: object) =>
  ({ seq, subjects: [{ id: module, tag: module }], basis: [], body }) as unknown as Entry;
const reading = (seq: number, template: string, module: string, value: number, unit: string) =>
  entry(seq, module, {
    kind: 'result',
    step: `${template}:${module}`,
    measured: { kind: 'value', value, unit },
    verdict: 'pass',
  });
const entries = [
  reading(1, 'intake-voltage', 'module-c01', 3.287, 'V'),
  reading(2, 'intake-voltage', 'module-c01', 3.291, 'V'),
  reading(3, 'intake-capacity', 'module-c02', 158, 'Ah'),
  entry(4, 'module-c02', { kind: 'intake', serial: 'OK 4411', look: 'marked' }),
];
const recorded = recordedSheet(design, assess(evaluation, procedure, entries).steps, entries);

describe('the intake sheet', () => {
  test('shows what the record says, the newest reading of each', () => {
    expect(recorded.rows['module-c01']).toEqual({ voltageV: 3.291 });
    expect(recorded.rows['module-c02']).toEqual({ capacityAh: 158, serial: 'OK 4411', look: 'marked' });
    expect(Object.keys(recorded.rows)).toHaveLength(36);
  });

  test('keeps apart what was typed; the same number again is nothing to record', () => {
    const typed = { 'module-c01': { voltageV: 3.291 }, 'module-c03': { voltageV: 3.3, serial: 'OK 4412' } };
    const sheet = withTyped(recorded, typed);
    expect(sheet.rows['module-c02']).toEqual(recorded.rows['module-c02']);
    expect(typedIn(recorded, sheet)).toEqual({ 'module-c03': { voltageV: 3.3, serial: 'OK 4412' } });
    expect(typedIn(recorded, recorded)).toEqual({});
  });

  test('comes to one entry for each reading, and one for serial and look together', () => {
    const made = entriesOf(
      { 'module-c02': { look: 'sound' as const, insulationMOhm: 800, resistanceOhm: 0.00046 } },
      recorded,
      procedure,
    );
    expect(
      made.map((one) =>
        one.kind === 'intake' ? { serial: one.serial, look: one.look } : [one.step.id, one.value],
      ),
    ).toEqual([
      { serial: 'OK 4411', look: 'sound' },
      ['intake-insulation:module-c02', 800],
      ['intake-resistance:module-c02', 0.00046],
    ]);
  });

  test('a range that ended stays with its number, through typing and recording', () => {
    const ended = entry(5, 'module-c03', {
      kind: 'result',
      step: 'intake-insulation:module-c03',
      measured: { kind: 'value', value: 2000, unit: 'MΩ', over: true },
      verdict: 'pass',
    });
    const all = [...entries, ended];
    const known = recordedSheet(design, assess(evaluation, procedure, all).steps, all);
    expect(known.rows['module-c03']).toEqual({ insulationMOhm: 2000, over: { insulationMOhm: true } });
    expect(typedIn(known, known)).toEqual({});
    // The same number that was read within the range is another reading.
    const within = withTyped(known, { 'module-c03': { insulationMOhm: 2000 } });
    expect(within.rows['module-c03']).toEqual({ insulationMOhm: 2000 });
    expect(typedIn(known, within)).toEqual({ 'module-c03': { insulationMOhm: 2000 } });
    const typed = { 'module-c04': { insulationMOhm: 999, over: { insulationMOhm: true as const } } };
    const both = withTyped(known, typed);
    expect([both.rows['module-c03'], typedIn(known, both)]).toEqual([known.rows['module-c03'], typed]);
    expect(entriesOf(typed, known, procedure)).toMatchObject([{ value: 999, over: true }]);
    expect(entriesOf({ 'module-c03': { insulationMOhm: 2000 } }, known, procedure)).toMatchObject([
      { value: 2000, over: false },
    ]);
  });

  test('what is seen goes with serial and look in one entry, and only what was typed', () => {
    const seen = entry(6, 'module-c02', {
      kind: 'intake',
      serial: 'OK 4411',
      look: null,
      drained: true,
      dateCode: '19-34',
    });
    const all = [...entries, seen];
    const known = recordedSheet(design, assess(evaluation, procedure, all).steps, all);
    expect(known.rows['module-c02']).toMatchObject({ look: 'marked', drained: true, dateCode: '19-34' });
    const sheet = withTyped(known, { 'module-c02': { drained: true, seals: 'worn' } });
    const typed = typedIn(known, sheet);
    expect(typed).toEqual({ 'module-c02': { seals: 'worn' } });
    expect(entriesOf(typed, known, procedure)).toEqual([
      { kind: 'intake', module: 'module-c02', serial: 'OK 4411', look: 'marked', seals: 'worn' },
    ]);
  });

  test('what may be measured and was not is nothing that is due', () => {
    const { steps, gates } = assess(evaluation, procedure, entries);
    // Five of each cell, and the length of either run as cut.
    expect(procedure.filter(({ optional }) => optional === true)).toHaveLength(5 * 36 + 2);
    expect(steps.filter(({ step }) => step.optional === true).map(({ step }) => step.id)).toEqual([
      'intake-capacity:module-c02',
    ]);
    expect(gates.find(({ id }) => id === 'parts')!.passed).toBe(false);
  });
});
