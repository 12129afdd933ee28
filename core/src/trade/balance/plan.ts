import type { Gap } from '../../ground/figure';
import { balanceDefaults, type BalancePlan } from '../../model/document';
import { Hands } from './hands';
import {
  hourMs,
  late,
  nextReadingMs,
  type BalanceSchedule,
  type PlanCell,
  type PlanTask,
} from './plan-pieces';
import { WorkCalendar, dayStartMs, type WorkHours } from './work-hours';

interface Rules {
  benches: number;
  people: number;
  handMs: number;
  drawMs: number;
  restMs: number;
  startMs: number;
  unattended: boolean;
  hours: WorkHours;
}

function rulesFor(plan: BalancePlan, zone: string, nowMs: number): { rules: Rules | null; gaps: Gap[] } {
  const gaps: Gap[] = [];
  if (plan.drawHours === undefined)
    gaps.push({ kind: 'not-given', path: 'pack.balance.drawHours', label: 'hours under the load' });
  const fromH = plan.dayFromH ?? balanceDefaults.dayFromH;
  const toH = plan.dayToH ?? balanceDefaults.dayToH;
  if (!(toH > fromH))
    gaps.push({
      kind: 'invalid',
      path: 'pack.balance.dayToH',
      label: 'end of the day',
      message: 'must be after its beginning',
    });
  const start = plan.startsAt === undefined ? nowMs : dayStartMs(plan.startsAt, zone);
  if (Number.isNaN(start))
    gaps.push({
      kind: 'invalid',
      path: 'pack.balance.startsAt',
      label: 'first day',
      message: 'is no day',
    });
  const handMs = (plan.handMinutes ?? balanceDefaults.handMinutes) * 60_000;
  const drawMs = (plan.drawHours ?? 0) * hourMs;
  const unattended = plan.unattended ?? false;
  if (!unattended && toH > fromH && drawMs + handMs > (toH - fromH) * hourMs)
    gaps.push({
      kind: 'invalid',
      path: 'pack.balance.drawHours',
      label: 'hours under the load',
      message: `and ${handMs / 60_000} min by hand do not fit into a day from ${fromH} to ${toH} h; a longer day, shorter draws, or loads that may run with nobody there`,
    });
  if (gaps.length > 0) return { rules: null, gaps };
  return {
    rules: {
      benches: Math.max(1, Math.round(plan.benches ?? balanceDefaults.benches)),
      people: Math.max(1, Math.round(plan.people ?? balanceDefaults.people)),
      handMs,
      drawMs,
      restMs: (plan.restHours ?? balanceDefaults.restHours) * hourMs,
      startMs: start,
      unattended,
      hours: { zone, fromH, toH, weekends: plan.weekends ?? false },
    },
    gaps,
  };
}

/**
 * Plans what is left of drawing cells down and letting them rest, over benches and people, from now on: what did not
 * happen when it should have moves, and all behind it.
 *
 * @param cells in the order in which they should be drawn
 * @param nowMs the present, ms since 1970
 */
export function planDraws(
  cells: readonly PlanCell[],
  plan: BalancePlan,
  zone: string,
  nowMs: number,
): BalanceSchedule {
  const { rules, gaps } = rulesFor(plan, zone, nowMs);
  if (rules === null) return { tasks: [], endMs: null, gaps };
  const from = Math.max(nowMs, rules.startMs);
  const calendar = new WorkCalendar(rules.hours, from);
  const hands = new Hands(calendar, rules.people, rules.handMs);
  const past = new WorkCalendar(
    rules.hours,
    Math.min(nowMs, ...cells.map(({ sinceMs }) => sinceMs ?? nowMs)),
  );
  const benches = new Array<number>(rules.benches).fill(from);
  const tasks: PlanTask[] = [];
  let endMs: number | null = null;
  const ends = (at: number) => (endMs = Math.max(endMs ?? 0, at));
  const rest = (cell: PlanCell, round: number, begins: number, state: PlanTask['state']) => {
    const toMs = begins + rules.restMs;
    tasks.push({ kind: 'rest', cell: cell.id, place: null, round, fromMs: begins, toMs, state, lateH: 0 });
    ends(toMs);
  };

  for (const cell of cells) {
    if (cell.phase === 'on') {
      const due = cell.sinceMs! + rules.drawMs;
      const off = calendar.fit(Math.max(due, nowMs), 0)!;
      tasks.push({
        kind: 'load',
        cell: cell.id,
        place: cell.place,
        round: cell.round,
        fromMs: cell.sinceMs!,
        toMs: Math.max(due, nowMs),
        state: 'under way',
        lateH: 0,
      });
      tasks.push({
        kind: 'take off',
        cell: cell.id,
        place: cell.place,
        round: cell.round,
        fromMs: rules.unattended ? off : due,
        toMs: off + rules.handMs,
        state: 'planned',
        lateH: late(due, nowMs),
      });
      if (cell.place !== null && cell.place <= benches.length) benches[cell.place - 1] = off + rules.handMs;
      rest(cell, cell.round, Math.max(due, nowMs), 'planned');
    } else if (cell.phase === 'resting' && cell.verdict !== 'will settle too high') {
      const begun = cell.sinceMs!;
      const over = begun + rules.restMs;
      if (over > nowMs || cell.verdict === 'too early to tell') rest(cell, cell.round, begun, 'under way');
      if (cell.verdict === 'will settle too low') {
        const fromMs = hands.take(nowMs);
        const toMs = fromMs + rules.handMs;
        const { round } = cell;
        tasks.push({
          kind: 'raise',
          cell: cell.id,
          place: null,
          round,
          fromMs,
          toMs,
          state: 'planned',
          lateH: 0,
        });
      }
      const due = nextReadingMs(cell, rules.restMs);
      if (due !== null) {
        const at = calendar.fit(Math.max(due, nowMs), 0)!;
        tasks.push({
          kind: 'read',
          cell: cell.id,
          place: null,
          round: cell.round,
          fromMs: at,
          toMs: at,
          state: 'planned',
          // What came due while nobody was there is not late before they are.
          lateH: late(past.fit(due, 0)!, nowMs),
        });
      }
    }
  }
  const again = cells.filter((one) => one.phase === 'resting' && one.verdict === 'will settle too high');
  const waiting = cells.filter(({ phase }) => phase === 'waiting');
  // Shallow rounds go first: their next rest is what the batch would wait for.
  for (const cell of [...again, ...waiting]) {
    const place = benches.indexOf(Math.min(...benches));
    const begins = hands.place(benches[place]!, rules.unattended ? 0 : rules.drawMs);
    const fromMs = begins + rules.handMs;
    const toMs = fromMs + rules.drawMs;
    benches[place] = hands.take(toMs) + rules.handMs;
    const round = cell.round + 1;
    tasks.push({
      kind: 'load',
      cell: cell.id,
      place: place + 1,
      round,
      fromMs,
      toMs,
      state: 'planned',
      lateH: 0,
    });
    rest(cell, round, toMs, 'planned');
  }
  return { tasks: tasks.sort((a, b) => a.fromMs - b.fromMs || (a.cell < b.cell ? -1 : 1)), endMs, gaps: [] };
}

/** When a whole batch would be level if it were begun on its first day and nothing slipped; null: it cannot be planned. */
export function firstPlannedEndMs(
  cells: readonly string[],
  plan: BalancePlan,
  zone: string,
  startMs: number,
): number | null {
  const fresh = cells.map((id): PlanCell => ({
    id,
    phase: 'waiting',
    place: null,
    sinceMs: null,
    round: 0,
    verdict: 'too early to tell',
    settledAtMs: null,
    lastReadingMs: null,
  }));
  const { startsAt: _ignored, ...rest } = plan;
  return planDraws(fresh, rest, zone, startMs).endMs;
}
