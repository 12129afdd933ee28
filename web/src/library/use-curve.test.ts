import { expect, test } from '@jest/globals';
import type { TableField } from '@torvek/core/parts';
import { useCurve } from './use-curve';

const field = {
  columns: [
    { label: 'Current', unit: 'A', scale: 'log' },
    { label: 'Time', unit: 's', scale: 'linear' },
  ],
} as unknown as TableField;

/** Marks at 100 and 300 px for 10 and 1000 A, at 400 and 0 px for 0 and 8 s. */
function marked() {
  const curve = useCurve(field);
  for (const [at, text] of [
    [[100, 390], '10'],
    [[300, 390], '1 kA'],
    [[90, 400], '0'],
    [[90, 0], '8'],
  ] as const) {
    const { asks } = curve.press([...at], 8);
    curve.marks[asks!].text = text;
  }
  return curve;
}

test('marks are placed one after another, then points; each value is read between them, logarithmic where the axis is', () => {
  const curve = marked();
  expect(curve.placing.value).toBe('point');
  expect(curve.unset.value).toEqual([]);
  curve.press([200, 200], 8);
  curve.press([300, 100], 8);
  expect(curve.rows.value).toEqual([
    [100, 4],
    [1000, 6],
  ]);
});

test('nothing is read while a value is missing or cannot be', () => {
  const curve = marked();
  curve.press([200, 200], 8);
  curve.marks.y2.text = 'eight';
  expect([curve.unset.value, curve.rows.value, curve.reading.value]).toEqual([['y2'], [], null]);
});

test('a press near a point takes it along instead of making another', () => {
  const curve = marked();
  curve.press([200, 200], 8);
  expect(curve.press([205, 205], 8)).toEqual({ dragging: true, asks: null });
  curve.put([200, 100]);
  expect(curve.rows.value).toEqual([[100, 6]]);
  expect(curve.press([209, 100], 8).dragging).toBe(false);
  expect(curve.points.value).toHaveLength(2);
});

test('the nearest of several is picked, a mark as well as a point', () => {
  const curve = marked();
  curve.press([200, 200], 1);
  curve.press([206, 200], 1);
  curve.press([204, 200], 8);
  expect(curve.picked.value).toBe(1);
  curve.press([101, 391], 8);
  expect(curve.picked.value).toBe('x1');
});

test('arrows move by a pixel and with Shift by a fifth; Delete takes a point, never a mark', () => {
  const curve = marked();
  curve.press([200, 200], 8);
  expect(curve.nudge('ArrowUp', false)).toBe(true);
  curve.nudge('ArrowLeft', true);
  expect(curve.points.value).toEqual([[199.8, 199]]);
  expect([curve.nudge('x', false), curve.nudge('Delete', false)]).toEqual([false, true]);
  expect(curve.points.value).toEqual([]);
  expect(curve.nudge('ArrowUp', false)).toBe(false);
  curve.press([100, 390], 8);
  expect([curve.nudge('Delete', false), curve.marks.x1.at]).toEqual([false, [100, 390]]);
});

test('a mark placed again is asked for its value again', () => {
  const curve = marked();
  curve.placing.value = 'y1';
  expect(curve.press([90, 380], 8)).toEqual({ dragging: false, asks: 'y1' });
  expect([curve.marks.y1.at, curve.placing.value]).toEqual([[90, 380], 'point']);
});
