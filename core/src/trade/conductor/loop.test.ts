import { expect, test } from '@jest/globals';
import { resistancePerM } from '../../model/parts';
import { loopOhm } from './loop';

test('a loop goes out and back, through all conductors in parallel, and through the contacts once', () => {
  const perM = resistancePerM(35, 20);
  expect(loopOhm(35, 4, 1, 0)).toBeCloseTo(8 * perM, 12);
  expect(loopOhm(35, 4, 2, 0.002)).toBeCloseTo(4 * perM + 0.002, 12);
  expect(loopOhm(35, 0, 3, 0.002)).toBe(0.002);
});
