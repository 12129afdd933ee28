export { doubtAbout, judgeMeasurement, type Judgement, type JudgementOrRefusal } from './judge';
export {
  describe,
  precautions,
  type Expectation,
  type Hazard,
  type ProcedureStep,
  type StepWalk,
  type Suspect,
} from '../../model/procedure';
export { procedureFor } from './procedure';
export { faultText, withRecord } from '../../trade/monitoring';
export { suspects } from './suspects';
export { behaviours, standInNames, standInReading } from './stand-in';
export { stepsOfItem } from '../../trade/balance';
