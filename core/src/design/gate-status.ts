import { gates, type GateId } from '../commissioning';
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

/** A gate opens when the gates it needs are passed and the snags that are due by it are gone. */
export function gateStatuses(statuses: readonly StepStatus[], snags: readonly Snag[]): GateStatus[] {
  const passed = new Map<string, boolean>(
    gates.map(({ id }) => {
      const own = statuses.filter(({ step }) => step.gate === id);
      return [id, own.length > 0 && own.every(({ state }) => state === 'passed')];
    }),
  );
  return gates.map(({ id, title, needs, hv }, place) => {
    const due = new Set<string>(gates.slice(0, place + 1).map((gate) => gate.id));
    const waitsFor = [
      ...needs
        .filter((need) => passed.get(need) !== true)
        .map((need) => gates.find((gate) => gate.id === need)!.title as string),
      ...snags
        .filter(({ entry, gone }) => gone === null && due.has(entry.body.gate))
        .map(({ entry }) => `snag ${entry.seq} (${entry.body.what})`),
    ];
    return { id, title, hv, open: waitsFor.length === 0, waitsFor, passed: passed.get(id) === true };
  });
}
