export { bmsMap, type BmsMapInput, type BmsMapResult } from './bms-map';
export { faultWords, ladderCheck, type LadderCheckInput, type LadderCheckResult } from './ladder-check';
export { senseError } from './sense-error';
export { topologyCompare, type TopologyInput, type TopologyResult } from './topology-compare';
export { monitoringRoom } from './room';
