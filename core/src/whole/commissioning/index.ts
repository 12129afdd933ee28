export { doubtAbout, judgeMeasurement, type Judgement, type JudgementOrRefusal } from './judge';
export {
  describe,
  precautions,
  type Expectation,
  type Hazard,
  type ProcedureStep,
  type StepWalk,
} from './procedure-builder';
export { procedureFor } from './procedure';
export { withRecord } from './procedure-power-up';
export { faultText } from './procedure-sense';
export { suspects, type Suspect } from './suspects';
export { behaviours, standInNames, standInReading } from './stand-in';
export { stepsOfItem } from './procedure-intake';
