import './figures';
export { libraryRoom } from './room';
export { differences, sayField, type Difference } from './differences';
export { makeLibrary, starterLibrary, type Library, type OwnPart } from './library';
export { readOff, type AxisMarks, type PlotMarks } from './read-off';
export { newerRevision, replacePart } from './steps';
export { checkPart, planArrivals, sameContent, type Arrival, type CheckedPart } from './take-in';
