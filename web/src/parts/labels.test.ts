import { describe, expect, jest, test } from '@jest/globals';

jest.unstable_mockModule('../api/client', () => ({ api: {} }));
const { inRows, labelSheets, wordsPt } = await import('./labels');
const { fittingPt, labelsOf } = await import('./label-kinds');
const { libraryBus } = await import('../../../demo/library-bus');

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
    const sheets = labelSheets.filter(({ rollMm }) => rollMm === undefined);
    const codes = sheets.map(({ codePt }) => codePt);
    expect(codes).toEqual([...codes].sort((a, b) => b - a));
    expect(Math.min(...sheets.map(({ linePt }) => linePt - 1))).toBeGreaterThanOrEqual(5);
    // Side by side they fit on A4 less its margins.
    for (const { across, codePt } of sheets) expect(across * (codePt + 40)).toBeLessThan(595 - 48);
  });
});

describe('labels of a kind', () => {
  const bus = libraryBus.design;
  test('each has its name, what it is, how high it is, and a code that leads to it', () => {
    const cables = labelsOf('cables', bus, 403);
    expect(cables.slice(0, 2).map(({ title }) => title)).toEqual(['Main +', 'Main −']);
    expect(cables[0]!.lines).toContain('up to 403 V DC');
    expect(labelsOf('fuses', bus, null).map(({ title }) => title)).toContain('Fuse S1');
    expect(labelsOf('contactors', bus, 403).map(({ title }) => title)).toContain('Main +');
    expect(labelsOf('boxes', bus, 403).map(({ title }) => title)).toContain('Nose box');
  });

  test('a name that is too long is set smaller, never cut', () => {
    expect(fittingPt('M1', 100, 14, true)).toBe(14);
    const long = 'Right rail to the compressor +';
    for (const sheet of labelSheets) {
      const oneLine = sheet.rollMm !== undefined;
      const size = fittingPt(long, wordsPt(sheet), sheet.titlePt, oneLine);
      const widest = oneLine ? long.length : 'compressor'.length;
      expect(size * 0.56 * widest).toBeLessThanOrEqual(wordsPt(sheet) + 1e-9);
      expect(size).toBeGreaterThanOrEqual(5);
    }
  });
});
