import './figures';
export { boardsOf, breaksOf, harnessOf, mapInput, type SenseWire } from './map-inputs';
export { explain, type Fault, type FaultKind } from './explain-ladder';
export { bmsMap, type BmsMapInput, type BmsMapResult, type MappedBoard } from './bms-map';
export { faultWords, ladderCheck, type LadderCheckInput, type LadderCheckResult } from './ladder-check';
export { senseError } from './sense-error';
export { topologyCompare, type TopologyInput, type TopologyResult } from './topology-compare';
export { monitoringRoom } from './room';
