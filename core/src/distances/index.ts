export { distanceDefaults, distanceRules, distanceSteps } from './steps';
export { impulseVoltages, leastDistances, type DistanceInput, type Distances } from './tables';
