import type { Design } from '@torvek/core/document';
import type { Arrangement } from '@torvek/core/pack';
import { tallyOf } from './moves';

/** A proposal in words: how many modules in which box, and what it does against the arrangement there is. */
export function explain(one: Arrangement, design: Design): { split: string; why: string } {
  const perBox = new Map<string, number>();
  for (const boxes of Object.values(one.counts))
    for (const [box, kinds] of Object.entries(boxes))
      perBox.set(box, (perBox.get(box) ?? 0) + Object.values(kinds).reduce((sum, count) => sum + count, 0));
  const tag = (box: string) => design.boxes[box]?.tag ?? box;
  const before = new Map<string, number>();
  for (const { box } of Object.values(design.modules))
    if (box !== undefined) before.set(box, (before.get(box) ?? 0) + 1);
  const split = Object.keys(design.boxes)
    .filter((box) => perBox.has(box))
    .map((box) => `${tag(box)} ${perBox.get(box)}`)
    .join(', ');
  const changes = Object.keys(design.boxes).flatMap((box) => {
    const by = (perBox.get(box) ?? 0) - (before.get(box) ?? 0);
    return by === 0 ? [] : [`${by > 0 ? '+' : '−'}${Math.abs(by)} ${tag(box)}`];
  });
  const now = tallyOf(design);
  const joints = one.linksBetween - now.linksBetween;
  const parts = [
    changes.length === 0 ? 'the same numbers in each box' : changes.join(', '),
    joints === 0
      ? ''
      : `${Math.abs(joints)} ${Math.abs(joints) === 1 ? 'joint' : 'joints'} between boxes ${joints > 0 ? 'more' : 'fewer'}`,
  ];
  return { split, why: parts.filter((part) => part !== '').join('; ') };
}
