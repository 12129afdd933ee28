import { describe, expect, test } from '@jest/globals';
import type { BalancePlan } from '../../model/document';
import { dayStartMs, firstPlannedEndMs, nextReadingMs, planDraws, WorkCalendar, type PlanCell } from '.';

const hour = 3.6e6;
const zone = 'Europe/London';
const at = (text: string) => Date.parse(text);
const waiting = (id: string): PlanCell => ({
  id,
  phase: 'waiting',
  place: null,
  sinceMs: null,
  round: 0,
  verdict: 'too early to tell',
  settledAtMs: null,
  lastReadingMs: null,
});
const resting = (id: string, since: string, change: Partial<PlanCell> = {}): PlanCell => ({
  ...waiting(id),
  phase: 'resting',
  sinceMs: at(since),
  round: 1,
  ...change,
});
const plan: BalancePlan = { drawHours: 4, restHours: 48, benches: 2, people: 1, handMinutes: 15 };

describe('hours of work', () => {
  const hours = { zone, fromH: 8, toH: 17, weekends: false };
  test('are those of the clock on the wall, also when it is set back', () => {
    // Friday 23 October in summer time, Monday 26 in winter time.
    const calendar = new WorkCalendar(hours, at('2026-10-23T06:00:00Z'));
    expect(calendar.fit(at('2026-10-23T06:00:00Z'), hour)).toBe(at('2026-10-23T07:00:00Z'));
    expect(calendar.fit(at('2026-10-23T15:30:00Z'), hour)).toBe(at('2026-10-26T08:00:00Z'));
    expect(calendar.fit(at('2026-10-23T07:00:00Z'), 10 * hour)).toBeNull();
    expect(calendar.fit(at('2026-12-24T12:00:00Z'), 0)).toBe(at('2026-12-24T12:00:00Z'));
  });
  test('of a weekend count where they are worked', () => {
    const calendar = new WorkCalendar({ ...hours, weekends: true }, at('2026-10-24T00:00:00Z'));
    expect(calendar.fit(at('2026-10-24T03:00:00Z'), hour)).toBe(at('2026-10-24T07:00:00Z'));
  });
  test('a day that is none is not a number', () => {
    expect(dayStartMs('2026-02-30', zone)).toBeNaN();
    expect(dayStartMs('soon', zone)).toBeNaN();
    expect(dayStartMs('2026-07-01', zone)).toBe(at('2026-06-30T23:00:00Z'));
  });
});

describe('the plan of draws', () => {
  const monday = at('2026-11-16T07:00:00Z');
  const cells = ['c1', 'c2', 'c3', 'c4', 'c5'].map(waiting);
  const { tasks, endMs, gaps } = planDraws(cells, plan, zone, monday);
  const loads = tasks.filter(({ kind }) => kind === 'load');

  test('each cell has one load and one rest behind it', () => {
    expect(gaps).toEqual([]);
    expect(loads.map(({ cell }) => cell).sort()).toEqual(['c1', 'c2', 'c3', 'c4', 'c5']);
    for (const load of loads) {
      const rest = tasks.find(({ kind, cell }) => kind === 'rest' && cell === load.cell)!;
      expect(rest.fromMs).toBe(load.toMs);
      expect(rest.toMs - rest.fromMs).toBe(48 * hour);
    }
    expect(endMs).toBe(Math.max(...tasks.map(({ toMs }) => toMs)));
  });

  test('no bench has two cells at once, all draws lie in hours of work, one pair of hands does one thing', () => {
    for (const place of [1, 2]) {
      const own = loads.filter((one) => one.place === place);
      for (let i = 1; i < own.length; i += 1)
        expect(own[i]!.fromMs).toBeGreaterThanOrEqual(own[i - 1]!.toMs + 0.25 * hour);
    }
    for (const { fromMs, toMs } of loads) {
      expect(new Date(fromMs).getUTCHours()).toBeGreaterThanOrEqual(8);
      expect(new Date(toMs - 1).getUTCHours()).toBeLessThan(17);
      expect(new Date(toMs).getUTCDay()).toBeGreaterThan(0);
    }
    const begins = loads.map(({ fromMs }) => fromMs).sort((a, b) => a - b);
    for (let i = 1; i < begins.length; i += 1)
      expect(begins[i]! - begins[i - 1]!).toBeGreaterThanOrEqual(0.25 * hour - 1);
  });

  test('by hand: 8:00, 15 min of hands, four hours; the second bench a quarter later', () => {
    expect(loads.slice(0, 2)).toMatchObject([
      { place: 1, fromMs: at('2026-11-16T08:15:00Z'), toMs: at('2026-11-16T12:15:00Z') },
      { place: 2, fromMs: at('2026-11-16T08:30:00Z'), toMs: at('2026-11-16T12:30:00Z') },
    ]);
    // Bench 1 is free at 12:30, but the hands take bench 2’s cell off until 12:45: on at 13:00, off at 17:00.
    expect(loads[2]).toMatchObject({ place: 1, fromMs: at('2026-11-16T13:00:00Z') });
    // Another four hours end too late; in the morning the third cell comes off first.
    expect(loads[3]).toMatchObject({ place: 2, fromMs: at('2026-11-17T08:30:00Z') });
  });

  test('what slips moves all behind it', () => {
    const tuesday = planDraws(cells, plan, zone, at('2026-11-17T10:00:00Z'));
    expect(tuesday.tasks[0]!.fromMs).toBe(at('2026-11-17T10:15:00Z'));
    expect(tuesday.endMs!).toBeGreaterThan(endMs!);
    expect(firstPlannedEndMs(['c1', 'c2', 'c3', 'c4', 'c5'], plan, zone, monday)).toBe(endMs);
  });

  test('more benches or unattended loads are never later', () => {
    const many = Array.from({ length: 30 }, (_, i) => waiting(`c${i}`));
    const ends = [1, 2, 4, 8].map((benches) => planDraws(many, { ...plan, benches }, zone, monday).endMs!);
    expect([...ends].sort((a, b) => b - a)).toEqual(ends);
    expect(planDraws(many, { ...plan, unattended: true }, zone, monday).endMs!).toBeLessThanOrEqual(ends[1]!);
  });

  test('a draw longer than the day says so, unless nobody need be there', () => {
    const long = { ...plan, drawHours: 12 };
    expect(planDraws(cells, long, zone, monday).gaps).toMatchObject([{ path: 'pack.balance.drawHours' }]);
    const alone = planDraws(cells, { ...long, unattended: true }, zone, monday);
    expect(alone.gaps).toEqual([]);
    // It cuts off at 20:15; the rest begins then.
    expect(alone.tasks.find(({ kind }) => kind === 'rest')).toMatchObject({
      fromMs: at('2026-11-16T20:15:00Z'),
    });
  });

  test('what is wrong in the plan is named', () => {
    const gapsOf = (change: BalancePlan) =>
      planDraws(cells, { ...plan, ...change }, zone, monday).gaps.map((gap) => 'path' in gap && gap.path);
    expect(gapsOf({ dayFromH: 17, dayToH: 8 })).toEqual(['pack.balance.dayToH']);
    expect(gapsOf({ startsAt: '2026-02-30' })).toEqual(['pack.balance.startsAt']);
    expect(planDraws(cells, {}, zone, monday).gaps).toMatchObject([
      { kind: 'not-given', path: 'pack.balance.drawHours' },
    ]);
  });
});

describe('cells under way', () => {
  const now = at('2026-11-18T10:00:00Z');
  test('a load that should be off is late, and its bench waits for it', () => {
    const on: PlanCell = {
      ...waiting('c1'),
      phase: 'on',
      place: 1,
      sinceMs: at('2026-11-18T04:00:00Z'),
      round: 1,
    };
    const { tasks } = planDraws([on, waiting('c2')], { ...plan, benches: 1 }, zone, now);
    expect(tasks.find(({ kind }) => kind === 'take off')).toMatchObject({ cell: 'c1', lateH: 2 });
    expect(tasks.find(({ cell, kind }) => cell === 'c2' && kind === 'load')!.fromMs).toBeGreaterThanOrEqual(
      now + 0.25 * hour,
    );
  });

  test('a rest that will end too high goes back on a bench before any new cell', () => {
    const shallow = resting('c1', '2026-11-17T10:00:00Z', {
      verdict: 'will settle too high',
      lastReadingMs: now,
    });
    const { tasks } = planDraws([waiting('c0'), shallow], { ...plan, benches: 1 }, zone, now);
    const loads = tasks.filter(({ kind }) => kind === 'load');
    expect(loads).toMatchObject([
      { cell: 'c1', round: 2 },
      { cell: 'c0', round: 1 },
    ]);
  });

  test('readings follow the ladder of ages, and one that was missed is late', () => {
    const cell = resting('c1', '2026-11-18T08:00:00Z', { lastReadingMs: at('2026-11-18T08:30:00Z') });
    expect(nextReadingMs(cell, 48 * hour)).toBe(at('2026-11-18T09:00:00Z'));
    const { tasks } = planDraws([cell], plan, zone, now);
    expect(tasks.find(({ kind }) => kind === 'read')).toMatchObject({ fromMs: now, lateH: 1 });
    // What came due at night is due in the morning, and late only from then on.
    const night = resting('c2', '2026-11-17T16:00:00Z', { lastReadingMs: at('2026-11-17T16:58:00Z') });
    expect(
      planDraws([night], plan, zone, at('2026-11-18T08:00:00Z')).tasks.find(({ kind }) => kind === 'read'),
    ).toMatchObject({ fromMs: at('2026-11-18T08:00:00Z'), lateH: 0 });
  });

  test('a known end is read once, and a rest that is over not again', () => {
    const known = resting('c1', '2026-11-18T00:00:00Z', {
      verdict: 'will settle inside',
      settledAtMs: at('2026-11-19T06:00:00Z'),
      lastReadingMs: now,
    });
    expect(nextReadingMs(known, 48 * hour)).toBe(at('2026-11-19T06:00:00Z'));
    const over = resting('c1', '2026-11-10T00:00:00Z', { lastReadingMs: at('2026-11-12T01:00:00Z') });
    expect(nextReadingMs(over, 48 * hour)).toBeNull();
  });

  test('a cell that will settle too low is raised', () => {
    const low = resting('c1', '2026-11-17T10:00:00Z', { verdict: 'will settle too low', lastReadingMs: now });
    const raise = planDraws([low], plan, zone, now).tasks.find(({ kind }) => kind === 'raise')!;
    expect(raise.toMs - raise.fromMs).toBe(0.25 * hour);
  });
});
