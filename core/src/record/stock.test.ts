import { describe, expect, test } from '@jest/globals';
import { asPresent, isOfItem, standing, stepParts, stockOf } from '.';
import {
  entry,
  record,
  intake,
  result,
  arrival,
  fit,
  remove,
  told,
  place,
  numbers,
} from './entries-on-paper';

describe('records from before things had ids', () => {
  test('what is said of a place implies a thing; a first intake names it', () => {
    const entries = record(result('intake-capacity:m1', 100), intake('m1', 'A'));
    const item = stockOf(entries).items.get('item-of-m1')!;
    expect([item.serial, item.place, item.history]).toEqual(['A', 'm1', [1, 2]]);
    expect(told(entries)).toEqual(['intake-capacity:m1 100']);
  });

  test('another serial is a swap: nothing of the old thing is told of the place any more', () => {
    const entries = record(intake('m1', 'A'), result('intake-capacity:m1', 100), intake('m1', 'B'));
    expect(place(entries, 'm1')).toBe('item-3');
    expect(told(entries)).toEqual(['intake-capacity:item-of-m1 100']);
    const back = [...entries, intake('m1', 'A')()];
    expect(place(back, 'm1')).toBe('item-of-m1');
    expect(told(back)).toEqual(['intake-capacity:m1 100']);
  });

  test('a serial that was misread is of the same thing, and so is an intake without one', () => {
    const entries = record(
      intake('m1', 'A'),
      result('intake-capacity:m1', 100),
      intake('m1', 'A1', true),
      intake('m1', null),
    );
    expect(stockOf(entries).items.size).toBe(1);
    expect(stockOf(entries).items.get('item-of-m1')!.serial).toBe('A1');
    expect(told(entries)).toEqual(['intake-capacity:m1 100']);
  });

  test('the same serial again is the same thing', () => {
    const entries = record(intake('m1', 'A'), result('intake-capacity:m1', 100), intake('m1', 'A'));
    expect([...stockOf(entries).items.keys()]).toEqual(['item-of-m1']);
    expect(told(entries)).toEqual(['intake-capacity:m1 100']);
  });

  test('a correction keeps the thing', () => {
    const entries = record(intake('m1', 'A'), result('intake-capacity:m1', 100), intake('m1', 'B'), () =>
      entry({ kind: 'correction', of: 3, reason: 'typed for the wrong module' }, 'm1'),
    );
    expect(place(entries, 'm1')).toBe('item-of-m1');
    expect(told(entries)).toEqual(['intake-capacity:m1 100']);
  });
});

describe('things that arrived', () => {
  const crate = [arrival('A', 'B', 'C'), result('intake-capacity:item-1-1', 100, 'item-1-1')];

  test('what was measured on the shelf is told of the place once it is fitted, and goes along', () => {
    const fitted = record(...crate, fit('m1', 'item-1-1'));
    expect(told(fitted)).toEqual(['intake-capacity:m1 100']);
    const out = [...fitted, remove('m1', 'item-1-1')()];
    expect(told(out)).toEqual(['intake-capacity:item-1-1 100']);
    expect(place(out, 'm1')).toBeNull();
    const item = stockOf(out).items.get('item-1-1')!;
    expect([item.state, item.reason, item.place]).toEqual(['suspect', 'leaks', null]);
    const elsewhere = [...out, fit('m2', 'item-1-1')()];
    expect(told(elsewhere)).toEqual(['intake-capacity:m2 100']);
  });

  test('a thing that is fitted elsewhere has left its place', () => {
    const entries = record(...crate, fit('m1', 'item-1-1'), fit('m2', 'item-1-1'));
    expect([place(entries, 'm1'), place(entries, 'm2')]).toEqual([null, 'item-1-1']);
  });

  test('a swap puts the former onto the shelf with its own', () => {
    const entries = record(
      ...crate,
      fit('m1', 'item-1-1'),
      result('intake-voltage:m1', 44, 'item-1-1'),
      fit('m1', 'item-1-2', 'item-1-1'),
      result('intake-voltage:m1', 45, 'item-1-2'),
    );
    expect(told(entries)).toEqual([
      'intake-capacity:item-1-1 100',
      'intake-voltage:item-1-1 44',
      'intake-voltage:m1 45',
    ]);
  });

  test('of a place are polarity and joints: they stay', () => {
    const entries = record(
      ...crate,
      fit('m1', 'item-1-1'),
      result('polarity:m1', 1),
      fit('m1', 'item-1-2', 'item-1-1'),
    );
    expect(told(entries)).toContain('polarity:m1 1');
    expect([isOfItem('polarity:m1'), isOfItem('intake-voltage:m1')]).toEqual([false, true]);
  });

  test('cells and balancing go along', () => {
    const entries = record(
      ...crate,
      fit('m1', 'item-1-1'),
      () =>
        entry(
          {
            kind: 'cell-voltages',
            entered: 'typed',
            cells: [
              { cell: 'm1/cell-3', tag: 'c3', samples: [[0, 3.7]] },
              { cell: 'm9/cell-1', tag: 'c1', samples: [[0, 3.6]] },
            ],
          },
          'm1',
          'm9',
        ),
      () =>
        entry({ kind: 'balance', act: 'on', gear: 'load', cells: ['m1/cell-3'], place: 1, recipe: [] }, 'm1'),
      fit('m1', 'item-1-2', 'item-1-1'),
      fit('m2', 'item-1-1'),
    );
    const bodies = asPresent(entries).map(({ body }) => body);
    const cells = bodies.find((body) => body.kind === 'cell-voltages');
    expect(cells?.kind === 'cell-voltages' && cells.cells.map(({ cell }) => cell)).toEqual([
      'm2/cell-3',
      'm9/cell-1',
    ]);
    const balanced = bodies.find((body) => body.kind === 'balance');
    expect(balanced?.kind === 'balance' && balanced.cells).toEqual(['m2/cell-3']);
  });

  test('what was brought level is the thing, not its place; a string with another module in it is another string', () => {
    const side = (id: string) => ({ id, tag: id, beforeV: 44, afterV: 44.7 });
    const levelled =
      (sides: string[], ...modules: string[]) =>
      () =>
        entry({ kind: 'levelled', sides: sides.map(side) }, ...modules);
    const entries = record(
      ...crate,
      fit('m1', 'item-1-1'),
      levelled(['m1', 'm5'], 'm1', 'm5'),
      levelled(['string-1', 'string-2'], 'm1', 'm5'),
      fit('m1', 'item-1-2', 'item-1-1'),
      fit('m2', 'item-1-1'),
      levelled(['string-1', 'string-2'], 'm1', 'm5'),
    );
    const present = asPresent(entries);
    const sides = present.flatMap(({ body }) =>
      body.kind === 'levelled' ? [body.sides.map(({ id }) => id)] : [],
    );
    expect(sides[0]).toEqual(['m2', 'm5']);
    // The work on its modules still counts; what it was brought to does not.
    expect(sides[1]!.some((id) => id === 'string-1' || id === 'string-2')).toBe(false);
    expect(sides[2]).toEqual(['string-1', 'string-2']);
  });

  test('an entry that tells the same keeps its identity, and telling twice changes nothing', () => {
    const entries = record(...crate, fit('m1', 'item-1-2'), result('intake-voltage:m1', 45, 'item-1-2'));
    const present = asPresent(entries);
    expect(present[3]).toBe(entries[3]);
    expect(asPresent(present)).toBe(present);
    expect(stockOf(present)).toBe(stockOf(entries));
  });
});

test('every random sequence of fit, swap, remove and measurement leaves each measurement with its thing', () => {
  for (let seed = 1; seed <= 40; seed += 1) {
    const next = numbers(seed);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
    const items = ['item-1-1', 'item-1-2', 'item-1-3', 'item-1-4'];
    const places = ['m1', 'm2', 'm3'];
    const entries = record(arrival('A', 'B', 'C', 'D'));
    const at = new Map<string, string>();
    const placeOf = (item: string) => [...at].find(([, one]) => one === item)?.[0] ?? null;
    const measured = new Map<string, number>();
    for (let i = 0; i < 60; i += 1) {
      const item = pick(items);
      const now = placeOf(item);
      const what = next();
      if (what < 0.35 && now === null) {
        const to = pick(places);
        entries.push(fit(to, item, at.get(to) ?? null)());
        at.set(to, item);
      } else if (what < 0.5 && now !== null) {
        entries.push(remove(now, item)());
        at.delete(now);
      } else {
        entries.push(result(`intake-capacity:${now ?? item}`, i, item)());
        measured.set(item, i);
      }
    }
    const stock = stockOf(entries);
    for (const item of items) expect(stock.items.get(item)!.place).toBe(placeOf(item));
    const taken = [...stock.inPlace.values()].filter((one) => one !== null);
    expect(new Set(taken).size).toBe(taken.length);
    // The newest of each thing is told where the thing is, by the whole record and by what of it still matters.
    for (const all of [entries, standing(entries)]) {
      const newest = new Map<string, number>();
      for (const line of told(all)) {
        const [step = '', value = ''] = line.split(' ');
        newest.set(stepParts(step).subject, Number(value));
      }
      for (const item of items) expect(newest.get(placeOf(item) ?? item)).toBe(measured.get(item));
    }
  }
});
