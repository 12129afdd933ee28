import type { MatchSide } from '@torvek/core/balance';
import { ofKind, type Entry, type LevelledBody } from '@torvek/core/record';

/** What is known of a side's voltage: the sum of its modules at intake, or what it was brought to since. */
export interface KnownVoltage {
  voltageV: number;
  from: 'intake' | 'levelled';
  /** When the oldest of it was read, ISO 8601. */
  takenAt: string;
}

/**
 * The newest that the record says of a side; null: a module of it was never measured, and it was never brought level.
 *
 * @param intakeOf the standing intake voltage of a module
 * @param present entries that count now
 */
export function knownVoltage(
  side: MatchSide,
  intakeOf: (module: string) => { voltageV: number; takenAt: string } | null,
  present: readonly Entry[],
): KnownVoltage | null {
  const intake = side.modules.map(intakeOf);
  const oldest = intake.reduce<string | null>(
    (first, one) => (one === null ? first : first === null || one.takenAt < first ? one.takenAt : first),
    null,
  );
  const sum =
    oldest === null || intake.includes(null)
      ? null
      : {
          voltageV: intake.reduce((total, one) => total + one!.voltageV, 0),
          from: 'intake' as const,
          takenAt: oldest,
        };
  const newestIntake = intake.reduce(
    (last, one) => (one !== null && one.takenAt > last ? one.takenAt : last),
    '',
  );
  const last = lastLevelled(side.id, present);
  const after = last?.body.sides.find(({ id }) => id === side.id);
  // A module that was measured since says more than what the whole was brought to.
  if (last === null || after === undefined || last.takenAt < newestIntake) return sum;
  return { voltageV: after.afterV, from: 'levelled', takenAt: last.takenAt };
}

/** The newest levelling of a side, with whichever other one. */
export const lastLevelled = (side: string, present: readonly Entry[]) =>
  ofKind<LevelledBody>(present, 'levelled')
    .filter(({ body }) => body.sides.some(({ id }) => id === side))
    .reduce<{ body: LevelledBody; takenAt: string; seq: number } | null>(
      (last, one) => (last === null || one.takenAt >= last.takenAt ? one : last),
      null,
    );
