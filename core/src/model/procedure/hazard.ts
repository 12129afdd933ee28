/** What is at hand during a step; its precautions follow from it. */
export type Hazard =
  /** A single part, below the touch limit. */
  | 'part'
  /** A single part above it. */
  | 'part-hv'
  /** A vehicle that is isolated and proved dead. */
  | 'isolated'
  /** High voltage is on: that is what the step is about. */
  | 'live'
  /** Compressed air in a vessel; nothing electric is at hand. */
  | 'pressure'
  /** The 12 or 24 V side alone. */
  | 'low-voltage';

/** Precautions where the vehicle is isolated before anything is touched. */
const isolatedPrecautions = [
  'Service disconnect out, locked off and tagged before anything is touched; wait for the bus to discharge.',
  'Prove dead with a meter that was proved on a known source before and after.',
  'Rated gloves and tools, eye protection, no jewellery; one hand where it can be done.',
  'A second person who knows the disconnect, with an extinguisher at hand. Nobody works alone.',
  'The component makers’ documents and the rules of the place come first.',
];

/** Precautions at steps for which high voltage has to be on. */
const livePrecautions = [
  'High voltage is on during this step. Leads and probes are connected before, with the bus proved dead, and rated for this voltage and category; covers are on over everything else.',
  'From then on nobody touches, plugs or moves anything; where a probe is held by hand: rated gloves, eye protection, no jewellery, one hand.',
  'A second person who knows the disconnect stands beside it, with an extinguisher at hand. Nobody works alone.',
  'Afterwards: mains open, disconnect out, locked off and tagged; wait for the bus to discharge; prove dead with a meter that was proved on a known source before and after.',
  'The component makers’ documents and the rules of the place come first.',
];

const partPrecautions = [
  'A single module can burn a tool and a hand: insulated tools, no jewellery, covers over all terminals but one.',
  'Prove the meter on a known source before and after.',
];

const highPartPrecautions = [
  'This part alone is above the touch limit and cannot be switched off: rated gloves and tools, eye protection, no jewellery, one hand, covers over all terminals but one.',
  'A second person who knows what to do, with an extinguisher at hand. Nobody works alone.',
  'Prove the meter on a known source before and after.',
  'The maker’s documents and the rules of the place come first.',
];

const pressurePrecautions = [
  'Air stores energy: eye protection, a regulator and a relief valve set to what the weakest part stands, hoses tied. Nobody bends over it while it fills.',
  'Never more than the makers of plate, radiator and hose allow.',
  'In a vehicle: high voltage isolated, locked off and proved dead with a meter that was proved on a known source before and after; no coolant near open live parts.',
];

const lowVoltagePrecautions = [
  'A low-voltage battery melts a ring or a spanner: no jewellery, insulated tools, its minus off before a fuse or wire is worked on.',
  'Brown is not orange: where both run in one box, high voltage is isolated, locked off and proved dead first, with a meter that was proved on a known source before and after.',
];

/** The usual precautions, by what is at hand. */
export const precautions: Record<Hazard, { title: string; lines: readonly string[] }> = {
  part: { title: 'Precautions', lines: partPrecautions },
  'part-hv': { title: 'This part is high voltage by itself', lines: highPartPrecautions },
  isolated: { title: 'High voltage may be at hand', lines: isolatedPrecautions },
  live: { title: 'High voltage is on during this step', lines: livePrecautions },
  pressure: { title: 'Compressed air', lines: pressurePrecautions },
  'low-voltage': { title: 'Low voltage', lines: lowVoltagePrecautions },
};
