export {
  bodiesOf,
  bondOhm,
  bondPath,
  defaultContactOhm,
  inConduit,
  type Body,
  type BodySlices,
} from './bodies';
export { bondingRules, markingRules, mostBondOhm, sourceRules } from './rules';
export { bondingSteps } from './steps';
