export { criteriaChecks, problemsOf, withReplacements, type Criterion, type Judged } from './criteria';
export { type Evaluation } from './evaluation';
export { Evaluator } from './evaluator';
export { Inputs } from './inputs';
export { adviceOf, dedupe, gapsBehind, judge, type Ranking, type Replacements, type Verdict } from './judge';
export type { Reader, SharedView, StepDefinition, StepOutput } from './reader';
export { Run, type FigureShape } from './run';
