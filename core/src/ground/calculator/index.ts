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
