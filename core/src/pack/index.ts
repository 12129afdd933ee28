export { pin, shapePack, unpinUnused, type PackShape } from './change';
export { packLayout, type PackLayout } from './layout';
export { cellSchema, pack, type CellData, type PackInput, type PackResult } from './pack';
export { packSteps } from './steps';
