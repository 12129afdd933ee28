import { expect, test } from '@jest/globals';
import { pinText, readPins } from './pin-pairs';

test('pairs of pins are read however they are parted, and written as one reads them', () => {
  const pins = [
    [1, 3],
    [2, 5],
    [12, 1],
  ];
  for (const text of ['1-3, 2-5, 12-1', '1 3; 2 5; 12 1', '1→3\n2 → 5\n12:1\n', ' 1 – 3 ,2=5,, 12 > 1'])
    expect(readPins(text)).toEqual({ pins });
  expect(pinText(pins as [number, number][])).toBe('1-3, 2-5, 12-1');
  expect(readPins('')).toEqual({ pins: [] });
});

test('what is no pair is said, and nothing of it taken', () => {
  for (const text of ['1-3, 4', '1-3-5', 'a-b', '1.5-2', '-1-3', '1234-1'])
    expect(readPins(text)).toEqual({ problem: expect.stringMatching(/is no pair of pins/) });
});
