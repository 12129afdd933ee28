export {
  adviceOf,
  criteriaChecks,
  problemsOf,
  withReplacements,
  type Criterion,
  type Judged,
} from './criteria';
export { type Evaluation } from './evaluation';
export { Evaluator } from './evaluator';
export { gapsBehind, Inputs, judge, Run, type FigureShape, type Verdict } from './inputs';
export type { Reader, SharedView, StepDefinition, StepOutput } from './reader';
