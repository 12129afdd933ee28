export { formatNumber, formatQuantity, showQuantity, type Shown } from './format';
export { parseQuantity, type ParsedQuantity } from './parse';
export {
  awgAreaMm2,
  metricChoice,
  nearestAwg,
  readAwg,
  shownIn,
  type ShownIn,
  type UnitChoice,
} from './choice';
