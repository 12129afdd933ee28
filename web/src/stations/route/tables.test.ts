import { describe, expect, test } from '@jest/globals';
import { csvOf } from '../../parts/csv';
import { bendRows, clipRows, cutTable } from './tables';

describe('tables to take away', () => {
  test('clips by their place along the run and in the vehicle', () => {
    expect(clipRows('R', [{ atM: 0.1, position: [1.23456, -0.5, 0.6] }])).toEqual([
      { run: 'R', clip: 1, 'along, m': 0.1, 'ahead, m': 1.2346, 'left, m': -0.5, 'up, m': 0.6 },
    ]);
  });

  test('a bend card with its marks, to a tenth of a millimetre', () => {
    const bend = {
      number: 1,
      straightBeforeMm: 100.04,
      angleDeg: 45,
      setAngleDeg: 45.9,
      rotationDeg: -94.46,
      arcMm: 78.54,
      startMarkMm: 100.06,
      centreMarkMm: 139.3,
      endMarkMm: 178.6,
    };
    const [row] = bendRows('T', {
      bends: [bend],
      cutLengthMm: 500.04,
      lastStraightMm: 300,
      radiusOverDiameter: 4,
      kink: 'low',
    });
    expect(row).toMatchObject({
      'mark at, mm': 100.1,
      'turn first, ° clockwise': -94.5,
      'tube to cut, mm': 500,
    });
  });

  test('a name that would be a formula is none', () => {
    const text = csvOf(
      cutTable([
        { tag: '=1+1', partLabel: 'A "35", thick', count: 2, lengthM: null, now: false, cutM: null },
      ]),
    );
    expect(text.startsWith('\uFEFFrun,cable,pieces')).toBe(true);
    expect(text).toMatch(/\r\n"?'=1\+1"?,"A ""35"", thick",2,,measure in place,/);
  });
});
