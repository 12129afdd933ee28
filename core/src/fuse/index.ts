export { faultCurrent, type FaultCurrentInput, type FaultCurrentResult } from './fault-current';
export { fuseRules } from './rules';
export { faultPoints, fuse, uncoveredAt, type Clearing, type FuseInput, type FuseResult } from './fuse';
export { clearingTimeS, meltBand, meltTimeS, type FuseBand } from './melting';
export { fuseSteps, rankFuses, type RankedFuse } from './steps';
export { selectivity, upstreamOf, type Selectivity, type UpstreamFuse } from './selective';
export { stringRules, stringSpreadDefaults } from './strings';
