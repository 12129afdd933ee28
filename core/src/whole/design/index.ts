export {
  assess,
  type Assessment,
  type FindingStatus,
  type Moved,
  type ResultState,
  type StepStatus,
  type AssessOptions,
} from './assess';
export { whyLapsed } from './acceptance';
export { type Walked } from './walk-status';
export { type Deviation } from './deviations';
export { type GateStatus } from './gate-status';
export { type Snag } from './snags';
export { coreVersion, createEvaluator, evaluate, steps } from './evaluate';
export { nextOf, overviewOf, type NextStep, type Overview } from './overview';
export { outlineOf, type Outline } from './outline';
export { stationOfCheck, stationOfGap } from './station';
export {
  liveMapOf,
  liveStateOf,
  openBoxBeside,
  openElements,
  storedAfter,
  sumOfPosition,
  type LiveShape,
  type LiveState,
} from './live-state';
export { everyCheck, recordChecks } from './record-checks';
