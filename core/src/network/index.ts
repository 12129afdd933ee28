export { networkSteps } from './steps';
export { elementKinds, type ElementKind, type NetworkElement } from './elements';
export {
  liveMap,
  type LiveMapInput,
  type LiveMapResult,
  type LiveState,
  type LiveTerminal,
} from './live-map';
export { pathFaults, type PathFaultsInput, type PathFaultsResult } from './path-faults';
