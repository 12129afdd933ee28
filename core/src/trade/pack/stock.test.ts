import { describe, expect, test } from '@jest/globals';
import { assess, evaluate, recordChecks } from '../../whole/design';
import { procedureFor, stepsOfItem } from '../../whole/commissioning';
import { truck115 } from '../../whole/design/clean/orchard';
import type { Design } from '../../model/document';
import type { Entry, EntryBody } from '../../record';

let seq = 0;
const entry = (body: EntryBody, ...subjects: string[]): Entry => {
  seq += 1;
  return {
    seq,
    by: 'Tess',
    takenAt: new Date(Date.UTC(2026, 10, 1, 8, seq)).toISOString(),
    subjects: subjects.map((id) => ({ id, tag: id })),
    basis: [],
    instrument: null,
    body,
  } as unknown as Entry;
};
const record = (...made: (() => Entry)[]): Entry[] => {
  seq = 0;
  return made.map((one) => one());
};
const ids = Object.keys(truck115.modules);
const [first = '', second = ''] = ids;
const arrival =
  (count: number, part: string | null = 'oakmere-lf4@1') =>
  () =>
    entry({
      kind: 'arrival',
      items: Array.from({ length: count }, (_, i) => ({
        part,
        serial: `K${i + 1}`,
        donor: null,
        price: null,
        note: null,
      })),
    });
const fit =
  (place: string, item: string, former: string | null = null) =>
  () =>
    entry({ kind: 'fit', place, item, serial: item, former, formerSerial: former, reason: 'leaks' }, place);
const state = (item: string, is: 'good' | 'suspect' | 'rejected') => () =>
  entry({ kind: 'item-state', item, serial: item, state: is, reason: 'swollen' });
const measured = (step: string, value: number, item?: string) => () =>
  entry(
    {
      kind: 'result',
      step,
      ...(item !== undefined && { item }),
      title: step,
      entered: 'typed',
      measured: { kind: 'value', value, unit: 'V' },
      expected: '',
      verdict: 'pass',
      reasons: [],
      details: [],
    },
    step.split(':')[1]!,
  );
const torqued = (joint: string) => () =>
  entry({ kind: 'joints', work: 'torque', currentA: null, joints: [{ joint, tag: joint, value: 14 }] });
const raised = (entries: Entry[]) =>
  recordChecks(truck115, entries, Date.UTC(2026, 10, 2)).flatMap((check) =>
    check.state === 'raised' && check.rule.id.startsWith('stock.')
      ? [`${check.rule.id} ${check.subjects.join()}: ${check.message}`]
      : [],
  );
const statusOf = (entries: Entry[], step: string) => {
  const evaluation = evaluate(truck115);
  return assess(evaluation, procedureFor(truck115, evaluation), entries).steps.find(
    (one) => one.step.id === step,
  );
};
const all = ids.map((place, i) => fit(place, `item-1-${i + 1}`));

describe('findings about things', () => {
  test('a record that tells of no thing has none; all fitted and untested is none', () => {
    expect(recordChecks(truck115, [], 0).filter(({ rule }) => rule.id.startsWith('stock.'))).toEqual([]);
    expect(raised(record(arrival(9), ...all))).toEqual([]);
  });

  test('places without a thing, once things arrive', () => {
    expect(raised(record(arrival(9), ...all.slice(2)))).toEqual([
      `stock.nothing-fitted ${first}: Nothing is fitted in S1-M1.`,
      `stock.nothing-fitted ${second}: Nothing is fitted in S1-M2.`,
    ]);
    // Readings alone imply what is there.
    expect(raised(record(measured(`intake-voltage:${first}`, 13)))).toEqual([]);
  });

  test('what was rejected or doubted and is fitted', () => {
    expect(
      raised(record(arrival(9), ...all, state('item-1-1', 'rejected'), state('item-1-2', 'suspect'))),
    ).toEqual([
      `stock.unfit-fitted ${first}: K1 in S1-M1 was rejected: swollen.`,
      `stock.suspect-fitted ${second}: K2 in S1-M2 is suspect: swollen.`,
    ]);
    expect(raised(record(arrival(10), ...all, state('item-1-10', 'rejected')))).toEqual([]);
  });

  test('another kind than is designed, and a serial twice', () => {
    expect(raised(record(arrival(9, 'oakmere-lf160@1'), ...all))).toHaveLength(9);
    const twice = record(arrival(9), ...all, arrival(1));
    expect(raised(twice)).toEqual([`stock.serial-twice ${first}: K1 is the serial number of 2 things.`]);
  });
});

describe('evidence goes where the thing goes', () => {
  const step = `intake-voltage:${first}`;

  test('a swap makes due what was measured of the old one, and brings what was measured of the new', () => {
    const before = record(arrival(10), ...all, measured(step, 13, 'item-1-1'));
    expect(statusOf(before, step)?.state).toBe('passed');
    const swapped = [...before, fit(first, 'item-1-10', 'item-1-1')()];
    expect(statusOf(swapped, step)?.state).toBe('due');
    const tested = [
      ...before,
      measured('intake-voltage:item-1-10', 13.1, 'item-1-10')(),
      fit(first, 'item-1-10', 'item-1-1')(),
    ];
    const status = statusOf(tested, step);
    expect([status?.state, status?.entry?.body.measured]).toEqual([
      'passed',
      { kind: 'value', value: 13.1, unit: 'V' },
    ]);
  });

  test('joints of the place end with it, those of others stay', () => {
    const walked = record(arrival(10), ...all, torqued(`${first}/plus`), torqued(`${second}/plus`));
    const doneOf = (entries: Entry[]) =>
      assess(evaluate(truck115), procedureFor(truck115, evaluate(truck115)), entries)
        .steps.filter(({ walked: one }) => one !== null && one.of > 10)
        .map(({ walked: one }) => [one!.done, one!.again.length]);
    expect(doneOf(walked)).toEqual([[2, 0]]);
    expect(doneOf([...walked, fit(first, 'item-1-10', 'item-1-1')()])).toEqual([[1, 1]]);
  });

  test('a thing on the shelf has the steps of its kind, under its own name', () => {
    const part = truck115.parts['oakmere-lf4@1'];
    if (part?.kind !== 'module') throw new Error('no module');
    const steps = stepsOfItem(truck115, evaluate(truck115), { id: 'item-1-10', serial: 'K10' }, part);
    expect(steps.map(({ id }) => id)).toEqual(
      ['voltage', 'insulation', 'resistance', 'capacity', 'rested', 'sensor'].map(
        (what) => `intake-${what}:item-1-10`,
      ),
    );
    expect(steps[0]!.title).toBe('Intake voltage of K10');
    // Four cells of 2.5 to 3.65 V.
    expect(steps[0]!.expected).toEqual({ kind: 'range', min: 10, max: 14.6, unit: 'V' });
  });
});

describe('the coat of a box', () => {
  const [box = ''] = Object.keys(truck115.boxes);
  const coated: Design = {
    ...truck115,
    boxes: { ...truck115.boxes, [box]: { ...truck115.boxes[box]!, coat: 'powder' } },
  };
  const seen = measured(`box-coat:${box}`, 40);
  const found = (design: Design, ...made: (() => Entry)[]) =>
    recordChecks(design, record(...made), Date.UTC(2026, 10, 2)).filter(
      ({ rule }) => rule.id === 'stock.before-coat',
    );
  const states = (...made: (() => Entry)[]) => found(coated, ...made).map((check) => check.state);

  test('is measured before a module goes in, where there is one', () => {
    const step = procedureFor(coated, evaluate(coated)).find(({ id }) => id === `box-coat:${box}`)!;
    expect(step).toMatchObject({ gate: 'parts', expectedText: '1 MΩ or more' });
    expect(step.do).toContain('powder dry');
    const bare = procedureFor(truck115, evaluate(truck115));
    expect(bare.filter(({ template }) => template === 'box-coat')).toEqual([]);
    expect(found(truck115, arrival(2), fit(first, 'item-1-1'))).toEqual([]);
  });

  test('seen first, modules may go in; a module that was there before is told of until it was taken out and put back', () => {
    expect(states(arrival(2), seen, fit(first, 'item-1-1'))).toEqual(['clear']);
    expect(states(arrival(2), fit(first, 'item-1-1'), seen)).toEqual(['raised']);
    const out = () =>
      entry(
        {
          kind: 'remove',
          place: first,
          item: 'item-1-1',
          serial: 'K1',
          state: 'good',
          reason: '',
        } as EntryBody,
        first,
      );
    expect(states(arrival(2), fit(first, 'item-1-1'), seen, out)).toEqual(['clear']);
    expect(states(arrival(2), fit(first, 'item-1-1'), out, seen)).toEqual(['clear']);
    expect(states(arrival(2), fit(first, 'item-1-1'), out, seen, fit(first, 'item-1-1'))).toEqual(['clear']);
  });

  test('not seen at all, and how many', () => {
    const [check] = found(coated, arrival(3), fit(first, 'item-1-1'), fit(second, 'item-1-2'));
    expect(check).toMatchObject({
      state: 'raised',
      message: expect.stringMatching(
        /: 2 modules were put in before its coat was seen, which it is not yet: /,
      ),
    });
  });
});
