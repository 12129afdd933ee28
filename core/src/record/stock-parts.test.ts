import { describe, expect, test } from '@jest/globals';
import { isModule, quotedValues, standing, stockOf } from '.';
import { entry, record, result, arrival, remove } from './entries-on-paper';

describe('parts are things as well', () => {
  const place = 'circuits.main.fuse';
  const fitted =
    (serial: string | null, more: object = {}) =>
    () =>
      entry(
        {
          kind: 'part-fitted',
          place,
          name: 'Main: fuse',
          part: 'f@1',
          designed: 'f@1',
          serial,
          snapshot: null,
          formerPart: null,
          formerSerial: null,
          exchanged: false,
          reason: '',
          sort: 'fuse',
          ...more,
        },
        'main',
      );
  const parts =
    (...serials: string[]) =>
    () =>
      entry({
        kind: 'arrival',
        items: serials.map((serial) => ({
          part: 'f@1',
          serial,
          donor: null,
          price: null,
          note: null,
          sort: 'fuse',
        })),
      });

  test('a serial makes a thing of what was recorded; another one leaves it on the shelf', () => {
    const entries = record(fitted('A'), fitted('B', { exchanged: true }));
    const { items, inPlace } = stockOf(entries);
    expect(inPlace.get(place)).toBe('item-2');
    expect([...items.values()].map(({ id, serial, place: at, sort }) => [id, serial, at, sort])).toEqual([
      ['item-1', 'A', null, 'fuse'],
      ['item-2', 'B', place, 'fuse'],
    ]);
    expect([...items.values()].some(isModule)).toBe(false);
  });

  test('a number that was not known before is of the thing that is there; a remark alone makes none', () => {
    expect(stockOf(record(fitted(null))).items.size).toBe(0);
    const { items } = stockOf(record(fitted(null), fitted('A'), fitted(null), fitted('A')));
    expect([...items.values()].map(({ id, serial, history }) => [id, serial, history])).toEqual([
      ['item-2', 'A', [2, 3, 4]],
    ]);
  });

  test('one of the shelf by its serial, or by its id: it is the thing that arrived', () => {
    const bySerial = stockOf(record(parts('A', 'B'), fitted('B')));
    expect([bySerial.inPlace.get(place), bySerial.items.size]).toEqual(['item-1-2', 2]);
    const byId = stockOf(record(parts('A', 'B'), fitted('A', { item: 'item-1-1' })));
    expect(byId.inPlace.get(place)).toBe('item-1-1');
    // One with this number of another part is another thing.
    const other = stockOf(record(parts('A'), fitted('A', { part: 'g@1' })));
    expect([other.inPlace.get(place), other.items.get('item-1-1')!.place]).toEqual(['item-2', null]);
  });

  test('taken out it lies on the shelf, and its place is empty', () => {
    const { items, inPlace } = stockOf(record(parts('A'), fitted('A'), remove(place, 'item-1-1')));
    expect([inPlace.get(place), items.get('item-1-1')!.place, items.get('item-1-1')!.state]).toEqual([
      null,
      null,
      'suspect',
    ]);
  });

  test('records of before tell no kind: it is a part all the same', () => {
    const { items } = stockOf(record(fitted('A', { sort: undefined })));
    expect([...items.values()].map(({ sort }) => sort)).toEqual(['part']);
  });

  test('every fitting counts, so that what was there before is known', () => {
    expect(standing(record(fitted('A'), fitted('B', { exchanged: true }))).map(({ seq: at }) => at)).toEqual([
      1, 2,
    ]);
  });
});

describe('sent to another job', () => {
  test('it is here no more; there it has what was measured of it, quoted', () => {
    const here = record(arrival('A'), result('intake-capacity:item-1-1', 99), () =>
      entry({ kind: 'sent', item: 'item-1-1', serial: 'A', to: 'job-2', toName: 'Other', reason: '' }),
    );
    const item = stockOf(here).items.get('item-1-1')!;
    expect([item.sentTo, item.place, item.history]).toEqual(['Other', null, [1, 2, 3]]);
    const quotes = here.map((one) => ({
      job: 'job-1',
      seq: one.seq,
      sha256: '0'.repeat(64),
      title: 'said',
      by: 'Tess',
      takenAt: one.takenAt,
      text: one.seq === 1 ? null : JSON.stringify(one),
    }));
    const from = { job: 'job-1', jobName: 'First', item: 'item-1-1', entries: quotes };
    const there = record(() =>
      entry({
        kind: 'arrival',
        items: [{ part: null, serial: 'A', donor: null, price: null, note: null, from }],
      }),
    );
    const arrived = stockOf(there).items.get('item-1-1')!;
    expect([...quotedValues(arrived)].map(([template, { value, of }]) => [template, value, of.seq])).toEqual([
      ['intake-capacity', 99, 2],
    ]);
    expect(quotedValues({ from: null }).size).toBe(0);
  });
});
