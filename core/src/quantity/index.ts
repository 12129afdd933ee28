export { formatNumber, formatQuantity, showQuantity, type Shown } from './format';
export { parseQuantity, type ParsedQuantity } from './parse';
