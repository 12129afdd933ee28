import type { Gap } from '../../ground/figure';
import type { RestVerdict } from './rest-predict';

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

export const hourMs = 3.6e6;

/** By how much something is late, h. */
export const late = (dueMs: number, nowMs: number) => Math.max(0, (nowMs - dueMs) / hourMs);

/** Ages at which a resting cell is read, h: close while it moves, wide once it creeps. */
export const readAgesH = [
  0.25, 0.5, 1, 2, 3, 5, 8, 12, 18, 24, 32, 42, 54, 66, 80, 96, 120, 144, 168, 216, 264,
];

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
