export { cable, cableDefaults, cableRules, type CableInput, type CableResult } from './cable';
export { cableAreasMm2, resistanceMOhmPerM20, resistancePerM } from './copper';
export { conductorSteps, sizeTable, type CableCriterion, type SizedCable } from './steps';
