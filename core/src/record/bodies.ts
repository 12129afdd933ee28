import type { CheckValue, Grade } from '../ground/finding';

/** A value a judgement read directly, and how far it may move before the judgement is stale. */
export interface Basis {
  figure: string;
  label: string;
  value: number;
  unit: string;
  toleranceFraction: number;
}

export type Measured =
  | {
      kind: 'value';
      value: number;
      unit: string;
      /** The instrument read beyond its range: the value is where that ends, and it was that or more. */
      over?: boolean;
    }
  | {
      kind: 'trace';
      samples: [timeS: number, voltageV: number][];
      /** The pack's own voltage just before the run, by a meter. */
      packVoltageV: number;
      unit: 'V';
    };

export type Verdict = 'pass' | 'fail';

export const instrumentKinds = ['meter', 'insulation-tester', 'scope', 'torque-wrench'] as const;
export type InstrumentKind = (typeof instrumentKinds)[number];

/** Where a measurement came from. */
export interface Instrument {
  kind: InstrumentKind;
  name: string;
  /** From the shop's register; absent when it is not registered. */
  serial?: string;
  /** Day through which its calibration holds; null: none is kept. Absent when it is not registered. */
  calibrationDue?: string | null;
  /** True when the calibration had run out on the day of the measurement. */
  overdue?: boolean;
  /** True for an instrument that ships with the product: it measures no vehicle. */
  standIn: boolean;
  /** How a stand-in was told to misbehave. */
  behaviour?: string;
}

/** A detail the judgement found beside its verdict, such as a fitted capacitance. */
export interface Detail {
  label: string;
  value: number | null;
  unit: string;
}

export interface ResultBody {
  kind: 'result';
  step: string;
  title: string;
  /** How the measurement came in. */
  entered: 'stand-in' | 'typed' | 'pasted';
  measured: Measured;
  /** The expectation in words, as it was judged against. */
  expected: string;
  verdict: Verdict;
  reasons: string[];
  details: Detail[];
  /** The entry that opened the HV gate it was taken behind. */
  confirmedBy?: number;
  remark?: string;
}

/**
 * A person takes a finding on, with a reason: for these parts, for these numbers. It lapses when a part is exchanged, a
 * number moves, or another one counts.
 */
export interface AcceptanceBody {
  kind: 'acceptance';
  check: string;
  rule: string;
  ruleVersion: number;
  grade: Grade;
  message: string;
  values: CheckValue[];
  /** Parts that were judged, by key and revision; absent in entries of format version 1. */
  parts?: string[];
  reason: string;
}

/** What stands open or closed on the vehicle now; feeds the nameplate. */
export interface PositionBody {
  kind: 'position';
  linksOut: number;
  serviceDisconnect: 'out' | 'in';
  mains: 'open' | 'closed';
  /** Ids of the elements that stand open; absent: only the three above are known. */
  open?: string[];
  /** Ids of the devices whose capacitors may hold charge since they were last live. */
  stored?: string[];
  remark?: string;
}

/** Work that was done; makes results on its subjects due again. */
export interface WorkBody {
  kind: 'work';
  what: string;
}

/** Sets an earlier entry right; the earlier one stays. */
export interface CorrectionBody {
  kind: 'correction';
  of: number;
  reason: string;
}

/** What can stand in for the second person when someone works alone. */
export const soloMeasures = ['remote watch', 'photo', 'delay', 'other'] as const;
export type SoloMeasure = (typeof soloMeasures)[number];

/**
 * An HV gate is opened: a second person confirms it, or someone alone records a concession that says what replaces
 * the witness.
 */
export interface GateBody {
  kind: 'gate';
  gate: string;
  title: string;
  /** null: the witness of the entry confirmed. */
  alone: { replacedBy: SoloMeasure[]; how: string } | null;
  /** Somebody else set the witness's password last, then: the word is only as good as that. Absent: they did. */
  witnessPassword?: { by: string; at: string };
}

/** Something that was tried after a failed result; makes results on what it touched due again. */
export interface DeviationBody {
  kind: 'deviation';
  /** The failed result. */
  of: number;
  tried: string;
  /** The suspected cause it was about. */
  cause: string | null;
  /** It cured what was seen. */
  cured: boolean;
}

/** Something provisional, with the gate by which it must be gone. */
export interface SnagBody {
  kind: 'snag';
  what: string;
  gate: string;
}

/** A snag is gone. */
export interface SnagGoneBody {
  kind: 'snag-gone';
  of: number;
  how: string;
}

/** How a module looked when it came in. */
export const looks = ['sound', 'marked', 'damaged'] as const;
export type Look = (typeof looks)[number];

/** What a module is, apart from its readings: serial number and look. The newest one of a module counts. */
export interface IntakeBody {
  kind: 'intake';
  serial: string | null;
  look: Look | null;
  remark?: string;
}

/** Voltages of single cells, read in one walk along the bench or by a logger. */
export interface CellVoltagesBody {
  kind: 'cell-voltages';
  entered: 'typed' | 'pasted' | 'logged';
  /** By cell (`${module}/cell-${number}`); hours from `takenAt`, and volts. */
  cells: { cell: string; tag: string; samples: [hours: number, voltageV: number][] }[];
  remark?: string;
}

/** What puts charge into cells, or takes it out. */
export const balanceGear = ['load', 'bleed', 'charger', 'joined'] as const;
export type BalanceGear = (typeof balanceGear)[number];

/** A load, bleed, charger or joint comes onto cells, or off them; off, their rest begins. */
export interface BalanceBody {
  kind: 'balance';
  act: 'on' | 'off';
  gear: BalanceGear;
  cells: string[];
  /** Bench, from 1. */
  place: number | null;
  /** What the plan said then. */
  recipe: Detail[];
  remark?: string;
}

/** What is done to joints and bonds in one walk: torqued, or a drop read at a known current. */
export const jointWorks = ['torque', 'drop', 'bond'] as const;
export type JointWork = (typeof jointWorks)[number];

/** A walk along joints, or along the bonds of bodies. */
export interface JointsBody {
  kind: 'joints';
  work: JointWork;
  /** That flowed while drops were read; null where it was torqued. */
  currentA: number | null;
  /** N·m when torqued, V when a drop was read. */
  joints: { joint: string; tag: string; value: number }[];
  remark?: string;
}

/** Something worth keeping: words and files. */
export interface NoteBody {
  kind: 'note';
  text: string;
}

export type EntryBody =
  | ResultBody
  | AcceptanceBody
  | PositionBody
  | WorkBody
  | CorrectionBody
  | GateBody
  | DeviationBody
  | SnagBody
  | SnagGoneBody
  | IntakeBody
  | CellVoltagesBody
  | BalanceBody
  | JointsBody
  | NoteBody;
export type EntryKind = EntryBody['kind'];
