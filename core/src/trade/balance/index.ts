import './figures';
export { balanceStates, type BalanceStretch, type CellState } from './state';
export { balanceRoom } from './room';
export { balanceTime, type BalanceTimeInput, type BalanceTimeResult } from './balance-time';
export {
  benchParallel,
  type BenchJoin,
  type BenchModule,
  type BenchParallelInput,
  type BenchParallelResult,
} from './bench-parallel';
export { balanceCells, moduleOfCell, type BalanceCell } from './cells';
export { chooseLoad, drawDown, type DrawDown, type DrawDownInput, type LoadChoice } from './draw-down';
export { groupModules, type Grouping, type GroupModule, type GroupWay, type ModuleGroup } from './group';
export { matchInputOf, matchSides, type MatchLimit, type MatchSide } from './match';
export {
  intakeQuantities,
  intakeReadings,
  lossOutlier,
  ownLoss,
  scoreIntake,
  shortestWaitH,
  type IntakeQuantity,
  type IntakeReadings,
  type OwnLoss,
} from './intake';
export {
  leastBatch,
  medianOf,
  outlierScore,
  scoreBatch,
  type BatchScores,
  type OutlierRule,
} from './outliers';
export { leastSamples, outlookOf, type LevelTarget, type Outlook } from './outlook';
export { parallelMatch, type ParallelMatchInput, type ParallelMatchResult } from './parallel-match';
export { firstPlannedEndMs, planDraws } from './plan';
export { nextReadingMs, type BalanceSchedule, type PlanCell, type PlanTask } from './plan-pieces';
export { planTogether } from './plan-together';
export { leastPilots, recipeOf, type Pilot, type Recipe, type RecipeOutcome } from './recipe';
export {
  restCurve,
  restPredict,
  type RestPredictInput,
  type RestPredictResult,
  type RestVerdict,
} from './rest-predict';
export { schools, type School } from './schools';
export { dayStartMs, WorkCalendar, type WorkHours } from './work-hours';
export { chooseSet, type Candidate, type ChosenSet } from './choose-set';
export { intoString, type IntoString, type IntoStringInput } from './into-string';
export { stepsOfItem } from './templates/intake';
