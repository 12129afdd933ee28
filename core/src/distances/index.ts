export { distanceDefaults, distanceRules, distanceSteps } from './steps';
export {
  impulseVoltages,
  leastDistances,
  materialGroups,
  type DistanceInput,
  type Distances,
  type MaterialGroup,
  type PollutionDegree,
} from './tables';
