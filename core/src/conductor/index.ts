export { cable, cableDefaults, cableRules, type CableInput, type CableResult } from './cable';
export { conductorSteps, sizeTable, type CableCriterion, type SizedCable } from './steps';
