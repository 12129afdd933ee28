import { balanceDefaults, type BalancePlan } from '../../model/document';
import {
  hourMs,
  late,
  type BalanceSchedule,
  type PlanCell,
  type PlanTask,
  type PlanTaskKind,
} from './plan-pieces';
import { WorkCalendar, dayStartMs } from './work-hours';

/**
 * The plan where all cells bleed, or stand joined, at once: on for the hours they need, then a rest, with one reading
 * at its end.
 *
 * @param hours until all are level; null: not computed
 */
export function planTogether(
  cells: readonly PlanCell[],
  hours: number | null,
  plan: BalancePlan,
  zone: string,
  nowMs: number,
): BalanceSchedule {
  if (cells.length === 0) return { tasks: [], endMs: null, gaps: [] };
  const start = plan.startsAt === undefined ? nowMs : dayStartMs(plan.startsAt, zone);
  const fromMs = Math.max(nowMs, Number.isNaN(start) ? nowMs : start);
  const restMs = (plan.restHours ?? balanceDefaults.restHours) * hourMs;
  const calendar = new WorkCalendar(
    {
      zone,
      fromH: plan.dayFromH ?? balanceDefaults.dayFromH,
      toH: plan.dayToH ?? balanceDefaults.dayToH,
      weekends: plan.weekends ?? false,
    },
    fromMs,
  );
  const tasks: PlanTask[] = [];
  const task = (
    kind: PlanTaskKind,
    cell: PlanCell,
    from: number,
    to: number,
    change: Partial<PlanTask> = {},
  ) =>
    tasks.push({
      kind,
      cell: cell.id,
      place: null,
      round: cell.round,
      fromMs: from,
      toMs: to,
      state: 'planned',
      lateH: 0,
      ...change,
    });
  const on = cells.filter(({ phase }) => phase === 'on');
  const resting = cells.filter(({ phase }) => phase === 'resting');
  const waiting = cells.filter(({ phase }) => phase === 'waiting');
  for (const cell of on) {
    const due = hours === null ? null : cell.sinceMs! + hours * hourMs;
    task('load', cell, cell.sinceMs!, Math.max(due ?? nowMs, nowMs), { state: 'under way' });
    if (due === null) continue;
    const off = calendar.fit(Math.max(due, nowMs), 0) ?? due;
    task('take off', cell, off, off, { lateH: late(due, nowMs) });
    task('rest', cell, off, off + restMs);
  }
  for (const cell of resting) {
    const over = cell.sinceMs! + restMs;
    if (cell.lastReadingMs !== null && cell.lastReadingMs >= over) continue;
    task('rest', cell, cell.sinceMs!, over, { state: 'under way' });
    const at = calendar.fit(Math.max(over, nowMs), 0) ?? over;
    task('read', cell, at, at, { lateH: late(over, nowMs) });
  }
  if (waiting.length > 0 && hours !== null) {
    const begins = calendar.fit(fromMs, 0) ?? fromMs;
    for (const cell of waiting) {
      task('load', cell, begins, begins + hours * hourMs, { round: cell.round + 1 });
      task('rest', cell, begins + hours * hourMs, begins + hours * hourMs + restMs, {
        round: cell.round + 1,
      });
    }
  }
  const ends = tasks.map(({ toMs }) => toMs);
  return { tasks, endMs: ends.length === 0 ? null : Math.max(...ends), gaps: [] };
}
