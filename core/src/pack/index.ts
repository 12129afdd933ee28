export { pin, shapePack, unpinUnused, type PackShape } from './change';
export { packLayout, type PackLayout } from './layout';
export { cellSchema, pack, type CellData, type PackInput, type PackResult } from './pack';
export { packSteps } from './steps';
export { balanceTime, type BalanceTimeInput, type BalanceTimeResult } from './balance-time';
export { parallelMatch, type ParallelMatchInput, type ParallelMatchResult } from './parallel-match';
export { segments, type Segment, type SegmentsInput, type SegmentsResult } from './segments';
