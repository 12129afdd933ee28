import { describe, expect, test } from '@jest/globals';
import { readCellTable } from './read-cells';

const now = Date.parse('2026-11-18T10:00:00Z');
const ids: Record<string, string> = { c01: 'module-1/cell-1', c02: 'module-2/cell-1' };
const read = (text: string) =>
  readCellTable(
    text,
    (tag) => ids[tag.toLowerCase()],
    now,
    (one) => Date.parse(one),
  );
const cellsOf = (text: string) => {
  const found = read(text);
  if (!found.ok) throw new Error(found.message);
  return Object.fromEntries(found.cells.map(({ id, samples }) => [id, samples]));
};

describe('readings from a file', () => {
  test('a line for each reading, with times, in any order', () => {
    expect(
      cellsOf(
        'cell,time,V\nC01,2026-11-18T09:00:00Z,2.91\nC02,2026-11-18T09:00:00Z,2.9\nC01,2026-11-18T08:00:00Z,2.9\n',
      ),
    ).toEqual({
      'module-1/cell-1': [
        [now - 7_200_000, 2.9],
        [now - 3_600_000, 2.91],
      ],
      'module-2/cell-1': [[now - 3_600_000, 2.9]],
    });
  });
  test('a column for each cell; units and a decimal comma are read, gaps are passed over', () => {
    expect(cellsOf('time;C01;C02\n2026-11-18T09:00:00Z;2,91;\n2026-11-18T09:30:00Z;2911 mV;2,9\n')).toEqual({
      'module-1/cell-1': [
        [now - 3_600_000, 2.91],
        [now - 1_800_000, 2.911],
      ],
      'module-2/cell-1': [[now - 1_800_000, 2.9]],
    });
  });
  test('cell and volts alone were read now', () => {
    expect(cellsOf('C01\t2.91\nC02\t2.90')).toEqual({
      'module-1/cell-1': [[now, 2.91]],
      'module-2/cell-1': [[now, 2.9]],
    });
  });
  test.each([
    ['', 'holds no line'],
    ['cell,V\nC09,2.9', 'line 2: “C09” is no cell'],
    ['cell,V\nC01,x', 'line 2: “x”'],
    ['cell,V\nC01,41', 'line 2: 41 V is no cell’s voltage'],
    ['cell,time,V\nC01,noon,2.9', 'line 2: “noon” is no time'],
    ['cell,time,V\nC01,2026-11-18T12:00:00Z,2.9', 'has not come yet'],
    ['cell,V\nC01,', 'holds no voltage'],
    ['a,b,c\n1,2,3', 'needs a first line'],
  ])('%j is refused', (text, message) => {
    const found = read(text);
    expect(found.ok ? '' : found.message).toContain(message);
  });
  test('a long log is averaged: its mean and its ends stay', () => {
    const lines = Array.from(
      { length: 3000 },
      (_, i) => `C01,${new Date(now - (3000 - i) * 60_000).toISOString()},${(2.8 + i * 1e-5).toFixed(5)}`,
    );
    const found = read(`cell,time,V\n${lines.join('\n')}`);
    expect(found).toMatchObject({ ok: true, thinnedFrom: 3000 });
    if (!found.ok) return;
    const { samples } = found.cells[0]!;
    expect(samples).toHaveLength(300);
    const mean = samples.reduce((sum, [, volts]) => sum + volts, 0) / 300;
    expect(mean).toBeCloseTo(2.8 + 1499.5e-5, 5);
    // Ten readings each: the first mean lies at the middle of the first ten.
    expect(samples[0]).toEqual([now - 2_995.5 * 60_000, expect.closeTo(2.800045, 6)]);
  });
});
