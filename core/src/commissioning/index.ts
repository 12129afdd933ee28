export { doubtAbout, judgeMeasurement, type Judgement, type JudgementOrRefusal } from './judge';
export {
  describe,
  gates,
  hvPrecautions,
  partPrecautions,
  procedureFor,
  type Expectation,
  type GateId,
  type ProcedureStep,
} from './procedure';
export { behaviours, standInNames, standInReading } from './stand-in';
