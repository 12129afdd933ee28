export { axleLoads, type AxleLoadsInput, type AxleLoadsResult, type MassChange } from './axle-loads';
export { massBlocks, type MassBlock, type MassList } from './masses';
export { range, type MassRuleInput, type RangeInput, type RangeResult, type RoadLoadInput } from './range';
export { vehicleSteps } from './steps';
