import './figures';
export {
  bendCard,
  kinkOf,
  rotationsOf,
  type BendCardInput,
  type BendCardResult,
  type BendOnCard,
  type Kink,
} from './bend-card';
export { allowedFill, conduitFit, type ConduitFitInput, type ConduitFitResult } from './conduit-fit';
export { cutPlan, type CutPlanInput, type CutPlanResult } from './cut-plan';
export { pull, reversed, type Pulled, type PullInput, type PullResult, type PullSection } from './pull';
export { holdOf, type HoldAnswer } from './hold-step';
export { clipsAlong, route, type HazardLine, type RouteInput, type RouteResult } from './route';
export { routingRoom } from './room';
export { kgPerM, lainIn, leastRadiusMm, tubesOf, type Lain, type Tube } from './lain-in';
export { depthIn, pointsAlong, solidOf, type Solid } from './solids';
export { pullPerMm2, sectionsOf, tubePoints, type TubeAnswer } from './tube-step';
export { propose, type Proposal, type ProposeInput } from './propose';
export { proposeInputOf } from './propose-input';
export { taped, tapeMm, type Taped } from './taped';
export { measuredWithin } from './run-step';
export { restOfCard, springbackOf, type AsBent, type BentBend } from './as-bent';
