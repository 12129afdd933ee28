import { describe, expect, jest, test } from '@jest/globals';

jest.unstable_mockModule('../api/client', () => ({ api: {} }));
const { inRows, labelSheets } = await import('./labels');

describe('sheets of labels', () => {
  test('so many across, the last row filled up', () => {
    expect(inRows([1, 2, 3, 4], 3, 0)).toEqual([
      [1, 2, 3],
      [4, 0, 0],
    ]);
    expect(inRows([], 3, 0)).toEqual([]);
    expect(inRows([1, 2], 2, 0)).toEqual([[1, 2]]);
  });

  test('a smaller label has a smaller code, and type that can still be read', () => {
    const codes = labelSheets.map(({ codePt }) => codePt);
    expect(codes).toEqual([...codes].sort((a, b) => b - a));
    expect(Math.min(...labelSheets.map(({ linePt }) => linePt - 1))).toBeGreaterThanOrEqual(5);
    // Side by side they fit on A4 less its margins.
    for (const { across, codePt } of labelSheets) expect(across * (codePt + 40)).toBeLessThan(595 - 48);
  });
});
