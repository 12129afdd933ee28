export { Evaluator, type Evaluation } from './evaluator';
export { gapsBehind, Inputs, judge, Run, type FigureShape } from './inputs';
export type { Reader, StepDefinition, StepOutput } from './reader';
