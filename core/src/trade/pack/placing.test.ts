import { describe, expect, test } from '@jest/globals';
import { edit, type Design } from '../../model/document';
import { evaluate } from '../../whole/design';
import { van230 } from '../../whole/design/clean/library';

/** Front overhang 0.9 m, length 5.4 m: from 0.9 m ahead of the front axle to 4.5 m behind it; height 2.4 m. Boxes of 1.65 × 0.8 × 0.15 m. */
const said = (rule: string, recipe: (boxes: Design['boxes'], draft: Design) => void) => {
  const design = edit(van230, (draft) => recipe((draft as Design).boxes, draft as Design))!.design;
  return evaluate(design).checks.flatMap((check) =>
    check.state === 'raised' && check.rule.id === rule ? [check.message] : [],
  );
};
const front = (more: Partial<Design['boxes'][string]>) => (boxes: Design['boxes']) =>
  void Object.assign(boxes['box-front']!, more);

describe('a box in its vehicle', () => {
  test('ends where the vehicle does, at the front, at the tail and under the roof', () => {
    // 0.9 − 1.65/2 = 0.075; −4.5 + 0.825 = −3.675; 2.4 − 0.075 = 2.325.
    expect(said('pack.box-outside', front({ xM: 0.07 }))).toEqual([]);
    expect(said('pack.box-outside', front({ xM: 0.175 }))).toEqual([
      'Front box reaches 0.1 m beyond the front.',
    ]);
    expect(said('pack.box-outside', front({ xM: -3.67 }))).toEqual([]);
    expect(said('pack.box-outside', front({ xM: -3.775 }))).toEqual([
      'Front box reaches 0.1 m beyond the tail.',
    ]);
    expect(said('pack.box-outside', front({ zM: 2.32 }))).toEqual([]);
    expect(said('pack.box-outside', front({ zM: 2.425 }))).toEqual([
      'Front box reaches 0.1 m above the roof.',
    ]);
  });

  test('hangs no lower than the ground clearance, 0.15 m where none is given', () => {
    expect(said('pack.box-low', front({ zM: 0.226 }))).toEqual([]);
    expect(said('pack.box-low', front({ zM: 0.215 }))).toEqual([
      'Front box ends 0.14 m above the ground; 0.15 m are asked.',
    ]);
    expect(
      said('pack.box-low', (boxes, draft) => {
        draft.vehicle.clearanceM = 0.7;
        boxes['box-rear']!.zM = 1;
      }),
    ).toEqual(['Front box ends 0.625 m above the ground; 0.7 m are asked.']);
  });

  test('does not lie in another; touching is not overlapping, and one axis apart is enough', () => {
    const rear = (more: Partial<Design['boxes'][string]>) => (boxes: Design['boxes']) =>
      void Object.assign(boxes['box-rear']!, more);
    expect(said('pack.boxes-overlap', rear({ xM: -2.25 }))).toEqual([]);
    expect(said('pack.boxes-overlap', rear({ xM: -2.15 }))).toEqual([
      'Rear box reaches 0.1 m into Front box.',
    ]);
    expect(said('pack.boxes-overlap', rear({ xM: -0.6, zM: 0.85 }))).toEqual([]);
    expect(said('pack.boxes-overlap', rear({ xM: -0.6, yM: 0.8 }))).toEqual([]);
  });
});
