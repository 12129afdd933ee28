export { cable, cableDefaults, cableRules, type CableInput, type CableResult } from './cable';
export {
  conductorSteps,
  defaultMaxDropFraction,
  sizeTable,
  type CableCriterion,
  type SizedCable,
} from './steps';
export {
  busbar,
  busbarHeatPerM,
  busbarMaterials,
  busbarOhmPerM,
  metals,
  type BusbarInput,
  type BusbarMaterial,
  type BusbarResult,
} from './busbar';
export { cableDuty, type CableDutyInput, type CableDutyResult } from './duty';
export { barLengthMm, busbarSteps, defaultBarMaxC, defaultOverhangMm } from './busbar-step';
export { endRules, glandProblem, lugProblems, rankGlands, rankLugs, type CableEnd } from './ends';
