export { axleLoads, type AxleLoadsInput, type AxleLoadsResult, type MassChange } from './axle-loads';
export { range, type MassRuleInput, type RangeInput, type RangeResult, type RoadLoadInput } from './range';
