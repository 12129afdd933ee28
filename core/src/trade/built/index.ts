export { asBuilt, takeBuilt, type AsBuilt, type BuiltDifference } from './as-built';
export { builtRoom } from './room';
export { builtChecks } from './recorded';
