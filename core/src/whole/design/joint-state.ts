import { measuredBodies, type Body } from '../../trade/bonding';
import type { Design } from '../../model/document';
import { jointsOf, type Joint } from '../../trade/joints';
import type { Entry } from '../../record';

const dayMs = 86.4e6;

/** A resistance from a drop at a known current. */
export interface DropReading {
  ohm: number;
  currentA: number;
  atMs: number;
}

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

/** Where the bond of one body stands. */
export interface BondState extends Body {
  reading: DropReading | null;
}

type Slices = Pick<Design, 'joints' | 'modules' | 'strings' | 'circuits' | 'pack'>;
type Told = Pick<Entry, 'body' | 'takenAt' | 'seq'>;

/** Readings in the order of their times, each joint’s own. */
function* walked(entries: readonly Told[]) {
  const walks = entries
    .flatMap(({ body, takenAt, seq }) =>
      body.kind === 'joints' ? [{ body, atMs: Date.parse(takenAt), seq }] : [],
    )
    .sort((a, b) => a.atMs - b.atMs || a.seq - b.seq);
  for (const { body, atMs } of walks)
    for (const { joint, value } of body.joints) yield { body, atMs, joint, value };
}

const reading = (value: number, currentA: number | null, atMs: number): DropReading | null =>
  currentA === null || currentA === 0
    ? null
    : { ohm: Math.abs(value / currentA), currentA: Math.abs(currentA), atMs };

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
      state.drop = reading(value, body.currentA, atMs);
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

/** What the record says of every body’s bond. */
export function bondStates(
  design: Pick<Design, 'boxes' | 'devices' | 'circuits' | 'bonds'>,
  entries: readonly Told[],
): BondState[] {
  const states = new Map(
    measuredBodies(design).map((body): [string, BondState] => [body.id, { ...body, reading: null }]),
  );
  for (const { body, atMs, joint, value } of walked(entries)) {
    const state = states.get(joint);
    if (body.work === 'bond' && state !== undefined) state.reading = reading(value, body.currentA, atMs);
  }
  return [...states.values()];
}
