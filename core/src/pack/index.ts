export { pin, shapePack, unpinUnused, type PackShape } from './change';
export { packLayout, type PackLayout } from './layout';
export { cellSchema, pack, type CellData, type PackInput, type PackResult } from './pack';
export { packSteps } from './steps';
export { balanceTime, type BalanceTimeInput, type BalanceTimeResult } from './balance-time';
export { leastBatch, medianOf, outlierScore, scoreBatch, type BatchScores } from './outliers';
export { parallelMatch, type ParallelMatchInput, type ParallelMatchResult } from './parallel-match';
export {
  restCurve,
  restPredict,
  type RestPredictInput,
  type RestPredictResult,
  type RestVerdict,
} from './rest-predict';
export { segments, type Segment, type SegmentsInput, type SegmentsResult } from './segments';
export {
  arrange,
  rankOf,
  type ArrangeInput,
  type Arrangement,
  type ArrangeProgress,
  type ArrangeResult,
} from './arrange';
export {
  arrangeInputOf,
  boxContents,
  stringWay,
  takeArrangement,
  type BoxContent,
  type StringWay,
} from './arrangement';
export { defaultMarginMm, fitModules, type BoxRoom, type Fit, type ModuleSize, type Slot } from './fit';
export { cableWayM, shortestOrder, type Place } from './order';
export { matchInputOf, matchSides, type MatchLimit, type MatchSide } from './match';
