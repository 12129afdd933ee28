export {
  assess,
  positionText,
  type Assessment,
  type EntryOf,
  type FindingStatus,
  type GateStatus,
  type Moved,
  type ResultState,
  type StepStatus,
} from './assess';
export { coreVersion, createEvaluator, evaluate, steps } from './evaluate';
export { stationOfCheck, stationOfGap } from './station';
