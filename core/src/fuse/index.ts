export { faultCurrent, type FaultCurrentInput, type FaultCurrentResult } from './fault-current';
export { fuse, fuseRules, type FuseInput, type FuseResult } from './fuse';
export { clearingTimeS, meltBand, meltTimeS, type FuseBand } from './melting';
export { fuseSteps, type RankedFuse } from './steps';
