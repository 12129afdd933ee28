import type { PlanTask } from '@torvek/core/balance';
import { describe, expect, test } from '@jest/globals';
import { daysOf, lanesOf, restingOf, type CalendarCell } from './calendar';

const hourMs = 3.6e6;
const dayMs = 24 * hourMs;
const noon = Date.parse('2026-11-10T12:00:00Z');
/** Hours from that noon. */
const at = (hours: number) => noon + hours * hourMs;

type Stretch = CalendarCell['stretches'][number];
const stretch = (from: number, to: number | null, place: number | null = null) =>
  ({ gear: 'load', place, fromMs: at(from), toMs: to === null ? null : at(to) }) as unknown as Stretch;
const cell = (id: string, stretches: Stretch[], phase: CalendarCell['phase'] = 'waiting'): CalendarCell => ({
  id,
  tag: id.toUpperCase(),
  stretches,
  phase,
  last: null,
});
const task = (
  kind: PlanTask['kind'],
  id: string,
  from: number,
  to: number,
  more: Partial<PlanTask> = {},
): PlanTask => ({
  kind,
  cell: id,
  place: null,
  round: 1,
  fromMs: at(from),
  toMs: at(to),
  state: 'planned',
  lateH: 0,
  ...more,
});
const lanes = (cells: CalendarCell[], tasks: PlanTask[], benches: number, fromMs = at(-240)) =>
  lanesOf(cells, { tasks }, { benches, nowMs: noon, fromMs, closeMs: 60_000 }).map((lane) =>
    lane.map(
      ({ tag, fromMs: from, toMs, kind }) =>
        `${tag} ${(from - noon) / hourMs}..${(toMs - noon) / hourMs} ${kind}`,
    ),
  );

describe('days of the calendar', () => {
  test('from midnight to midnight of the zone, five at the least', () => {
    const days = daysOf([], { tasks: [] }, noon, 'UTC');
    expect([new Date(days.fromMs).toISOString(), days.days]).toEqual(['2026-11-10T00:00:00.000Z', 5]);
    const west = daysOf([], { tasks: [] }, Date.parse('2026-11-10T03:00:00Z'), 'America/New_York');
    expect(new Date(west.fromMs).toISOString()).toBe('2026-11-09T05:00:00.000Z');
  });

  test('reaches from the first stretch to the last task', () => {
    const { fromMs, days } = daysOf(
      [cell('a', [stretch(-50, -30)])],
      { tasks: [task('rest', 'a', 100, 190)] },
      noon,
      'UTC',
    );
    expect([new Date(fromMs).toISOString(), days]).toEqual(['2026-11-08T00:00:00.000Z', 11]);
  });

  test('goes back no further than three weeks', () => {
    const { fromMs } = daysOf(
      [cell('a', [stretch(-2000, -1990)])],
      { tasks: [task('load', 'a', 1, 2)] },
      noon,
      'UTC',
    );
    expect(new Date(fromMs).toISOString()).toBe('2026-10-20T00:00:00.000Z');
  });

  test('where all is over the days in which it was', () => {
    const { fromMs, toMs } = daysOf([cell('a', [stretch(-1000, -900)])], { tasks: [] }, noon, 'UTC');
    expect(toMs).toBeLessThan(noon);
    expect(fromMs).toBeLessThanOrEqual(at(-1000));
  });
});

describe('lanes of the benches', () => {
  test('what was noted lies on its bench, what was not on the first that is free', () => {
    expect(
      lanes(
        [cell('a', [stretch(-40, -20, 2)]), cell('b', [stretch(-35, -25)]), cell('c', [stretch(-30, -10)])],
        [],
        2,
      ),
    ).toEqual([['B -35..-25 done', 'C -30..-10 done'], ['A -40..-20 done']]);
  });

  test('a load that is on and one that is planned are told apart; one that is still on comes from the plan alone', () => {
    expect(
      lanes(
        [cell('a', [stretch(-5, null, 1)], 'on')],
        [
          task('load', 'a', -5, 3, { place: 1, state: 'under way' }),
          task('load', 'b', 4, 9, { place: 1 }),
          task('rest', 'a', 3, 90),
        ],
        1,
      ),
    ).toEqual([['A -5..3 on', 'b 4..9 planned']]);
  });

  test('what was over before the first day is left out', () => {
    expect(lanes([cell('a', [stretch(-900, -800, 1), stretch(-20, -10, 1)])], [], 1)).toEqual([
      ['A -20..-10 done'],
    ]);
  });

  test('cells that go together are one block, as long as the longest', () => {
    expect(
      lanes(
        [cell('a', [stretch(-20, -10)]), cell('b', [stretch(-20, -8)]), cell('c', [stretch(-5, -4)])],
        [],
        0,
      ),
    ).toEqual([['all -20..-8 done', 'C -5..-4 done']]);
  });
});

describe('cells at rest', () => {
  test('rises and falls with each, and tells the most', () => {
    const { steps, most } = restingOf(
      [cell('a', [stretch(-40, -30), stretch(-20, null)], 'on'), cell('b', [stretch(-40, -25)], 'resting')],
      { tasks: [task('rest', 'b', -25, 10, { state: 'under way' })] },
      noon,
    );
    expect(steps).toEqual([
      [at(-30), 1],
      [at(-25), 2],
      [at(-20), 1],
      [at(10), 0],
    ]);
    expect(most).toBe(2);
  });

  test('a rest of which nobody knows the end lasts three days, or until now', () => {
    const end = (from: number) =>
      restingOf([cell('a', [stretch(from - 1, from)], 'resting')], { tasks: [] }, noon).steps.at(-1)![0];
    expect([end(-200) - at(-200), end(-10) - noon]).toEqual([3 * dayMs, 0]);
  });

  test('planned rests count, those under way are those of their cells', () => {
    const tasks = [task('rest', 'a', 5, 50), task('rest', 'b', 6, 50, { state: 'under way' })];
    expect(restingOf([], { tasks }, noon)).toEqual({
      steps: [
        [at(5), 1],
        [at(50), 0],
      ],
      most: 1,
    });
  });
});
