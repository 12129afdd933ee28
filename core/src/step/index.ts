export {
  adviceOf,
  criteriaChecks,
  problemsOf,
  withReplacements,
  type Criterion,
  type Judged,
} from './criteria';
export { Evaluator, type Evaluation } from './evaluator';
export { gapsBehind, Inputs, judge, Run, type FigureShape, type Verdict } from './inputs';
export type { Reader, StepDefinition, StepOutput } from './reader';
