import type { Part, PartKey } from '../parts';
import type { CircuitItem, DeviceItem } from './circuit';
import type { Id } from './id';
import type { BondItem, JointItem, SenseMarking } from './joints';
import type { BoxItem, ModuleItem, PackSettings, StringItem } from './pack';
import type { MassItem, Vehicle } from './vehicle';

/** The current shape of the design document. */
export const designSchemaNumber = 1;

export interface Settings {
  touchLimitV?: number;
  dischargeLimitS?: number;
  insulationOhmPerV?: number;
  /** What the rule of the place asks anchors to hold, in multiples of the weight. */
  anchorG?: number;
  /** The lowest voltage that a start leaves at the coils. */
  startLowV?: number;
  /** Temperature of the coils when they have to pull in. */
  coilC?: number;
  /** The surge that the charger or the mains may let through. */
  impulseV?: number;
  /** The highest place the vehicle goes to. */
  altitudeM?: number;
  /** How thin sense leads are marked, and the colour of their sleeves. */
  senseMarking?: SenseMarking;
  sleeveColour?: string;
  /** IANA zone in which dates of this job are read. */
  zone?: string;
}

/** A design holds decisions only: nothing computed, nothing measured, nothing true merely at one moment. */
export interface Design {
  schema: number;
  vehicle: Vehicle;
  pack: PackSettings;
  settings: Settings;
  masses: Record<Id, MassItem>;
  parts: Record<PartKey, Part>;
  modules: Record<Id, ModuleItem>;
  boxes: Record<Id, BoxItem>;
  strings: Record<Id, StringItem>;
  devices: Record<Id, DeviceItem>;
  circuits: Record<Id, CircuitItem>;
  /** How joints are made, by kind. */
  joints?: Record<Id, JointItem>;
  /** By the body: a box, a device, a circuit’s conduit, or one of its own. */
  bonds?: Record<Id, BondItem>;
}

/** The id of the main circuit: there is exactly one from the start. */
export const mainCircuit: Id = 'circuit-main';

/** Every circuit: load, faults, fuse and cable are computed for each. */
export const everyCircuit = (design: Pick<Design, 'circuits'>): Id[] => Object.keys(design.circuits);

/** Circuits that have contactors, or should have: the main one always. */
export const switchedCircuits = (design: Pick<Design, 'circuits'>): Id[] =>
  everyCircuit(design).filter((id) => {
    const { role, contactor } = design.circuits[id]!;
    return role === 'main' || contactor !== undefined;
  });

/** The circuits that pre-charge the bus. */
export const mainCircuits = (design: Pick<Design, 'circuits'>): Id[] =>
  Object.keys(design.circuits).filter((id) => design.circuits[id]!.role === 'main');

/** The voltage above which live parts may not be exposed, V, where the design does not say. */
export const defaultTouchLimitV = 60;

/** What may be exposed at most, V, DC. */
export const touchLimitOf = ({ settings }: Pick<Design, 'settings'>): number =>
  settings.touchLimitV ?? defaultTouchLimitV;

/** An empty job: nothing decided, one main circuit to decide about. */
export function blankDesign(): Design {
  return {
    schema: designSchemaNumber,
    vehicle: {},
    pack: {},
    settings: {},
    masses: {},
    parts: {},
    modules: {},
    boxes: {},
    strings: {},
    devices: {},
    circuits: { [mainCircuit]: { tag: 'Main', role: 'main' } },
  };
}

export const stations = ['brief', 'pack', 'network', 'protect', 'prove', 'book'] as const;
export type Station = (typeof stations)[number];

/** Places that say how things connect. */
const networkPaths =
  /^(pack\.(combinerBox|mainsBox)|strings\.[^.]+\.(fuse|fuseAt|disconnectAt|contactor|contactorPoles|contactorsIn|ends)|circuits\.[^.]+\.(device|poles|tap|ends|box))$/;

/** What Protect asks of a device. */
const protectFields = new Set(['isolation', 'ownCutOff', 'unattended', 'activeWhileFilling']);

/** The station in which a place of the design is edited. */
export function stationOfPath(path: string): Station {
  const [head, , field] = path.split('.');
  if (head === 'vehicle' || head === 'masses') return 'brief';
  if (path === 'settings.anchorG') return 'pack';
  if (networkPaths.test(path)) return 'network';
  if (head === 'joints' || head === 'bonds') return 'protect';
  if (/^boxes\.[^.]+\.(clearanceMm|creepageMm|pollution|material)$/.test(path)) return 'protect';
  if (path.startsWith('pack.busbars') || path.startsWith('pack.string')) return 'protect';
  if (head === 'circuits' || head === 'settings') return 'protect';
  if (head === 'devices' && protectFields.has(field ?? '')) return 'protect';
  return 'pack';
}
