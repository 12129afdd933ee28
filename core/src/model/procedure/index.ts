export { Builder, type NewStep } from './builder';
export { describe, nominalOf, type Expectation } from './expectation';
export { precautions, type Hazard } from './hazard';
export {
  defineTemplates,
  insulationReads,
  isStepOf,
  type Case,
  type Hypothesis,
  type Near,
  type Procedure,
  type ProcedureStep,
  type StepWalk,
  type Suspect,
  type Template,
} from './procedure';
export { slips } from './slips';
