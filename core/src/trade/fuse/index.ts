import './figures';
export { fuseRoom } from './room';
export { carryTimeS, firstUncovered, type Uncovered } from './contacts';
export {
  fuseCriteria,
  fuseNeeds,
  rankFuses,
  type DownstreamFuse,
  type FusePlace,
  type RankedFuse,
} from './choose';
export { faultCurrent, type FaultCurrentInput, type FaultCurrentResult } from './fault-current';
export { fuse, uncoveredAt, type Clearing, type FuseInput, type FuseResult } from './fuse';
export { defaultMaxClearS, faultPoints } from './limits';
export { clearingTimeS, meltBand, meltTimeS, type FuseBand } from './melting';
export { faultRange, fuseOwnCriteria, wearHorizonH } from './own-criteria';
export { fuseRules, selectiveRule, shortTimeRule } from './rules';
export { selectivity, upstreamOf, type Selectivity, type UpstreamFuse } from './selective';
export { stringLoadOf, type StringLoad } from './string-load';
export { stringRules, stringSpreadDefaults } from './strings';
