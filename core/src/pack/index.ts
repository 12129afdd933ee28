export { cellSchema, pack, type CellData, type PackInput, type PackResult } from './pack';
