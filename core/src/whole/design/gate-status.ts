import { gates, type GateId } from '../../record';
import type { StepStatus } from './assess';
import type { Snag } from './snags';

export interface GateStatus {
  id: GateId;
  title: string;
  /** A second person confirms it before anything behind it is recorded. */
  hv: boolean;
  open: boolean;
  /** Titles of gates that are not passed yet, and snags that must be gone. */
  waitsFor: string[];
  passed: boolean;
}

/**
 * A gate opens when the gates it needs are passed and the snags that are due by it are gone.
 *
 * @param practice a reading by a stand-in counts; it measures no vehicle, and in a real job no gate is passed by it
 */
export function gateStatuses(
  statuses: readonly StepStatus[],
  snags: readonly Snag[],
  practice: boolean,
): GateStatus[] {
  const counts = ({ state, standIn }: StepStatus) => state === 'passed' && (practice || !standIn);
  const passed = new Map<string, boolean>();
  const standIns = new Map<string, number>();
  for (const { id, mayBeEmpty } of gates) {
    const own = statuses.filter(({ step }) => step.gate === id);
    passed.set(id, (own.length > 0 || mayBeEmpty) && own.every(counts));
    if (!practice) standIns.set(id, own.filter(({ state, standIn }) => state === 'passed' && standIn).length);
  }
  const say = (id: GateId) => {
    const title = gates.find((gate) => gate.id === id)!.title;
    const count = standIns.get(id) ?? 0;
    return count === 0
      ? title
      : `${title} (${count} ${count === 1 ? 'reading' : 'readings'} by a stand-in: no vehicle was measured)`;
  };
  return gates.map(({ id, title, needs, hv }, place) => {
    const due = new Set<string>(gates.slice(0, place + 1).map((gate) => gate.id));
    const waitsFor = [
      ...needs.filter((need) => passed.get(need) !== true).map(say),
      ...snags
        .filter(({ entry, gone }) => gone === null && due.has(entry.body.gate))
        .map(({ entry }) => `snag ${entry.seq} (${entry.body.what})`),
    ];
    return { id, title, hv, open: waitsFor.length === 0, waitsFor, passed: passed.get(id) === true };
  });
}
