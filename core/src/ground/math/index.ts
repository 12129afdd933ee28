export { bracket, integrate, interpolate, logSpaced, type Table } from './interpolate';
export { findRoot, minimise, type Root } from './root';
export { Pchip } from './pchip';
export { studentQuantile, studentWithin } from './student';
export { solveNetwork, type Conductance } from './star-mesh';
export * from './vector';
