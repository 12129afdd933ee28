import { describe, expect, test } from '@jest/globals';
import { bus350 } from '../../whole/design/clean/library';
import { truck115 } from '../../whole/design/clean/orchard';
import { edit } from '../../model/document';
import { chooseSet, type Candidate } from './choose-set';

const thing = (id: string, more: Partial<Candidate> = {}): Candidate => ({
  id,
  name: id,
  state: 'untested',
  part: null,
  place: null,
  ...more,
});
const places = (string: string) => bus350.strings[string]!.modules;
/** Twenty of 117 Ah down, half an ampere hour apart. */
const twenty = Array.from({ length: 20 }, (_, i) => thing(`t${i}`, { capacityAh: 117 - i / 2 }));

describe('the best set for the places', () => {
  test('the largest, those of one string together; the rest with their reason', () => {
    const set = chooseSet(bus350, twenty)!;
    expect(set.strings).toEqual([
      { id: 'string-1', smallestAh: 113.5, unknown: 0 },
      { id: 'string-2', smallestAh: 109.5, unknown: 0 },
    ]);
    // 8 and 8: by their smallest.
    expect(set.capacityAh).toBe(113.5 + 109.5);
    expect(set.capacityNowAh).toBeNull();
    expect(set.rest.map(({ id }) => id)).toEqual(['t16', 't17', 't18', 't19']);
    expect(set.rest[0]!.why).toBe('109 Ah; the smallest that is chosen has 109.5 Ah');
  });

  test('what sits in the string that it is chosen for stays; blocks go where most of them sits', () => {
    const now = twenty.map((one, i) => ({
      ...one,
      place: i < 8 ? places('string-2')[i]! : i < 16 ? places('string-1')[i - 8]! : null,
    }));
    const set = chooseSet(bus350, now)!;
    expect(set.places.filter(({ moves }) => moves)).toEqual([]);
    expect(set.capacityNowAh).toBe(set.capacityAh);
    // The weakest of all is fitted in place of the best: one change.
    const swapped = now.map((one) =>
      one.id === 't0'
        ? { ...one, place: null }
        : one.id === 't19'
          ? { ...one, place: places('string-2')[0]! }
          : one,
    );
    const better = chooseSet(bus350, swapped)!;
    expect(better.places.filter(({ moves }) => moves)).toEqual([
      { place: places('string-2')[0]!, string: 'string-2', thing: 't0', moves: true },
    ]);
    expect(better.capacityNowAh).toBe(109.5 + 107.5);
  });

  test('what was not measured comes after what is known, and before what lies far off', () => {
    const some = [
      ...twenty.slice(0, 15),
      thing('weak', { capacityAh: 60 }),
      thing('unknown'),
      thing('high', { capacityAh: 116, resistanceOhm: 0.09 }),
    ].map((one, i) => ({ resistanceOhm: 0.009 + i * 1e-5, ...one }));
    const set = chooseSet(bus350, some)!;
    expect(set.places.some(({ thing: one }) => one === 'unknown')).toBe(true);
    expect(set.capacityAh).toBeNull();
    expect(set.strings.map(({ unknown }) => unknown)).toEqual([0, 1]);
    expect(set.rest.map(({ id, why }) => [id, why])).toEqual([
      ['high', 'lies far off the rest'],
      ['weak', 'lies far off the rest'],
    ]);
  });

  test('what was not measured never takes the place of what was, wherever it stands in the list', () => {
    for (const list of [
      [thing('unknown'), ...twenty.slice(0, 16)],
      [...twenty.slice(0, 16), thing('unknown')],
      [...twenty.slice(0, 8), thing('unknown'), ...twenty.slice(8, 16)],
    ])
      expect(chooseSet(bus350, list)!.rest).toEqual([
        { id: 'unknown', why: 'its capacity was not measured' },
      ]);
  });

  test('never what was rejected, doubted, leaks, is out of its window or of another kind', () => {
    const bad = [
      thing('rejected', { state: 'rejected', capacityAh: 130 }),
      thing('suspect', { state: 'suspect', capacityAh: 130 }),
      thing('leaks', { insulationMOhm: 499, capacityAh: 130 }),
      thing('low', { voltageV: 35.9, capacityAh: 130 }),
      thing('other', { part: 'tolvarth-8@1', capacityAh: 130 }),
    ];
    const set = chooseSet(bus350, [...twenty, ...bad])!;
    expect(set.rest.slice(0, 5)).toEqual([
      { id: 'rejected', why: 'is rejected' },
      { id: 'suspect', why: 'is suspect' },
      { id: 'leaks', why: 'insulates with 499 MΩ, the maker asks for 500 MΩ' },
      { id: 'low', why: 'reads 35.9 V, outside of 36 to 50.4 V' },
      { id: 'other', why: 'is of another kind' },
    ]);
    expect(chooseSet(bus350, [thing('edge', { insulationMOhm: 500, voltageV: 36 })])!.rest).toEqual([]);
  });

  test('too few leave places empty; strings of several kinds have no set', () => {
    const set = chooseSet(truck115, [thing('a', { capacityAh: 99 })])!;
    expect(set.places.map(({ thing: one }) => one)).toEqual(['a', ...Array.from({ length: 8 }, () => null)]);
    expect(set.strings).toEqual([{ id: 'string-1', smallestAh: 99, unknown: 8 }]);
    const mixed = edit(bus350, (draft) => {
      draft.modules[places('string-1')[0]!]!.part = 'tolvarth-8@1';
    })!.design;
    expect(chooseSet(mixed, twenty)).toBeNull();
  });
});
