import { describe, expect, test } from '@jest/globals';
import { createKeyReader, keyList, stationKeys } from './keys';

describe('keys', () => {
  let now = 0;
  const fresh = () => createKeyReader(() => now);

  test('act outside fields, and inside them only with Alt', () => {
    const read = fresh();
    expect(read('/', false, false)).toBe('find');
    expect(read('/', true, false)).toBeNull();
    expect(read('n', true, true)).toBe('next');
    expect(read('W', false, false)).toBe('working');
    expect(read('x', false, false)).toBeNull();
  });

  test('g and a letter go to a station; g alone, late, or with another letter go nowhere', () => {
    const read = fresh();
    expect([read('g', false, false), read('k', false, false)]).toEqual([null, { go: 'book' }]);
    expect(read('k', false, false)).toBeNull();
    read('g', false, false);
    now += 2000;
    expect(read('p', false, false)).toBeNull();
    read('g', false, false);
    expect(read('n', false, false)).toEqual({ go: 'network' });
    read('g', false, false);
    expect(read('w', false, false)).toBe('working');
  });

  test('every station letter stands in the list', () => {
    const listed = keyList.filter(([keys]) => keys.startsWith('g ')).map(([keys]) => keys.slice(2));
    expect(listed.sort()).toEqual(Object.keys(stationKeys).sort());
  });
});
