import { describe, expect, test } from '@jest/globals';
import { edit, runLengths } from '@torvek/core/document';
import type { Entry } from '@torvek/core/record';
import { libraryBus } from '../../../../../demo/library-bus';
import { cutRows, plansOf, reelsOf, runLabels } from './cuts';

const { design } = libraryBus;
const entry = (seq: number, body: object): Entry =>
  ({ seq, takenAt: '2026-11-20T08:00:00Z', subjects: [], body }) as unknown as Entry;
const reels = entry(5, {
  kind: 'arrival',
  items: [
    { part: 'marl-x35@1', serial: 'A', donor: null, price: null, note: null, lengthM: 9 },
    { part: 'marl-x35@1', serial: 'B', donor: null, price: null, note: null, lengthM: 7 },
    { part: 'brackwater-m12@1', serial: 'M', donor: null, price: null, note: null },
  ],
});
const cut = (seq: number, change: object) =>
  entry(seq, {
    kind: 'cable-cut',
    place: 'runs.run-inlet.cutLengthM',
    name: 'x',
    lengthM: 1.5,
    designedM: null,
    batch: null,
    ...change,
  });

describe('the cut list', () => {
  test('each conductor of a run, as long as the run says; now, where neither end can move', () => {
    const rows = cutRows(design, []);
    const inlet = rows.find(({ run }) => run === 'run-inlet')!;
    expect(inlet).toMatchObject({ part: 'marl-x35@1', count: 2, now: true, cutM: null });
    expect(inlet.lengthM).toBe(runLengths(design.runs!['run-inlet']!)!.cutM);
    expect(rows.find(({ run }) => run === 'run-dcdc')!.now).toBe(false);
    const alone = edit(design, (draft) => void (draft.runs!['run-inlet']!.poles = 'plus'))!.design;
    expect(cutRows(alone, []).find(({ run }) => run === 'run-inlet')!.count).toBe(1);
    expect(cutRows(design, [cut(9, {})]).find(({ run }) => run === 'run-inlet')!.cutM).toBe(1.5);
  });

  test('reels are what arrived with a length; all that was cut off them is gone, a second cut too', () => {
    expect(reelsOf([reels]).map(({ name, leftM }) => [name, leftM])).toEqual([
      ['A', 9],
      ['B', 7],
    ]);
    const [a] = reelsOf([reels, cut(6, { reel: 'item-5-1', count: 2 }), cut(7, { reel: 'item-5-1' })]);
    expect(a!.leftM).toBeCloseTo(9 - 3 - 1.5, 9);
  });

  test('what is cut already is not laid again; cables of a kind lie on reels of that kind', () => {
    const rows = cutRows(design, []);
    const plans = plansOf(rows, reelsOf([reels]));
    const thick = plans.find(({ part }) => part === 'marl-x35@1')!;
    expect(thick.plan.assignments.map(({ cutIds }) => cutIds)).toEqual([['run-inlet/1', 'run-inlet/2']]);
    // 6.59 m: the shorter reel takes both and leaves the longer one whole.
    expect(thick.plan.assignments[0]!.reelId).toBe('item-5-2');
    expect(thick.exact).toBe(true);
    const thin = plans.find(({ part }) => part === 'marl-x4@1')!;
    expect([thin.plan.unplaced.length, thin.cuts.length]).toEqual([4, 4]);
    const done = plansOf(cutRows(design, [cut(9, {})]), reelsOf([reels]));
    expect(done.some(({ part }) => part === 'marl-x35@1')).toBe(false);
  });

  test('a label for either end of each run, with what it carries and where it leads', () => {
    const labels = runLabels('Bus', design);
    expect(labels).toHaveLength(2 * Object.keys(design.runs!).length);
    expect(labels.slice(0, 2).map(({ title, lines }) => [title, lines[1], lines[2]])).toEqual([
      ['Over the axle', 'DC inlet', 'Collector box to DC inlet, beginning'],
      ['Over the axle', 'DC inlet', 'Collector box to DC inlet, end'],
    ]);
    expect(labels[0]!.path).toBe('route?run=run-inlet');
  });
});
