import { describe, expect, test } from '@jest/globals';
import type { PlanTask } from '@torvek/core/balance';
import { dueUntil } from './due';

const now = Date.parse('2026-11-18T10:00:00Z');
const hour = 3.6e6;
const task = (
  kind: PlanTask['kind'],
  cell: string,
  hours: number,
  change: Partial<PlanTask> = {},
): PlanTask => ({
  kind,
  cell,
  place: null,
  round: 1,
  fromMs: now + hours * hour,
  toMs: now + hours * hour,
  state: 'planned',
  lateH: 0,
  ...change,
});
const groups = (tasks: PlanTask[]) =>
  dueUntil(tasks, now, now + 14 * hour).map(({ kind, lateH, tasks: own }) => [
    kind,
    lateH,
    own.map(({ cell }) => cell).join(' '),
  ]);

describe('what is due today', () => {
  test('readings within half an hour are one walk, others are their own', () => {
    expect(groups([task('read', 'c1', 0), task('read', 'c2', 0.4), task('read', 'c3', 2)])).toEqual([
      ['read', 0, 'c1 c2'],
      ['read', 0, 'c3'],
    ]);
  });
  test('the late come first, and a group is as late as its latest', () => {
    expect(
      groups([
        task('take off', 'c1', 1),
        task('read', 'c2', 0, { lateH: 1 }),
        task('read', 'c3', 0.1, { lateH: 5 }),
      ]),
    ).toEqual([
      ['read', 5, 'c2 c3'],
      ['take off', 0, 'c1'],
    ]);
  });
  test('rests, loads under way and other days ask for nothing', () => {
    expect(
      groups([
        task('rest', 'c1', 0),
        task('load', 'c2', 0, { state: 'under way' }),
        task('load', 'c3', 15),
        task('load', 'c4', 3),
      ]),
    ).toEqual([['load', 0, 'c4']]);
  });
});
