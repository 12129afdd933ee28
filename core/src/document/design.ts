import type { Part, PartKey } from '../parts';

/** An id: a kind prefix and ten random characters, made outside the core. */
export type Id = string;

/** The current shape of the design document. */
export const designSchemaNumber = 1;

export const cycleChoices = ['town', 'country', 'motorway', 'hill', 'burst', 'own'] as const;
export type CycleChoice = (typeof cycleChoices)[number];

/** Everything may be absent: what is not decided yet is not stored. */
export interface Vehicle {
  make?: string;
  model?: string;
  year?: number;
  wheelbaseM?: number;
  lengthM?: number;
  /** Front of the vehicle to the front axle. */
  frontOverhangM?: number;
  heightM?: number;
  wheelDiameterM?: number;
  /** Axle loads before the work, as weighed. */
  frontKg?: number;
  rearKg?: number;
  frontLimitKg?: number;
  rearLimitKg?: number;
  grossLimitKg?: number;
  whPerKmPerKg?: number;
  speedKmH?: number;
  rollingCoefficient?: number;
  dragAreaM2?: number;
  airDensityKgM3?: number;
  gradeFraction?: number;
  drivetrainEfficiency?: number;
  accessoriesW?: number;
  wantedRangeKm?: number;
  /** Speeds of a drive cycle above it are driven at it. */
  topSpeedKmH?: number;
  regenFraction?: number;
  rotatingMassFraction?: number;
  /** The drive cycle in use: one that ships, or the vehicle’s own. */
  cycle?: CycleChoice;
  ownCycle?: { tag: string; points: [timeS: number, speedKmH: number][] };
}

/** A mass that is taken out of the vehicle or put into it, apart from the battery boxes. */
export interface MassItem {
  tag: string;
  change: 'out' | 'in';
  massKg?: number;
  xM?: number;
  zM?: number;
  lengthM?: number;
  heightM?: number;
}

export interface ModuleItem {
  tag: string;
  part: PartKey;
  box?: Id;
}

export interface BoxItem {
  tag: string;
  /** Middle of the box in the vehicle frame. */
  xM?: number;
  yM?: number;
  zM?: number;
  lengthM?: number;
  widthM?: number;
  heightM?: number;
  /** Box, brackets, plates and coolant without modules. */
  emptyKg?: number;
  /** Fasteners that hold the box in the vehicle, and the force each is made for. */
  anchors?: number;
  anchorN?: number;
  accessFrom?: AccessFrom;
  vent?: Vent;
  /** Where donor links with their expansion bends are used again: middle to middle of neighbouring modules. */
  linkPitchMm?: number;
  /** The least gap through the air and along a surface between live parts, and to the box. */
  clearanceMm?: number;
  creepageMm?: number;
  /** How dirty it gets in it, and the group of what the ways lead along. */
  pollution?: PollutionDegree;
  material?: MaterialGroup;
}

/** From where hands and tools reach into a box once the vehicle is together. */
export const accessSides = ['above', 'side', 'below', 'none'] as const;
export type AccessFrom = (typeof accessSides)[number];

export const vents = ['filtered', 'open', 'none'] as const;
export type Vent = (typeof vents)[number];

/** Which poles a pair of contactors opens. */
export const polesSwitched = ['both', 'plus', 'minus', 'none'] as const;
export type Poles = (typeof polesSwitched)[number];

/** How a cable passes the walls it ends at. */
export const cableEnds = ['interlocked', 'plain', 'gland'] as const;
export type CableEnds = (typeof cableEnds)[number];

export interface StringItem {
  tag: string;
  /** In series order, from the negative end. */
  modules: Id[];
  fuse?: PartKey;
  /** The joint that the fuse takes, 1 between the first and the second module; 0 or absent: the positive end. */
  fuseAt?: number;
  /** The joint that the service disconnect takes, 1 between the first and the second module. */
  disconnectAt?: number;
  /** Contactors of this string alone. */
  contactor?: PartKey;
  contactorPoles?: Poles;
  /** Where they sit: in the box of the string's positive end, or where the strings meet. */
  contactorsIn?: 'string' | 'combiner';
  ends?: CableEnds;
}

export const deviceKinds = [
  'inverter',
  'charger',
  'dc-dc',
  'heater',
  'compressor',
  'dc-inlet',
  'insulation-monitor',
  'other',
] as const;
export type DeviceKind = (typeof deviceKinds)[number];

/** Something on the bus behind the main contactors. */
export interface DeviceItem {
  tag: string;
  kind: DeviceKind;
  minV?: number;
  maxV?: number;
  busCapacitanceF?: number;
  /** A bleed resistor inside it that is always on. */
  bleedOhm?: number;
  /** What it draws while the bus is being pre-charged, as a resistance; absent: nothing. */
  prechargeLoadOhm?: number;
  /** A heater of plain resistance: the power it is rated for, and at which voltage. */
  ratedPowerW?: number;
  ratedVoltageV?: number;
  /** An insulation monitor in it: active ones send a signal of their own into the network. */
  insulationMonitor?: 'active' | 'passive';
}

/** The kinds of parts that a circuit has one of. */
export const circuitPartKinds = ['contactor', 'resistor', 'fuse', 'cable', 'lug', 'gland'] as const;
export type CircuitPartKind = (typeof circuitPartKinds)[number];

/** By the tracking index of a material along which a creepage way leads: I from 600, II from 400, IIIa from 175, IIIb from 100. */
export const materialGroups = ['I', 'II', 'IIIa', 'IIIb'] as const;
export type MaterialGroup = (typeof materialGroups)[number];
/** How dirty the surroundings of a gap get: 1 sealed, 2 dry dirt and now and then dew, 3 dirt that conducts or often dew. */
export const pollutionDegrees = [1, 2, 3] as const;
export type PollutionDegree = (typeof pollutionDegrees)[number];

/** What takes the energy of a coil that is switched off. */
export const suppressions = ['diode', 'diode-zener', 'tvs', 'none'] as const;
export type Suppression = (typeof suppressions)[number];

/** How the contactors follow each other at a start: each alone, or one main together with the pre-charge. */
export const startSchools = ['one-by-one', 'together'] as const;
export type StartSchool = (typeof startSchools)[number];
/** What closes the second main: the bus voltage with a time limit, or a timer that looks at nothing. */
export const completions = ['voltage', 'timer'] as const;
export type Completion = (typeof completions)[number];

export type Install = 'free-air' | 'steel-conduit';

/**
 * A circuit with its chosen parts. The one with role `main` joins pack and bus through the main contactors and feeds
 * the traction inverter; a branch feeds one more device.
 */
export interface CircuitItem {
  tag: string;
  role: 'main' | 'branch';
  /** What it feeds; the main circuit, when it does not say: the first inverter that no branch feeds. */
  device?: Id;
  /** Which poles its contactors open; absent: both, when it has contactors. */
  poles?: Poles;
  /** A branch hangs before the mains, where it is live whenever the pack is, or after them. Absent: after. */
  tap?: 'before' | 'after';
  ends?: CableEnds;
  /** The box in which a branch's fuse and contactors sit; absent: that of the mains. */
  box?: Id;
  contactor?: PartKey;
  /** What takes the energy of its contactors’ coils, and the voltage it clamps at. Absent: a plain diode. */
  suppression?: Suppression;
  clampV?: number;
  resistor?: PartKey;
  fuse?: PartKey;
  cable?: PartKey;
  /** At both ends of its cable, and where the cable goes through a wall. */
  lug?: PartKey;
  gland?: PartKey;
  /** The studs that the lugs go on, M. */
  studMm?: number;
  parallel?: number;
  lengthM?: number;
  install?: Install;
  conduitInnerMm?: number;
  conduitOuterMm?: number;
  ambientC?: number;
  grouped?: number;
  fuseAmbientC?: number;
  /** Contacts, lugs and bars in the path of the far-end fault, both poles. */
  contactOhm?: number;
  maxDropFraction?: number;
  maxClearS?: number;
  thresholdFraction?: number;
  timeoutS?: number;
  wantedTimeS?: number;
  attemptsPerMinute?: number;
  /** How the contactors follow each other at a start. Absent: one by one. */
  startSchool?: StartSchool;
  /** What closes the second main. Absent: the bus voltage. */
  completion?: Completion;
  /** The bare timer, from the closed pre-charge contactor. */
  timerS?: number;
  loopResistanceOhm?: number;
  /** One period of the load, repeating. */
  loadProfile?: [durationS: number, currentA: number][];
}

/** Where cells are brought level: at full, at empty, or side by side on the bench wherever they are. */
export const balanceSchools = ['top', 'bottom', 'bench'] as const;
export type BalanceSchool = (typeof balanceSchools)[number];

/** How the cells are brought level. */
export interface BalancePlan {
  school?: BalanceSchool;
  /** Where a cell settles when it is level. */
  targetV?: number;
  toleranceV?: number;
  /** What the monitor bleeds, and for which part of the time. */
  bleedCurrentA?: number;
  bleedDutyFraction?: number;
  /** The load that draws a cell down, where it cuts off, where it comes on again, and how long it is on the cell. */
  loadOhm?: number;
  cutOffV?: number;
  engageV?: number;
  drawHours?: number;
  /** A rest of this length is over. */
  restHours?: number;
  /** Places at which cells are drawn down at once. */
  benches?: number;
  people?: number;
  /** To put a cell onto a bench, or take it off. */
  handMinutes?: number;
  /** YYYY-MM-DD in the job's zone. */
  startsAt?: string;
  dayFromH?: number;
  dayToH?: number;
  weekends?: boolean;
  /** Loads may run with nobody there. */
  unattended?: boolean;
  /** From a module to the common bars, both poles. */
  leadOhm?: number;
  /** What such a lead may carry. */
  leadLimitA?: number;
}

/** A flat bar between two studs, drilled at both ends. */
export interface BusbarItem {
  tag: string;
  /** Whose current it carries; absent: `currentA`. */
  circuit?: Id;
  currentA?: number;
  material?: 'copper' | 'aluminium';
  widthMm?: number;
  thicknessMm?: number;
  /** Stud to stud. */
  betweenMm?: number;
  /** Beyond the middle of each stud. */
  overhangMm?: number;
  holeMm?: number;
  /** Of the other end; absent: the same. */
  otherHoleMm?: number;
  /** Length of the flexible section in its middle; 0 or absent: none. */
  flexMm?: number;
  ambientC?: number;
  /** What it may reach: the stud’s, the module’s or the insulation’s limit. */
  maxC?: number;
}

export interface PackSettings {
  balance?: BalancePlan;
  busbars?: Record<Id, BusbarItem>;
  socLowFraction?: number;
  socHighFraction?: number;
  socForPeakFraction?: number;
  peakCurrentA?: number;
  /** Links of one string together. */
  linkResistanceOhm?: number;
  /** Pack resistance cold over the resistance given. */
  coldResistanceFactor?: number;
  /** Pack resistance warm over the resistance given. */
  warmResistanceFactor?: number;
  /** How far strings in parallel differ in resistance, and in charge when they are joined. */
  stringSpreadFraction?: number;
  stringSocFraction?: number;
  /** Where strings in parallel meet; absent: the box of the mains. */
  combinerBox?: Id;
  /** Where main contactors, pre-charge and bus sit; absent: the box of the first string's positive end. */
  mainsBox?: Id;
  /** Taken off each inner wall of a box, for walls, insulation and clamps. */
  boxMarginMm?: number;
}

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

/** The station in which a place of the design is edited. */
export function stationOfPath(path: string): Station {
  const [head, , field] = path.split('.');
  if (head === 'vehicle' || head === 'masses') return 'brief';
  if (path === 'settings.anchorG') return 'pack';
  if (networkPaths.test(path)) return 'network';
  if (/^boxes\.[^.]+\.(clearanceMm|creepageMm|pollution|material)$/.test(path)) return 'protect';
  if (path.startsWith('pack.busbars') || path.startsWith('pack.string')) return 'protect';
  if (head === 'circuits' || head === 'settings') return 'protect';
  if (head === 'devices' && (field === 'bleedOhm' || field === 'prechargeLoadOhm')) return 'protect';
  return 'pack';
}
