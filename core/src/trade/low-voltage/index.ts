import './figures';
export { largestWireMm2 } from './feed-cable';
export { feedGroups, type FeedGroup } from './groups';
export {
  besidePins,
  colourOf,
  sameColour,
  cavityPlaces,
  continuitySheet,
  waysFrom,
  wiresByEnd,
  wireWay,
  type ContinuityLine,
  type LoomWay,
  type PinnedWire,
} from './looms';
export { lowVoltageRoom } from './room';
export { fedV, lowVoltageSystem, type LowVoltageSystem } from './system';
export { twelveVolt, type TwelveVoltInput, type TwelveVoltResult } from './twelve-volt';
export { wire12v, wireTable, type Wire12vInput, type Wire12vResult } from './wire-12v';
export { controllerLoads, type ControllerLoad } from './controller-loads';
