import { describe, expect, test } from '@jest/globals';
import { mainCircuit, partPlaces } from '@torvek/core/document';
import { stockOf, type Entry, type EntryBody } from '@torvek/core/record';
import { orchardTruck } from '../../../../../demo/orchard-truck';
import { builtRows } from '../../prove/built/rows';
import { plainColumns, readCrate } from './crate';
import { emptyPlaces, manyWords, partRows, sentRows, sortWords, thingRows } from './things';

describe('a crate as it is pasted', () => {
  test('columns by their headings, in any order, units and all', () => {
    const { columns, rows, problems } = readCrate(
      'Capacity\tSerial no.\tOCV\tDCIR mΩ\tcolour\n158,2\tK1\t3,291 V\t0,46\tblue\n160\tK2\t3291 mV\t\tred',
    );
    expect(columns).toEqual(['capacityAh', 'serial', 'voltageV', 'resistanceOhm', 'skip']);
    expect(problems).toEqual([]);
    expect(rows).toEqual([
      { serial: 'K1', values: { capacityAh: 158.2, voltageV: 3.291, resistanceOhm: 0.00046 } },
      { serial: 'K2', values: { capacityAh: 160, voltageV: 3.291 } },
    ]);
  });

  test('without a heading in the usual order, or as somebody says', () => {
    expect(readCrate('K1;3.29;158\nK2;3.3;160').rows[1]).toEqual({
      serial: 'K2',
      values: { voltageV: 3.3, capacityAh: 160 },
    });
    expect(readCrate('K1,158', [undefined, 'capacityAh']).rows).toEqual([
      { serial: 'K1', values: { capacityAh: 158 } },
    ]);
  });

  test('what cannot be read is named, and a serial that stands twice', () => {
    expect(readCrate('K1\tx\nK1\t3.3').problems).toEqual([
      expect.stringContaining('row 1, voltage: “x”'),
      'row 2: K1 stands in row 1 already',
    ]);
    expect(readCrate('  ').rows).toEqual([]);
  });
});

describe('parts as things', () => {
  const { design } = orchardTruck;
  const entry = (seq: number, body: EntryBody) =>
    ({ seq, takenAt: '2026-11-01T08:00:00Z', subjects: [], basis: [], body }) as unknown as Entry;
  const place = `circuits.${mainCircuit}.fuse`;
  const part = design.circuits[mainCircuit]!.fuse!;
  const thing = (serial: string, sort?: string) => ({
    part: sort === undefined ? null : part,
    serial,
    donor: null,
    price: null,
    note: null,
    ...(sort !== undefined && { sort }),
  });
  const entries = [
    entry(1, { kind: 'arrival', items: [thing('K1'), thing('F1', 'fuse'), thing('F2', 'fuse')] }),
    entry(2, {
      kind: 'part-fitted',
      place,
      name: '',
      part,
      designed: part,
      serial: 'F2',
      snapshot: null,
      formerPart: null,
      formerSerial: null,
      exchanged: false,
      reason: '',
      item: 'item-1-3',
      sort: 'fuse',
    }),
    entry(3, { kind: 'sent', item: 'item-1-1', serial: 'K1', to: 'x', toName: 'Other', reason: '' }),
  ];

  test('modules and parts have their own lists, and what was sent away stands in neither', () => {
    expect(thingRows(design, entries)).toEqual([]);
    expect(partRows(design, entries).map(({ name, place: at }) => [name, at])).toEqual([
      ['F1', null],
      ['F2', partPlaces(design).find(({ path }) => path === place)!.name],
    ]);
    expect(sentRows(design, entries).map(({ name, place: at }) => [name, at])).toEqual([['K1', 'in Other']]);
    const { inPlace } = stockOf(entries);
    expect(builtRows(design, entries, inPlace).find(({ path }) => path === place)).toMatchObject({
      out: false,
      told: { seq: 2 },
    });
    const emptied = [
      ...entries,
      entry(4, { kind: 'remove', place, item: 'item-1-3', serial: 'F2', state: 'suspect', reason: '' }),
    ];
    expect(builtRows(design, emptied, stockOf(emptied).inPlace).find(({ path }) => path === place)!.out).toBe(
      true,
    );
  });

  test('words of kinds, one and many', () => {
    expect(['module', 'fuse', 'converter', 'box', 'device'].map(manyWords)).toEqual([
      'modules',
      'fuses',
      'DC-DC converters',
      'boxes',
      'devices',
    ]);
    expect([sortWords('converter'), sortWords('box')]).toEqual(['DC-DC converter', 'box']);
  });

  test('columns of parts are serial and note, whatever the heading says', () => {
    const { columns, rows } = readCrate('serial\tvoltage\tnote\nF1\t12\tnew', [], plainColumns);
    expect([columns, rows]).toEqual([
      ['serial', 'skip', 'note'],
      [{ serial: 'F1', note: 'new', values: {} }],
    ]);
    const ended = readCrate('serial;insulation\nF1;>2000,5\nF2;OL', []);
    expect(ended.rows[0]).toEqual({
      serial: 'F1',
      values: { insulationMOhm: 2000.5 },
      over: { insulationMOhm: true },
    });
    expect(ended.problems).toEqual([
      'row 2, insulation: “OL” where does its range end? Write > and that value',
    ]);
    expect(readCrate('F1\tnew', [], plainColumns).rows).toEqual([{ serial: 'F1', note: 'new', values: {} }]);
  });

  test('what was measured in another job is shown until it is measured here', () => {
    const text = (step: string, value: number) =>
      JSON.stringify({ body: { kind: 'result', step, measured: { kind: 'value', value, unit: 'Ah' } } });
    const quote = (seq: number, of: string) => ({
      job: 'other',
      seq,
      sha256: '0'.repeat(64),
      title: '',
      by: '',
      takenAt: '',
      text: of,
    });
    const from = {
      job: 'other',
      jobName: 'Other',
      item: 'item-1-1',
      entries: [quote(4, text('intake-capacity:x', 150)), quote(5, text('intake-capacity:x', 152))],
    };
    const arrived = entry(1, { kind: 'arrival', items: [{ ...thing('K1'), from }] });
    expect(thingRows(design, [arrived])[0]).toMatchObject({
      values: { capacityAh: 152 },
      quoted: ['capacityAh'],
    });
    const read = {
      ...entry(2, JSON.parse(text('intake-capacity:item-1-1', 149)).body),
      subjects: [{ id: 'item-1-1', tag: '' }],
    } as Entry;
    expect(thingRows(design, [arrived, read])[0]).toMatchObject({ values: { capacityAh: 149 }, quoted: [] });
  });
});

describe('things as the list shows them', () => {
  const { design } = orchardTruck;
  const entry = (seq: number, body: EntryBody, subject?: string) =>
    ({
      seq,
      takenAt: '2026-11-01T08:00:00Z',
      subjects: subject === undefined ? [] : [{ id: subject, tag: subject }],
      basis: [],
      body,
    }) as unknown as Entry;
  const item = (serial: string) => ({ part: null, serial, donor: null, price: null, note: null });
  const reading = (seq: number, step: string, value: number, of?: string) =>
    entry(
      seq,
      {
        kind: 'result',
        step,
        ...(of !== undefined && { item: of }),
        measured: { kind: 'value', value, unit: 'Ah' },
        verdict: 'pass',
      } as EntryBody,
      step.split(':')[1],
    );
  const entries = [
    entry(1, { kind: 'arrival', items: [item('K1'), item('K2')] }),
    reading(2, 'intake-capacity:item-1-2', 158, 'item-1-2'),
    reading(3, 'intake-capacity:module-c01', 140),
    entry(
      4,
      {
        kind: 'fit',
        place: 'module-c01',
        item: 'item-1-2',
        serial: 'K2',
        former: 'item-of-module-c01',
        formerSerial: null,
        reason: 'weak',
      },
      'module-c01',
    ),
    entry(5, { kind: 'item-state', item: 'item-1-1', serial: 'K1', state: 'retired', reason: '' }),
  ];

  test('shelf first, then by place, retired last; each with its own values', () => {
    expect(
      thingRows(design, entries).map(({ name, place, values }) => [name, place, values.capacityAh]),
    ).toEqual([
      ['of C01', null, 140],
      ['K2', 'C01', 158],
      ['K1', null, undefined],
    ]);
    expect(emptyPlaces(design, entries)).toHaveLength(35);
  });

  test('a place that the design no longer has leaves its thing on the shelf', () => {
    const { 'module-c01': _gone, ...modules } = design.modules;
    const rows = thingRows({ modules }, entries);
    expect(rows.find(({ name }) => name === 'K2')).toMatchObject({ place: null, placeGone: true });
  });
});
