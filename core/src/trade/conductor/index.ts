import './figures';
export { conductorRoom } from './room';
export { cable, cableDefaults, cableRules, type CableInput, type CableResult } from './cable';
export { shortestShare } from './cable-step';
export { together, type CableCriterion, type CableFuse, type CablePlace, type Together } from './cable-place';
export { smallestFaultA, type Along } from './judge-cable';
export {
  cableNeeds,
  defaultMaxDropFraction,
  rankCables,
  sizedRules,
  sizeTable,
  type SizeChoice,
  type SizedCable,
} from './size';
export { lengthOf, waysOf, type Way } from './ways';
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
export { barLengthMm, defaultBarMaxC, defaultOverhangMm } from './busbar-step';
export { endRules, glandProblem, lugProblems, rankGlands, rankLugs, type CableEnd } from './ends';
export { cablesBetweenBoxes, type BoxWay } from './leads-said';
