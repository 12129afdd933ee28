import { describe, expect, test } from '@jest/globals';
import type { Entry, EntryBody } from '@torvek/core/record';
import { orchardTruck } from '../../../../../demo/orchard-truck';
import { readCrate } from './crate';
import { emptyPlaces, thingRows } from './things';

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
