export * from './instrument';
export * from './kinds';
export { soloMeasures, type GateBody, type SoloMeasure } from './kinds/gate';
export { balanceGear, type BalanceBody, type BalanceGear } from './kinds/balance';
export { jointWorks, type JointsBody, type JointWork } from './kinds/joints';
export {
  conditions,
  looks,
  seenFields,
  seenWords,
  type Condition,
  type IntakeBody,
  type Look,
  type Seen,
} from './kinds/intake';
export { positionText, type PositionBody, type PositionSum } from './kinds/position';
export type { CableCutBody, PartFittedBody } from './kinds/built';
export type { AcceptanceBody } from './kinds/acceptance';
export type { CellVoltagesBody } from './kinds/cell-voltages';
export type { CorrectionBody } from './kinds/correction';
export type { DeviationBody } from './kinds/deviation';
export { holdFields, ladderFields, listFields, measuredText, type ResultBody } from './kinds/result';
export type { HuntTryBody } from './kinds/hunt-try';
export type { LevelledBody, LevelledSide } from './kinds/levelled';
export type { SnagBody } from './kinds/snag';
export type { SnagGoneBody } from './kinds/snag-gone';
export type { WorkBody } from './kinds/work';
export {
  itemStates,
  longestQuoted,
  mostQuoted,
  type ArrivalBody,
  type Arrived,
  type FitBody,
  type ItemState,
  type ItemStateBody,
  type Quotation,
  type Quoted,
  type RemoveBody,
  type SentBody,
} from './kinds/stock';
export {
  arrivedId,
  isModule,
  isOfItem,
  itemTemplates,
  quotedValues,
  shopShelf,
  stepParts,
  stockOf,
  type Item,
  type Stock,
} from './stock';
export { asPresent } from './stock-present';
export * from './measured';
export type * from './reports';
export type { Stands } from './kind';
export { gateHoldsH, gates, openingOf, snagGates, type Gate, type GateId, type GateOpening } from './gates';
export { dropReading, walked, type DropReading, type Told } from './walks';
export { ofKind, type EntryOf } from './of-kind';
export { dayIn, isOverdue } from './calibration';
export { checkEntry } from './check';
export * from './entry';
export { mayDo, mayWitness, roleMeaning, roles, shortestPassword, type Person, type Role } from './people';
export { entryOutcome, entryTitle, standing, standsOf, targetOf, topicOf } from './standing';
