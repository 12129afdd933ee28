import type {
  ChargerData,
  InletData,
  ConverterData,
  BreakerData,
  ControllerData,
  BatteryData,
  ConnectorData,
  WireData,
  RelayData,
  UnitData,
} from './charge-kinds';

export * from './charge-kinds';

/** `${id}@${revision}`: the key of a part that a design pins. */
export type PartKey = string;

export type Chemistry = 'NMC' | 'LFP' | 'LMO';

/** A donor module or a loose cell (one in series, one in parallel). */
export interface ModuleData {
  chemistry: Chemistry;
  cellsInSeries: number;
  cellsInParallel: number;
  cell: {
    ocvTable: [socFraction: number, voltageV: number][];
    capacityAh: number;
    resistanceOhm: number;
    minV: number;
    maxV: number;
  };
  massKg: number;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  /** Its maker allows it to lie on its long side, to stand on its end; absent: upright alone. */
  onSide?: boolean;
  onEnd?: boolean;
  continuousA: number;
  /** For 10 s. */
  peakA: number;
  /** Into it, for long and for 10 s; absent: the maker does not say. */
  chargeA?: number;
  chargePeakA?: number;
  /** Into it for long, over its temperature; absent: the maker does not say. */
  chargeOverC?: [temperatureC: number, currentA: number][];
  /** What the thin leads inside may carry: limits what a monitor may bleed. */
  senseLeadLimitA: number;
  /** The maker's criterion, terminals to case. */
  insulationMinMOhm: number;
  /** Curve, resistance and limits are those of its chemistry, not its maker’s; absent: they are its own. */
  typical?: boolean;
}

export interface ContactorData {
  ratedVoltageV: number;
  continuousA: number;
  makeA: number;
  breakA: number;
  coilV: number;
  coilPullInA: number;
  coilHoldW: number;
  closeMs: number;
  openMs: number;
  polarised: boolean;
  /** How long contacts carry a current, rising in current; absent: the maker does not say. */
  shortTime?: [currentA: number, timeS: number][];
  /** The coil at 20 °C, pulled in; absent where the maker does not say. */
  coilOhm?: number;
  coilHenry?: number;
  pullInV?: number;
  dropOutA?: number;
  /** It holds with less than it pulls in with. */
  economiser?: boolean;
  /** It tells by a contact of its own whether the main ones are closed. */
  auxContact?: boolean;
}

export interface FuseData {
  ratedA: number;
  ratedVoltageV: number;
  breakingA: number;
  /** 0: full range. */
  minBreakingA: number;
  curve: [currentA: number, timeS: number][];
  currentToleranceFraction: number;
  arcI2tFactor: number;
  ambientDerating: [temperatureC: number, factor: number][];
}

export interface CableData {
  areaMm2: number;
  conductorDiameterMm: number;
  outerDiameterMm: number;
  conductorMaxC: number;
  insulationKmPerW: number;
  adiabaticK: number;
  massKgPerM: number;
}

export interface ResistorData {
  resistanceOhm: number;
  toleranceFraction: number;
  pulseEnergyJ: number;
  continuousW: number;
  maxVoltageV: number;
}

/** A cable lug: what it takes, where it goes. */
export interface LugData {
  /** Of the conductor that its barrel is made for. */
  areaMm2: number;
  studMm: number;
  palmWidthMm: number;
  palmThicknessMm: number;
  centreToEndMm: number;
  plating: 'tin' | 'bare copper' | 'nickel' | 'silver';
  maxC: number;
}

/** A cable gland of a box's wall. */
export interface GlandData {
  threadMm: number;
  clampMinMm: number;
  clampMaxMm: number;
  screenContact: boolean;
  maxC: number;
}

/** What parts a string by hand: a plug with a handle, or a switch. */
export interface DisconnectData {
  ratedVoltageV: number;
  continuousA: number;
  /** What it may part; 0: nothing, it is pulled without load. */
  breakA: number;
  contactOhm: number;
  /** A contact of its own opens the interlock before the main ones part. */
  interlock: boolean;
  /** No finger reaches live metal once it is out. */
  fingerproof: boolean;
}

/** A plug and its socket in a wall or at a device, both poles or one. */
export interface PlugData {
  ratedVoltageV: number;
  continuousA: number;
  /** Of the conductors that its contacts are made for. */
  areaMm2: number;
  /** Its shell meets the screen of the cable all round. */
  screenContact: boolean;
  interlock: boolean;
  fingerproof: boolean;
  maxC: number;
}

/** Two coefficients of a part that coolant flows through: kPa = a·Q + b·Q². */
interface DropData {
  kPaPerLpm: number;
  kPaPerLpm2: number;
}

export interface PumpData {
  /** From the shut-off head on; never rising. */
  curve: [flowLPerMin: number, headKPa: number][];
  supplyV: number;
  powerW: number;
  coolantMaxC: number;
  portMm: number;
  massKg: number;
}

export interface PlateData extends DropData {
  contactM2: number;
  /** From its surface to the mean of its coolant. */
  uaWPerK: number;
  /** Below this flow neither drop nor UA is as stated. */
  leastLPerMin: number;
  testKPa: number;
  volumeL: number;
  massKg: number;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

export interface RadiatorData extends DropData {
  coreWidthMm: number;
  coreHeightMm: number;
  coreDepthMm: number;
  /** At the flow of air beside it. */
  uaWPerK: number;
  uaAirKgPerS: number;
  testKPa?: number;
  volumeL: number;
  massKg: number;
}

export interface HoseData {
  innerMm: number;
  outerMm: number;
  roughnessMm: number;
  maxC: number;
  burstKPa: number;
  massKgPerM: number;
}

export interface FanData {
  airKgPerS: number;
  supplyV: number;
  powerW: number;
  massKg: number;
}

export interface HeaterData extends DropData {
  ratedW: number;
  ratedMinV: number;
  ratedMaxV: number;
  element: 'ptc' | 'resistive';
  /** Its electronics stop it below the window. */
  stopsBelow: boolean;
  massKg: number;
}

/** Over temperature, °C rising. */
export interface CoolantData {
  density: [temperatureC: number, kgPerM3: number][];
  specificHeat: [temperatureC: number, jPerKgK: number][];
  viscosity: [temperatureC: number, mPaS: number][];
  conductivity: [temperatureC: number, wPerMK: number][];
  freezesC: number;
  expansionPerK: number;
}

export type CoolingPartKind = 'pump' | 'plate' | 'radiator' | 'hose' | 'fan' | 'heater' | 'coolant';

export interface PartData {
  module: ModuleData;
  contactor: ContactorData;
  fuse: FuseData;
  cable: CableData;
  resistor: ResistorData;
  lug: LugData;
  gland: GlandData;
  disconnect: DisconnectData;
  plug: PlugData;
  pump: PumpData;
  plate: PlateData;
  radiator: RadiatorData;
  hose: HoseData;
  fan: FanData;
  heater: HeaterData;
  coolant: CoolantData;
  charger: ChargerData;
  inlet: InletData;
  converter: ConverterData;
  breaker: BreakerData;
  controller: ControllerData;
  battery: BatteryData;
  connector: ConnectorData;
  wire: WireData;
  relay: RelayData;
  unit: UnitData;
}

export type PartKind = keyof PartData;

/** A part at one revision of its data. */
export interface PartOf<Kind extends PartKind> {
  id: string;
  revision: number;
  kind: Kind;
  make: string;
  number: string;
  label: string;
  /** Where the data come from: a sheet and its issue, a measurement. */
  source?: string;
  data: PartData[Kind];
}

export type Part = { [Kind in PartKind]: PartOf<Kind> }[PartKind];

export function partKey(part: Pick<Part, 'id' | 'revision'>): PartKey {
  return `${part.id}@${part.revision}`;
}
