import { describe, expect, test } from '@jest/globals';
import { filleted, isProblem, legsOf } from '@torvek/core/space';
import { frameOf, lineText, onPaper, pathText, rectOf, snapped, snapsAlong } from './drawing';

describe('the vehicle on paper', () => {
  test('the front is to the right, left and up are up; a centimetre is a unit', () => {
    expect(onPaper([1, 0.5, 0.3], 'plan')).toEqual([100, -50]);
    expect(onPaper([1, 0.5, 0.3], 'side')).toEqual([100, -30]);
    expect(
      lineText(
        [
          [0, 0, 0],
          [1, 0.5, 0.3],
        ],
        'side',
      ),
    ).toBe('M0,0L100,-30');
  });

  test('a box by its middle and sizes; without a size there is none', () => {
    const box = { xM: -1, yM: 0.2, zM: 0.6, lengthM: 1, widthM: 0.4, heightM: 0.3 };
    expect(rectOf(box, 'plan')).toEqual({ x: -150, y: -40, w: 100, h: 40 });
    expect(rectOf(box, 'side')!.y).toBeCloseTo(-75, 9);
    expect(rectOf({ ...box, heightM: undefined } as never, 'side')).toBeNull();
    expect(rectOf({ ...box, heightM: undefined } as never, 'plan')).not.toBeNull();
  });

  test('bends are drawn in steps that stay on their circle', () => {
    const legs = legsOf([
      [0, 0, 0],
      [1, 0, 0],
      [1, 1, 0],
    ]);
    if (isProblem(legs)) throw new Error('no way');
    const text = pathText(filleted(legs, () => 0.5).pieces, 'plan');
    const points = text
      .split(/[ML]/)
      .slice(1)
      .map((one) => one.split(',').map(Number) as [number, number]);
    const onArc = points.slice(1, -1);
    expect(onArc.length).toBeGreaterThan(8);
    for (const [x, y] of onArc) expect(Math.hypot(x - 50, y + 50)).toBeCloseTo(50, 0);
    expect([points[0], points.at(-1)]).toEqual([
      [0, 0],
      [100, -100],
    ]);
  });

  test('what is drawn about goes to what is near, else to the centimetre', () => {
    const near = [
      { at: 0.5, what: 'face of A' },
      { at: 0.52, what: 'in line' },
    ];
    expect(snapped(0.509, near)).toEqual({ value: 0.5, to: 'face of A' });
    expect(snapped(0.515, near)).toEqual({ value: 0.52, to: 'in line' });
    expect(snapped(0.5461, near)).toEqual({ value: 0.55, to: null });
    expect(snapped(-0.004, [])).toEqual({ value: 0, to: null });
    const points = [{ xM: 1 }, { xM: 2 }, { yM: 3 }];
    const things = [{ tag: 'Box', xM: 4, lengthM: 1 }];
    expect(snapsAlong('xM', points, 1, things).map(({ at }) => at)).toEqual([1, 3.5, 4.5]);
    expect(snapsAlong('zM', points, 1, things)).toEqual([]);
  });

  test('a view holds all that is in it, with a margin', () => {
    expect(frameOf([{ x: 0, y: -50, w: 100, h: 20 }], [[130, 10]], 5)).toEqual({
      left: -5,
      top: -55,
      width: 140,
      height: 70,
    });
    expect(frameOf([], []).width).toBe(200);
  });
});
