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
export { isProblem, legsOf, type Corner, type Legs, type Point } from './legs';
export {
  filleted,
  nearestTo,
  pointAt,
  pointOf,
  type Nearest,
  type Path,
  type Piece,
  type ShortLeg,
} from './fillet';
export { pull, reversed, type Pulled, type PullInput, type PullResult, type PullSection } from './pull';
export { clipsAlong, route, type HazardLine, type RouteInput, type RouteResult } from './route';
export { routingRoom } from './room';
