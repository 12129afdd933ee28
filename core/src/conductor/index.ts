export { cable, cableDefaults, cableRules, type CableInput, type CableResult } from './cable';
export { cableAreasMm2, resistanceMOhmPerM20, resistancePerM } from './copper';
export { conductorSteps, type CableCriterion, type SizedCable } from './steps';
