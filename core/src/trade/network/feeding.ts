import { mainCircuit, type Design, type Id } from '../../model/document';

/** What of a design the network follows from. */
export type NetworkSlices = Pick<
  Design,
  'pack' | 'boxes' | 'strings' | 'modules' | 'devices' | 'circuits' | 'parts'
>;

/** Where things sit that the design need not name. */
export interface Places {
  /** null: no box is known; then they are drawn outside the boxes. */
  mainsBox: Id | null;
  combinerBox: Id | null;
}

export function placesOf(design: NetworkSlices): Places {
  const first = Object.values(design.strings).find(({ modules }) => modules.length > 0);
  const last = first === undefined ? undefined : design.modules[first.modules.at(-1)!];
  const mainsBox = design.pack.mainsBox ?? last?.box ?? null;
  return { mainsBox, combinerBox: design.pack.combinerBox ?? mainsBox };
}

/** The circuit that feeds a device: the one that names it, or the main circuit for the first free inverter. */
export function feedingCircuit(design: Pick<Design, 'circuits' | 'devices'>, device: Id): Id | null {
  for (const [id, circuit] of Object.entries(design.circuits)) if (circuit.device === device) return id;
  return mainDevice(design) === device ? mainCircuit : null;
}

/** What the main circuit feeds. */
export function mainDevice(design: Pick<Design, 'circuits' | 'devices'>): Id | null {
  const main = design.circuits[mainCircuit];
  if (main?.device !== undefined) return main.device;
  const taken = new Set(Object.values(design.circuits).map(({ device }) => device));
  return (
    Object.entries(design.devices).find(([id, { kind }]) => kind === 'inverter' && !taken.has(id))?.[0] ??
    null
  );
}

/**
 * The devices whose capacitors fill through the main pre-charge: all but those on a branch before the mains or behind
 * contactors of their own. A device that no circuit feeds yet counts, for it will hang on the bus.
 */
export function onMainBus(design: Pick<Design, 'circuits' | 'devices'>): Id[] {
  return Object.keys(design.devices).filter((id) => {
    const circuit = design.circuits[feedingCircuit(design, id) ?? ''];
    if (circuit === undefined || circuit.role === 'main') return true;
    return circuit.tap !== 'before' && !switches(circuit);
  });
}

/** Whether a circuit has contactors. */
export const switches = ({ contactor, poles }: { contactor?: string; poles?: string }) =>
  poles === undefined ? contactor !== undefined : poles !== 'none';
