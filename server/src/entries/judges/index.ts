import type { EntryKind } from '@torvek/core/record';
import type { Common, Judge } from '../court';
import { acceptance, type AcceptanceRequest } from './acceptance';
import { balance, type BalanceRequest } from './balance';
import { cableCut, partFitted, type CableCutRequest, type PartFittedRequest } from './built';
import { cellVoltages, type CellVoltagesRequest } from './cell-voltages';
import { correction, type CorrectionRequest } from './correction';
import { deviation, type DeviationRequest } from './deviation';
import { gate, type GateRequest } from './gate';
import { huntTry, type HuntTryRequest } from './hunt-try';
import { intake, type IntakeRequest } from './intake';
import { joints, type JointsRequest } from './joints';
import { levelled, type LevelledRequest } from './levelled';
import { note, type NoteRequest } from './note';
import { position, type PositionRequest } from './position';
import { result, type ResultRequest } from './result';
import { snag, type SnagRequest } from './snag';
import { snagGone, type SnagGoneRequest } from './snag-gone';
import {
  arrival,
  fit,
  itemState,
  remove,
  sent,
  type ArrivalRequest,
  type FitRequest,
  type ItemStateRequest,
  type RemoveRequest,
  type SentRequest,
} from './stock';
import { work, type WorkRequest } from './work';

type Requests =
  | ResultRequest
  | GateRequest
  | PositionRequest
  | IntakeRequest
  | ArrivalRequest
  | FitRequest
  | RemoveRequest
  | ItemStateRequest
  | SentRequest
  | PartFittedRequest
  | CableCutRequest
  | CellVoltagesRequest
  | BalanceRequest
  | LevelledRequest
  | JointsRequest
  | AcceptanceRequest
  | DeviationRequest
  | SnagRequest
  | SnagGoneRequest
  | WorkRequest
  | HuntTryRequest
  | NoteRequest
  | CorrectionRequest;

/** What a client sends; the server makes the entry of it. */
export type EntryRequest = Common & Requests;

/** A judge for every kind of entry there is; a kind without one does not compile. */
export const judges: { [Kind in EntryKind]: Judge<Extract<Requests, { kind: Kind }>> } = {
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
