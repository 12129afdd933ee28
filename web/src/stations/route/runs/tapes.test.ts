import { expect, test } from '@jest/globals';
import { lowOrHigh, tapesFor } from './tapes';

test('the tapes of a point are those it was measured by, else three marks with nothing read', () => {
  expect(tapesFor(undefined, ['a', 'b', 'c', 'd']).map(({ datum, text }) => datum + text)).toEqual([
    'a',
    'b',
    'c',
  ]);
  const taped = [
    { datum: 'd', distanceM: 1.074 },
    { datum: 'b', distanceM: 0.2 },
    { datum: 'a', distanceM: 3 },
  ];
  expect(tapesFor(taped, ['a', 'b', 'c', 'd'])).toEqual([
    { datum: 'd', text: '1.074' },
    { datum: 'b', text: '0.2' },
    { datum: 'a', text: '3' },
  ]);
  expect(tapesFor(undefined, ['a']).map(({ datum }) => datum)).toEqual(['a', '', '']);
});

test('of both places the nearer to where the point is; the first where it is nowhere', () => {
  const places = [
    [0, 0, 1],
    [0, 0, 0.2],
  ] as const;
  expect(lowOrHigh(places, { xM: 0, yM: 0, zM: 0.5 })).toBe(1);
  expect(lowOrHigh(places, { xM: 0, yM: 0, zM: 0.9 })).toBe(0);
  expect(lowOrHigh(places, { xM: 0, yM: 0 })).toBe(0);
  expect(lowOrHigh(places, undefined)).toBe(0);
});
