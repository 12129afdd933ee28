import './figures';
export { distancesRoom } from './room';
export { distanceDefaults, distanceRules } from './steps';
export { impulseVoltages, leastDistances, type DistanceInput, type Distances } from './tables';
