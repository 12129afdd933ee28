import type { KindOfEntry } from '../kind';
import { acceptance, type AcceptanceBody } from './acceptance';
import { balance, type BalanceBody } from './balance';
import { cableCut, partFitted, type CableCutBody, type PartFittedBody } from './built';
import { cellVoltages, type CellVoltagesBody } from './cell-voltages';
import { correction, type CorrectionBody } from './correction';
import { deviation, type DeviationBody } from './deviation';
import { gate, type GateBody } from './gate';
import { huntTry, type HuntTryBody } from './hunt-try';
import { intake, type IntakeBody } from './intake';
import { joints, type JointsBody } from './joints';
import { levelled, type LevelledBody } from './levelled';
import { note, type NoteBody } from './note';
import { position, type PositionBody } from './position';
import { result, type ResultBody } from './result';
import { snag, type SnagBody } from './snag';
import { snagGone, type SnagGoneBody } from './snag-gone';
import {
  arrival,
  fit,
  itemState,
  remove,
  sent,
  type ArrivalBody,
  type FitBody,
  type ItemStateBody,
  type RemoveBody,
  type SentBody,
} from './stock';
import { work, type WorkBody } from './work';

export type EntryBody =
  | ResultBody
  | GateBody
  | PositionBody
  | IntakeBody
  | ArrivalBody
  | FitBody
  | RemoveBody
  | ItemStateBody
  | SentBody
  | PartFittedBody
  | CableCutBody
  | CellVoltagesBody
  | BalanceBody
  | LevelledBody
  | JointsBody
  | AcceptanceBody
  | DeviationBody
  | SnagBody
  | SnagGoneBody
  | WorkBody
  | HuntTryBody
  | NoteBody
  | CorrectionBody;
export type EntryKind = EntryBody['kind'];

/** Every kind of entry there is, in the order Book offers them. */
export const entryKinds: { [Kind in EntryKind]: KindOfEntry<Extract<EntryBody, { kind: Kind }>> } = {
  result,
  gate,
  position,
  intake,
  arrival,
  fit,
  remove,
  'item-state': itemState,
  sent,
  'part-fitted': partFitted,
  'cable-cut': cableCut,
  'cell-voltages': cellVoltages,
  balance,
  levelled,
  joints,
  acceptance,
  deviation,
  snag,
  'snag-gone': snagGone,
  work,
  'hunt-try': huntTry,
  note,
  correction,
};
