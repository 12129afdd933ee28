export {
  allFinite,
  defineCalculator,
  outOfRange,
  registered,
  type AnyCalculator,
  type Calculator,
  type CalculatorAnswer,
  type Desk,
  type Outcome,
} from './calculator';
export { openDoor, type DoorRules, type Issue, type Parsed, type Schema } from './door';
export {
  anything,
  list,
  mapOf,
  number,
  numberProblem,
  oneOf,
  orNull,
  record,
  span,
  table,
  text,
  type NumberRule,
  type TableRule,
} from './schema';
