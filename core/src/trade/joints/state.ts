import type { Design } from '../../model/document';
import { dropReading, walked, type DropReading, type Told } from '../../record';
import { jointsOf, type Joint } from './list';

const dayMs = 86.4e6;

/** Where one joint stands. */
export interface JointState extends Joint {
  /** Newest torque first tightened, and how often it was. */
  torque: { torqueNm: number; atMs: number; firstMs: number; times: number } | null;
  drop: DropReading | null;
  /** It was torqued after its drop was read. */
  dropStale: boolean;
  /** When it is to be torqued again, ms since 1970; null: not set, not torqued yet, or done. */
  dueMs: number | null;
}

type Slices = Pick<Design, 'joints' | 'modules' | 'strings' | 'circuits' | 'pack'>;

/**
 * What the record says of every joint: how and when it was torqued, what its drop says of its resistance, when it is to
 * be torqued again.
 *
 * @param entries those that count; the time of the act decides
 */
export function jointStates(design: Slices, entries: readonly Told[]): JointState[] {
  const states = new Map(
    jointsOf(design).map((joint): [string, JointState] => [
      joint.id,
      { ...joint, torque: null, drop: null, dropStale: false, dueMs: null },
    ]),
  );
  for (const { body, atMs, joint, value } of walked(entries)) {
    const state = states.get(joint);
    if (state === undefined) continue;
    if (body.work === 'torque') {
      state.torque = {
        torqueNm: value,
        atMs,
        firstMs: state.torque?.firstMs ?? atMs,
        times: (state.torque?.times ?? 0) + 1,
      };
      state.dropStale = state.drop !== null;
    } else if (body.work === 'drop') {
      state.drop = dropReading(value, body.currentA, atMs);
      state.dropStale = false;
    }
  }
  for (const state of states.values()) {
    const days = design.joints?.[state.kind ?? '']?.retorqueDays;
    if (days !== undefined && days > 0 && state.torque?.times === 1)
      state.dueMs = state.torque.firstMs + days * dayMs;
  }
  return [...states.values()];
}
