import './figures';
export { bondStates, type BondState } from './state';
export { bondingRoom } from './room';
export {
  bodiesOf,
  bondOhm,
  bondPath,
  defaultContactOhm,
  inConduit,
  type Body,
  type BodySlices,
} from './bodies';
export { measuredBodies } from './measured';
export {
  bondingRules,
  leastBondTestA,
  markingRules,
  measuredBondRule,
  mostBondOhm,
  sourceRules,
} from './rules';
