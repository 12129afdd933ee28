export * from './design';
export { differences, type Difference } from './difference';
export {
  applyOperations,
  edit,
  keysOf,
  OperationError,
  operationsMeet,
  pathsMeet,
  pointerOf,
  type Edit,
  type Operation,
} from './operations';
export { checkDesign, danglingReferences, type CheckedDesign } from './schema';
