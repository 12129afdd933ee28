import type { Design } from './design';
import type { Id } from './id';

/** Everything in a design that people call by a name of its own, by id; bonds are bodies only where they say so. */
export function everyTagged(design: Design): Record<Id, { tag: string }> {
  const bodies = Object.fromEntries(
    Object.entries(design.bonds ?? {}).flatMap(([id, { tag }]) => (tag === undefined ? [] : [[id, { tag }]])),
  );
  return {
    ...design.modules,
    ...design.boxes,
    ...design.strings,
    ...design.devices,
    ...design.circuits,
    ...design.joints,
    ...design.runs,
    ...design.hazards,
    ...design.zones,
    ...design.datums,
    ...design.openings,
    ...design.loops,
    ...design.joins,
    ...design.plumbing,
    ...design.standIns,
    ...design.boards,
    ...design.sensors,
    ...design.currentSensors,
    ...design.supplies,
    ...design.inlets,
    ...design.cuts,
    ...design.thresholds,
    ...design.loads,
    ...design.services,
    ...design.ends,
    ...design.bundles,
    ...design.wires,
    ...design.adapters,
    ...design.colours,
    ...design.pack.busbars,
    ...bodies,
  };
}
