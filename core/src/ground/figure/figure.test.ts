import { expect, test } from '@jest/globals';
import { brokenLimit } from '.';

test.each([
  [5, { max: 5 }, null],
  [5.01, { max: 5 }, 5],
  [5, { min: 5 }, null],
  [4.99, { min: 5 }, 5],
  [3, { min: 1, max: 2 }, 2],
  [0.5, { min: 1, max: 2 }, 1],
  [null, { max: 5 }, null],
  [7, undefined, null],
])('%s against %j: %s', (value, limit, broken) => {
  expect(brokenLimit({ value, ...(limit !== undefined && { limit }) })).toBe(broken);
});
