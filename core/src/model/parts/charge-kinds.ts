/** A charger that is built in. */
export interface ChargerData {
  /** Of the mains that it is made for. */
  phases: 1 | 3;
  /** On each phase. */
  maxInputA: number;
  /** A three-phase one on a single phase; absent: it does not work there. */
  onePhaseA?: number;
  /** Share of the highest power going out, efficiency. */
  efficiency: [loadFraction: number, efficiency: number][];
  maxOutputA: number;
  minV: number;
  maxV: number;
  isolated: boolean;
  /** It trips by itself at 6 mA of DC to earth. */
  dcDetection: boolean;
  inrushA: number;
  massKg: number;
}

export interface InletData {
  /** Of the mains; 0: DC alone. */
  phases: 0 | 1 | 3;
  /** Of the mains, on each phase, and of a station; 0: none. */
  acA: number;
  dcA: number;
  maxDcV: number;
  temperatureSensors: number;
  lock: boolean;
  massKg: number;
}

/** Makes the low voltage out of the pack’s. */
export interface ConverterData {
  minV: number;
  maxV: number;
  outputV: number;
  continuousA: number;
  /** For 10 s. */
  peakA: number;
  efficiency: number;
  standbyW: number;
  massKg: number;
}

/** A breaker of the mains, with or without something that sees residual current. */
export interface BreakerData {
  ratedA: number;
  poles: 1 | 2 | 3 | 4;
  trip: 'B' | 'C' | 'D';
  breakingA: number;
  residual: 'none' | 'AC' | 'A' | 'A and 6 mA DC' | 'B';
}

export interface BatteryData {
  chemistry: 'lead' | 'LFP';
  nominalV: number;
  capacityAh: number;
  resistanceOhm: number;
  usableFraction: number;
  dischargeA: number;
  massKg: number;
}

/** A plug of looms and its counterpart. */
export interface ConnectorData {
  cavities: number;
  rows: number;
  pinA: number;
  wireMinMm2: number;
  wireMaxMm2: number;
  sealed: boolean;
  /** Its coding keeps it out of a neighbour’s socket. */
  keyed: boolean;
}

/** A wire of looms, or a cable of several. */
export interface WireData {
  areaMm2: number;
  cores: number;
  twisted: boolean;
  screened: boolean;
  outerMm: number;
  maxC: number;
  massKgPerM: number;
}

export interface RelayData {
  coilV: number;
  coilW: number;
  contactA: number;
  /** What its contact makes: lamps and motors draw several times their current at first. */
  makesA: number;
  suppressed: boolean;
}

/** A monitoring unit: reads cells by their taps. */
export interface UnitData {
  channels: number;
  /** With fewer cells it does not wake. */
  minChannels: number;
  bleedA: number;
  /** Thermistors that it reads. */
  sensors: number;
  supplyV: number;
  supplyA: number;
  /** Its link to the next parts their potentials. */
  isolatedLink: boolean;
  /** Its plugs fit its own sockets alone. */
  keyed: boolean;
  /** From measuring its cells until they are with the next of the chain. */
  passMs?: number;
  massKg: number;
}

/** By what a station and a vehicle tell each other what they can. */
export const stationLinks = ['powerline', 'CAN'] as const;

/** What answers the pilot, talks with stations, and lets charger and monitor wake. */
export interface ControllerData {
  /** The stations it talks with; `none`: the pilot of the mains alone. */
  station: 'none' | (typeof stationLinks)[number] | 'both';
  supplyMinV: number;
  supplyMaxV: number;
  /** Asleep, and awake while it charges. */
  standbyA: number;
  awakeA: number;
  /** Outputs that wake others. */
  wakes: number;
  /** Temperature sensors of the inlet that it reads. */
  sensors: number;
  lock: boolean;
  massKg: number;
}

export type ChargePartKind = 'charger' | 'inlet' | 'converter' | 'breaker' | 'controller';
export type LoomPartKind = 'battery' | 'connector' | 'wire' | 'relay' | 'unit';
