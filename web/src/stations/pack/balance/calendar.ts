import { dayStartMs, type BalanceSchedule, type CellState } from '@torvek/core/balance';
import { dayIn } from '@torvek/core/record';

const dayMs = 86.4e6;

/** What the calendar shows of a cell. */
export type CalendarCell = Pick<CellState, 'id' | 'tag' | 'stretches' | 'phase' | 'last'>;
type Tasks = Pick<BalanceSchedule, 'tasks'>;

/** Whole days of a zone, from midnight to midnight. */
export interface Days {
  fromMs: number;
  toMs: number;
  days: number;
}

/**
 * The days that the calendar shows: what was, three weeks back at the most, and what is planned; five at the least. Where
 * all is over, the days in which it was.
 */
export function daysOf(cells: readonly CalendarCell[], { tasks }: Tasks, nowMs: number, zone: string): Days {
  const startOf = (ms: number) => dayStartMs(dayIn(new Date(ms).toISOString(), zone), zone);
  const past = cells.flatMap(({ stretches }) => stretches.map(({ fromMs }) => fromMs));
  const ends = cells.flatMap(({ last, stretches }) => [last?.atMs ?? 0, stretches.at(-1)?.toMs ?? 0]);
  const future = tasks.map(({ toMs }) => toMs);
  const end = future.length === 0 && past.length > 0 ? Math.max(...ends) : Math.max(nowMs, ...future);
  const fromMs = startOf(Math.max(Math.min(end, ...past), Math.min(end, nowMs) - 21 * dayMs));
  const toMs = Math.max(startOf(end) + dayMs, fromMs + 5 * dayMs);
  return { fromMs, toMs, days: Math.round((toMs - fromMs) / dayMs) };
}

/** A time in which a cell, or all of them together, hangs on a load. */
export interface Block {
  key: string;
  cell: string;
  tag: string;
  fromMs: number;
  toMs: number;
  kind: 'done' | 'on' | 'planned';
}

/**
 * What lay, lies and will lie on each bench, a lane a bench; where no bench was noted, the first that is free then.
 *
 * @param benches 0: all cells together, in one lane
 * @param fromMs what was over before is left out
 * @param closeMs blocks that begin within this of each other are one, where all cells go together
 */
export function lanesOf(
  cells: readonly CalendarCell[],
  { tasks }: Tasks,
  {
    benches,
    nowMs,
    fromMs: sinceMs,
    closeMs,
  }: { benches: number; nowMs: number; fromMs: number; closeMs: number },
): Block[][] {
  const together = benches === 0;
  const count = Math.max(benches, 1);
  const lanes: Block[][] = Array.from({ length: count }, () => []);
  const tags = new Map(cells.map(({ id, tag }) => [id, tag]));
  const laneOf = (place: number | null, fromMs: number): Block[] => {
    if (together) return lanes[0]!;
    if (place !== null && place >= 1 && place <= count) return lanes[place - 1]!;
    return lanes.find((own) => own.every(({ toMs }) => toMs <= fromMs + closeMs / 2)) ?? lanes[0]!;
  };
  const add = (place: number | null, { cell, fromMs, toMs, kind }: Omit<Block, 'key' | 'tag'>) => {
    const own = laneOf(place, fromMs);
    const last = own.at(-1);
    if (together && last !== undefined && last.kind === kind && Math.abs(last.fromMs - fromMs) < closeMs) {
      last.toMs = Math.max(last.toMs, toMs);
      last.tag = 'all';
      return;
    }
    own.push({ key: `${cell}:${fromMs}:${kind}`, cell, tag: tags.get(cell) ?? cell, fromMs, toMs, kind });
  };
  const stretches = cells
    .flatMap(({ id, stretches: own }) => own.map((one) => ({ cell: id, ...one })))
    .filter(({ toMs }) => (toMs ?? nowMs) >= sinceMs)
    .sort((a, b) => a.fromMs - b.fromMs);
  for (const { cell, place, fromMs, toMs } of stretches)
    if (toMs !== null) add(place, { cell, fromMs, toMs, kind: 'done' });
  for (const { kind, cell, place, fromMs, toMs, state } of tasks)
    if (kind === 'load') add(place, { cell, fromMs, toMs, kind: state === 'under way' ? 'on' : 'planned' });
  return lanes;
}

/** How many cells rest from each moment on, and how many at the most. */
export function restingOf(
  cells: readonly CalendarCell[],
  { tasks }: Tasks,
  nowMs: number,
): { steps: [atMs: number, count: number][]; most: number } {
  const edges: [atMs: number, change: number][] = [];
  for (const { stretches, phase } of cells)
    stretches.forEach(({ toMs }, i) => {
      if (toMs === null) return;
      const next = stretches[i + 1]?.fromMs;
      const task = tasks.find((one) => one.kind === 'rest' && one.fromMs === toMs);
      const end = next ?? (phase === 'resting' ? (task?.toMs ?? Math.min(nowMs, toMs + 3 * dayMs)) : toMs);
      edges.push([toMs, 1], [end, -1]);
    });
  for (const { kind, state, fromMs, toMs } of tasks)
    if (kind === 'rest' && state === 'planned') edges.push([fromMs, 1], [toMs, -1]);
  edges.sort(([a], [b]) => a - b);
  let count = 0;
  let most = 0;
  const steps = edges.map(([at, change]): [number, number] => {
    count += change;
    most = Math.max(most, count);
    return [at, count];
  });
  return { steps, most };
}
