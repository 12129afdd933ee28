export type { Id } from './id';
export { bleedOf, type Bleed } from './bleed';
export * from './charging';
export * from './circuit';
export * from './cooling';
export * from './design';
export { defaultsOf, type Field, type FieldMore, type Fields, type Reference, type Where } from './field';
export { fieldAt, panelOfPath, stationOfPath, tagOfThing, thingOfPack, type FoundField } from './fields';
export { loopMass, occupied, partOfPiece, pieceHolds, usualCoolantKgM3, type LoopMass } from './holds';
export { feedsOfBox, heaterOfDevice, placedHeaters, type PlacedHeater } from './heaters';
export * from './joints';
export * from './looms';
export * from './low-voltage';
export * from './monitoring';
export * from './pack';
export * from './run';
export { loopsM, runGeometry, runLengths, waysAlong, type RunGeometry, type RunLengths } from './run-lengths';
export {
  conductorsOf,
  type Carrying,
  isHoseRun,
  laid,
  runMass,
  runsOfCircuit,
  type RoutedStretch,
} from './laid';
export * from './settings';
export { stations, type Station } from './stations';
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
export {
  removeDatum,
  removeBoard,
  removeBond,
  removeBox,
  removeCircuit,
  removeDevice,
  removeInlet,
  removeFromPlates,
  removeFromSensors,
  removeJoin,
  removeRun,
  removePiece,
  removeLead,
  removeLoad,
  removeLoop,
  removeColour,
  removeLoomEnd,
  removeString,
  removeWire,
} from './remove';
export {
  cutPlaces,
  danglingReferences,
  partPlaces,
  partsInUse,
  renamePart,
  wasUnchecked,
  type CutPlace,
  type PartPlace,
} from './references';
export { checkDesign, designSchema, type CheckedDesign } from './schema';
export { setAt, valueOf } from './place';
export { everyTagged } from './tagged';
