import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distance, type Vector } from '../../ground/math';
import { taped } from './taped';

const marks: [Vector, Vector, Vector] = [
  [0, 0.5, 0.4],
  [0, -0.5, 0.4],
  [-1.5, 0.5, 0.4],
];
const from = (place: Vector) => marks.map((mark) => distance(mark, place)) as [number, number, number];

describe('a place by the tape from three marks', () => {
  test('is found again, the higher of its two sides first, with what the tapes leave open', () => {
    const found = taped(marks, from([-0.8, 0.1, 0.9]));
    if (!found.ok) throw new Error(found.message);
    found.places[0].forEach((one, axis) => expect(one).toBeCloseTo([-0.8, 0.1, 0.9][axis]!, 9));
    found.places[1].forEach((one, axis) => expect(one).toBeCloseTo([-0.8, 0.1, -0.1][axis]!, 9));
    expect(found.tolMm[0]).toBeGreaterThan(3);
    expect(found.tolMm[0]).toBeLessThan(15);
    expect(found.tolMm[1]).toBeCloseTo(found.tolMm[0], 6);
  });

  test('whichever way the marks lie to each other', () => {
    const skew: [Vector, Vector, Vector] = [
      [0.2, 0.6, 0.5],
      [-0.9, -0.3, 0.7],
      [-1.4, 0.4, 0.35],
    ];
    const place: Vector = [-0.6, 0.2, 1.1];
    const found = taped(skew, skew.map((mark) => distance(mark, place)) as [number, number, number]);
    if (!found.ok) throw new Error(found.message);
    expect(distance(found.places[0], place)).toBeLessThan(1e-9);
  });

  test('in the plane of its marks its height is open by far more than the tapes are wrong', () => {
    const found = taped(marks, from([-0.8, 0.1, 0.4]));
    if (!found.ok) throw new Error(found.message);
    // 3 mm at a good metre: √(2·1000·3) mm.
    expect(found.tolMm[0]).toBeGreaterThan(60);
    expect(found.tolMm[0]).toBeLessThan(140);
  });

  test('tapes that miss each other by a little lie in the plane; by more they contradict', () => {
    const [ra, rb, rc] = from([-0.8, 0.1, 0.4]);
    const little = taped(marks, [ra - 0.002, rb - 0.002, rc - 0.002]);
    if (!little.ok) throw new Error(little.message);
    expect(little.places[0][2]).toBeCloseTo(0.4, 9);
    expect(taped(marks, [0.3, 0.3, 0.4])).toEqual({
      ok: false,
      message: expect.stringMatching(/miss each other by \d+ mm/),
    });
  });

  test('marks in a line or in one place tell nothing, and are said to', () => {
    const line: [Vector, Vector, Vector] = [marks[0], marks[1], [0, 2, 0.41]];
    expect(taped(line, [1, 1, 1])).toMatchObject({
      ok: false,
      message: expect.stringContaining('in a line'),
    });
    expect(taped([marks[0], marks[0], marks[2]], [1, 1, 1])).toMatchObject({ ok: false });
    expect(taped(marks, [1, 0, 1])).toMatchObject({ ok: false });
  });

  test('whatever the place: its distances are those that were taped, and tapes wrong by less stay within what is said', () => {
    const near = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(near, near, near), fc.tuple(near, near, near), ([x, y, z], wrong) => {
        const place: Vector = [x - 0.8, y, 0.45 + Math.abs(z)];
        const exact = from(place);
        const found = taped(marks, exact);
        if (!found.ok) throw new Error(found.message);
        expect(distance(found.places[0], place)).toBeLessThan(1e-6);
        const off = taped(marks, exact.map((one, k) => one + 0.003 * wrong[k]!) as typeof exact);
        if (off.ok)
          expect(distance(off.places[0], place) * 1000).toBeLessThanOrEqual(found.tolMm[0] * 1.02 + 1e-6);
      }),
      { numRuns: 300 },
    );
  });
});
