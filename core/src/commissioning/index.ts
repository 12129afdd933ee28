export { doubtAbout, judgeMeasurement, type Judgement, type JudgementOrRefusal } from './judge';
export { gateHoldsH, gates, openingOf, snagGates, type GateId, type GateOpening } from './gates';
export {
  describe,
  hvPrecautions,
  partPrecautions,
  type Expectation,
  type ProcedureStep,
} from './procedure-builder';
export { procedureFor } from './procedure';
export { suspects, type Suspect } from './suspects';
export { behaviours, standInNames, standInReading } from './stand-in';
