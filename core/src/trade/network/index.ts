import './figures';
export { networkRoom } from './room';
export { elementKinds, type ElementKind, type NetworkElement } from './elements';
export {
  liveMap,
  type LiveMapInput,
  type LiveMapResult,
  type LiveState,
  type LiveTerminal,
} from './live-map';
export { pathFaults, type PathFaultsInput, type PathFaultsResult } from './path-faults';
export { deriveNetwork } from './derive';
export { deviceLoad, type DeviceLoad } from './device-load';
export { feedingCircuit, mainDevice, onMainBus, placesOf, switches, type NetworkSlices } from './feeding';
export {
  outsideReach,
  type DerivedElement,
  type Network,
  type NetworkLine,
  type NetworkSymbol,
  type SymbolKind,
} from './network-builder';
export { canOpen, linksLeftOut, stageIds, stagesOf, storedAtMost, type Stage, type StageId } from './stages';
