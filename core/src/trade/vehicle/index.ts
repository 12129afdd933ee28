import './figures';
export { lowVoltageW } from './accessories';
export { vehicleRoom } from './room';
export { axleLoads, type AxleLoadsInput, type AxleLoadsResult, type MassChange } from './axle-loads';
export { cycleInputs, hillS } from './cycle-step';
export { driveCycles, type DriveCycle } from './cycles';
export {
  cycleMoments,
  driveCycle,
  loadProfileOf,
  type CycleMoment,
  type DriveCycleInput,
  type DriveCycleResult,
} from './drive-cycle';
export { massBlocks, placed, type MassBlock, type MassList, type MassSlices } from './masses';
export {
  gravityMPerS2,
  range,
  type MassRuleInput,
  type RangeInput,
  type RangeResult,
  type RoadLoadInput,
} from './range';
export { coldAirKgM3 } from './winter-step';
