export type { Id } from './id';
export * from './circuit';
export * from './design';
export * from './joints';
export * from './pack';
export * from './vehicle';
export { differences, type Difference } from './difference';
export {
  applyOperations,
  edit,
  inverseOf,
  keysOf,
  OperationError,
  operationsMeet,
  pathsMeet,
  pointerOf,
  type Edit,
  type Operation,
} from './operations';
export { removeBond, removeBox, removeCircuit, removeDevice } from './remove';
export { danglingReferences, wasUnchecked } from './references';
export { checkDesign, type CheckedDesign } from './schema';
export { setAt, valueOf } from './place';
