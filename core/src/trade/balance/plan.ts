import type { BalancePlan } from '../../model/document';
import type { Gap } from '../../ground/figure';
import { WorkCalendar, dayStartMs, type WorkHours } from './work-hours';
import type { RestVerdict } from './rest-predict';

/** What holds where a plan does not say. */
export const planDefaults = {
  toleranceV: 0.005,
  restHours: 72,
  benches: 1,
  people: 1,
  handMinutes: 10,
  dayFromH: 8,
  dayToH: 17,
  bleedDutyFraction: 1,
} as const;

/** A cell as the planner sees it. */
export interface PlanCell {
  id: string;
  /** `on`: under load, bleed, charger, or joined. */
  phase: 'waiting' | 'on' | 'resting';
  place: number | null;
  /** Of the present phase; null while it waits. */
  sinceMs: number | null;
  /** Rounds begun. */
  round: number;
  verdict: RestVerdict;
  /** When it will be within 1 mV of where it settles; null: not known. */
  settledAtMs: number | null;
  lastReadingMs: number | null;
}

export type PlanTaskKind = 'load' | 'rest' | 'read' | 'take off' | 'raise';

export interface PlanTask {
  kind: PlanTaskKind;
  cell: string;
  /** Bench from 1; null for a rest, or a reading. */
  place: number | null;
  round: number;
  fromMs: number;
  toMs: number;
  state: 'under way' | 'planned';
  /** How long it should have been done; 0: it is not late. */
  lateH: number;
}

export interface BalanceSchedule {
  tasks: PlanTask[];
  /** When the last rest ends if every one to come ends inside; null: nothing is left, or it cannot be planned. */
  endMs: number | null;
  gaps: Gap[];
}

const hourMs = 3.6e6;

/** Ages at which a resting cell is read, h: close while it moves, wide once it creeps. */
export const readAgesH = [
  0.25, 0.5, 1, 2, 3, 5, 8, 12, 18, 24, 32, 42, 54, 66, 80, 96, 120, 144, 168, 216, 264,
];

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
  const fromH = plan.dayFromH ?? planDefaults.dayFromH;
  const toH = plan.dayToH ?? planDefaults.dayToH;
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
  const handMs = (plan.handMinutes ?? planDefaults.handMinutes) * 60_000;
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
      benches: Math.max(1, Math.round(plan.benches ?? planDefaults.benches)),
      people: Math.max(1, Math.round(plan.people ?? planDefaults.people)),
      handMs,
      drawMs,
      restMs: (plan.restHours ?? planDefaults.restHours) * hourMs,
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

const late = (dueMs: number, nowMs: number) => Math.max(0, (nowMs - dueMs) / hourMs);

/** When a resting cell is read next: at the ages of the ladder, last at the end of its rest; null: it is done. */
export function nextReadingMs(cell: PlanCell, restMs: number): number | null {
  const begun = cell.sinceMs!;
  const lastH = cell.lastReadingMs === null ? 0 : (cell.lastReadingMs - begun) / hourMs;
  const restH = restMs / hourMs;
  if (lastH >= restH) return null;
  // Once the end is known, only the end itself is worth a walk to the bench.
  const endH =
    cell.verdict === 'will settle inside' && cell.settledAtMs !== null
      ? Math.min(restH, Math.max((cell.settledAtMs - begun) / hourMs, 1))
      : restH;
  if (cell.verdict === 'will settle inside') return lastH >= endH ? null : begun + endH * hourMs;
  const next = readAgesH.find((age) => age > lastH * 1.05 + 0.01);
  return begun + Math.min(next ?? restH, restH) * hourMs;
}

/** People's hands: one connection at a time each. */
class Hands {
  /** Beginnings of what is booked, rising. */
  private readonly booked: number[] = [];

  constructor(
    private readonly calendar: WorkCalendar,
    private readonly people: number,
    private readonly handMs: number,
  ) {}

  /** A connection not before an instant, with time behind it within the same hours of work: where it begins. */
  place(notBefore: number, behindMs: number): number {
    for (let at = notBefore; ;) {
      const begins = this.calendar.fit(at, this.handMs + behindMs)!;
      const from = this.before(begins - this.handMs + 1);
      const busy = this.booked.slice(from, this.before(begins + this.handMs - 1));
      if (busy.length < this.people) {
        this.booked.splice(this.before(begins), 0, begins);
        return begins;
      }
      at = busy[0]! + this.handMs;
    }
  }

  /** How many are booked to begin before an instant. */
  private before(instant: number): number {
    let low = 0;
    let high = this.booked.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.booked[middle]! < instant) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  take(notBefore: number): number {
    return this.place(notBefore, 0);
  }
}

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
  const restMs = (plan.restHours ?? planDefaults.restHours) * hourMs;
  const calendar = new WorkCalendar(
    {
      zone,
      fromH: plan.dayFromH ?? planDefaults.dayFromH,
      toH: plan.dayToH ?? planDefaults.dayToH,
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
