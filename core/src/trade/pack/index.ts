import './figures';
export { packRoom } from './room';
export { pin, shapePack, shapeString, takeModuleOut, unpinUnused, type PackShape } from './change';
export { packLayout, readPackLayout, type PackLayout } from './layout';
export { cellSchema, ocvSchema, pack, type CellData, type PackInput, type PackResult } from './pack';
export { stringShares, type ParallelString, type StringShare } from './shares';
export {
  linksAtPack,
  packCold,
  packLowest,
  packWarm,
  resistanceFactors,
  stringResistance,
} from './source-step';
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
export {
  defaultMarginMm,
  fitModules,
  mostModules,
  type BoxRoom,
  type Fit,
  type ModuleSize,
  type Slot,
} from './fit';
export { cableWayM, shortestOrder, type Place } from './order';
export { inSeries, leadOhm, leadsOf, oneLeadOhm, standsForAll } from './lead-step';
