import { describe, expect, test } from '@jest/globals';
import { recordChecks } from '../../whole/design';
import { truck115 } from '../../whole/design/clean/orchard';
import { asPresent, type Entry, type EntryBody } from '../../record';
import { intakeQuantities, intakeReadings, ownLoss, scoreIntake } from './intake';

const ids = Object.keys(truck115.modules);
const [first = '', second = '', third = ''] = ids;
const kind = truck115.parts[truck115.modules[first]!.part]!;
const cells = kind.kind === 'module' ? kind.data.cellsInSeries : NaN;
const tagOf = (id: string) => truck115.modules[id]!.tag;
const ruleOf = (field: string) => intakeQuantities.find((one) => one.field === field)!.outlier;

let seq = 0;
const entry = (body: EntryBody, subject: string, day = 1): Entry => {
  seq += 1;
  return {
    seq,
    takenAt: `2026-11-${String(day).padStart(2, '0')}T08:00:00Z`,
    subjects: [{ id: subject, tag: subject }],
    basis: [],
    instrument: null,
    body,
  } as unknown as Entry;
};
const read = (template: string, id: string, value: number, { day = 1, over = false } = {}) =>
  entry(
    {
      kind: 'result',
      step: `${template}:${id}`,
      title: '',
      entered: 'typed',
      measured: { kind: 'value', value, unit: 'V', ...(over && { over }) },
      expected: '',
      verdict: 'pass',
      reasons: [],
      details: [],
    },
    id,
    day,
  );
const checks = (entries: Entry[]) =>
  recordChecks(truck115, entries, Date.parse('2026-11-30T08:00:00Z')).filter(({ rule }) =>
    rule.id.startsWith('intake.'),
  );
const raised = (entries: Entry[]) =>
  checks(entries).flatMap((check) =>
    check.state === 'raised' ? [[check.rule.id, check.subjects[0], check.message]] : [],
  );

describe('outliers of a batch, each quantity by its own rule', () => {
  test('insulation and capacity are wrong downwards alone, a resistance upwards', () => {
    const low = [100, 101, 99, 100, 60];
    const high = [100, 101, 99, 100, 180];
    expect(scoreIntake(low, ruleOf('capacityAh')).outliers).toEqual([false, false, false, false, true]);
    expect(scoreIntake(high, ruleOf('capacityAh')).outliers).not.toContain(true);
    expect(scoreIntake(high, ruleOf('resistanceOhm')).outliers[4]).toBe(true);
    expect(scoreIntake(low, ruleOf('resistanceOhm')).outliers).not.toContain(true);
    expect(scoreIntake(high, ruleOf('insulationMOhm')).outliers).not.toContain(true);
    expect(scoreIntake(low, ruleOf('voltageV')).outliers[4]).toBe(true);
    expect(scoreIntake(high, ruleOf('voltageV')).outliers[4]).toBe(true);
  });

  test('what instruments do by themselves is no outlier, however even the rest is', () => {
    // 3.5 scaled deviations are 0.0052 here; half a percent of 3.3 is 0.0165.
    const volts = [3.3, 3.301, 3.299, 3.3, 3.3];
    expect(scoreIntake([...volts, 3.316], ruleOf('voltageV')).outliers[5]).toBe(false);
    expect(scoreIntake([...volts, 3.317], ruleOf('voltageV')).outliers[5]).toBe(true);
    // Equal values have no deviation: the bound alone decides.
    expect(scoreIntake([160, 160, 160, 160, 155.3], ruleOf('capacityAh')).outliers[4]).toBe(false);
    expect(scoreIntake([160, 160, 160, 160, 155.1], ruleOf('capacityAh')).outliers[4]).toBe(true);
    const { bounds } = scoreIntake([160, 160, 160, 160], ruleOf('capacityAh'));
    expect(bounds![0]).toBeCloseTo(155.2, 9);
    expect(bounds![1]).toBe(Infinity);
  });

  test('half of the median is where an insulation is too low for its batch', () => {
    expect(scoreIntake([900, 950, 1000, 1000, 501], ruleOf('insulationMOhm')).outliers[4]).toBe(false);
    expect(scoreIntake([1000, 1000, 1000, 1000, 499], ruleOf('insulationMOhm')).outliers[4]).toBe(true);
  });
});

describe('own loss', () => {
  const lossOf = (entries: Entry[], inSeries = 1) =>
    ownLoss(intakeReadings(asPresent(entries)).get(first), inSeries);

  test('is the voltage lost a day and cell', () => {
    const entries = [read('intake-voltage', first, 44.7), read('intake-rested', first, 44.64, { day: 6 })];
    expect(lossOf(entries, 12)!.mvPerDay).toBeCloseTo(1, 9);
    expect(lossOf(entries, 12)!.waitH).toBe(120);
    expect(lossOf(entries)!.mvPerDay).toBeCloseTo(12, 9);
  });

  test('is not told of a wait below a day, of a range that ended, or without one of the two', () => {
    expect(
      lossOf([read('intake-voltage', first, 3.3), read('intake-rested', first, 3.29, { day: 1 })]),
    ).toBeNull();
    expect(
      lossOf([
        read('intake-voltage', first, 3.3, { over: true }),
        read('intake-rested', first, 3.29, { day: 5 }),
      ]),
    ).toBeNull();
    expect(lossOf([read('intake-rested', first, 3.29, { day: 5 })])).toBeNull();
    expect(lossOf([read('intake-voltage', first, 3.3)])).toBeNull();
  });

  test('a first voltage that was read again begins the wait anew', () => {
    const entries = [
      read('intake-voltage', first, 3.3),
      read('intake-voltage', first, 3.31, { day: 3 }),
      read('intake-rested', first, 3.306, { day: 5 }),
    ];
    expect(lossOf(entries)!.mvPerDay).toBeCloseTo(2, 9);
  });
});

describe('findings of what is fitted', () => {
  const even = () => ids.slice(0, 8).map((id) => read('intake-capacity', id, 160));

  test('one that differs from its batch, with both numbers; one at the median is clear', () => {
    const entries = [...even().slice(1), read('intake-capacity', first, 150)];
    expect(raised(entries)).toEqual([
      ['intake.off-batch', first, `${tagOf(first)}: capacity 150 Ah, the batch 160 Ah.`],
    ]);
    expect(
      checks(entries).find(({ subjects, rule }) => subjects[0] === second && rule.id === 'intake.off-batch')
        ?.state,
    ).toBe('clear');
    // Three make no batch.
    expect(checks(entries.slice(-3))).toEqual([]);
  });

  test('one that loses charge by itself, by the bound or by its batch', () => {
    const pair = (id: string, lostMv: number) => [
      read('intake-voltage', id, 3.3),
      read('intake-rested', id, 3.3 - (lostMv * cells) / 1000, { day: 6 }),
    ];
    // 25 mV in five days.
    expect(raised(pair(first, 25))).toEqual([
      [
        'intake.loses-charge',
        first,
        `${tagOf(first)} lost 5 mV a day and cell over 5 days; 3 mV at most is usual.`,
      ],
    ]);
    expect(raised(pair(first, 14))).toEqual([]);
    const batch = ids.slice(1, 7).flatMap((id) => pair(id, 1));
    expect(raised([...batch, ...pair(first, 10)])).toEqual([
      [
        'intake.loses-charge',
        first,
        `${tagOf(first)} lost 2 mV a day and cell over 5 days; the batch 0.2 mV.`,
      ],
    ]);
    // A quarter of a millivolt more than the batch is the meter’s.
    expect(raised([...batch, ...pair(first, 2.2)])).toEqual([]);
  });

  test('what was seen on the bench, until it is recorded as mended', () => {
    const intake = (body: object, id = first) =>
      entry({ kind: 'intake', serial: 'K1', look: null, ...body }, id);
    const leaky = intake({ seals: 'worn', drained: true, dateCode: '2019-34' });
    expect(raised([leaky])).toEqual([
      ['intake.unsound', first, `${tagOf(first)} (K1): drained, seals worn.`],
    ]);
    expect(raised([leaky, intake({ seals: 'sound' })])).toEqual([]);
    expect(raised([intake({ drained: false }, third)])[0]![2]).toContain('not drained');
    expect(raised([intake({ terminals: 'damaged' })])[0]![2]).toContain('terminals damaged');
    expect(raised([intake({ look: 'damaged' })])[0]![2]).toContain('looks damaged');
    expect(checks([intake({ look: 'marked' })]).map(({ state }) => state)).toEqual(['clear']);
    // Whoever accepts a worn seal has not accepted a terminal.
    const valuesOf = (body: object) => {
      const [check] = checks([intake(body)]);
      return check?.state === 'raised' ? check.values : null;
    };
    expect(valuesOf({ seals: 'worn' })).toEqual([{ label: 'coolant seals, of 3', value: 2, unit: '' }]);
    expect(valuesOf({ seals: 'worn', terminals: 'damaged' })).toHaveLength(2);
    expect(valuesOf({ drained: false })).toEqual([{ label: 'drained', value: 0, unit: '' }]);
    // What nobody looked at is not judged.
    expect(checks([intake({ dateCode: '2019-34' })])).toEqual([]);
  });

  test('what was taken out takes its readings along, and counts with the batch on the shelf', () => {
    const out = entry(
      {
        kind: 'remove',
        item: `item-of-${first}`,
        serial: null,
        place: first,
        state: 'good',
        reason: '',
      } as never,
      first,
    );
    const entries = [...even().slice(1), read('intake-capacity', first, 150), out];
    expect(raised(entries).filter(([rule]) => rule === 'intake.off-batch')).toEqual([]);
    expect(checks(entries).filter(({ subjects }) => subjects[0] === first)).toEqual([]);
  });
});
