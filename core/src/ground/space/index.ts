export { isProblem, legsOf, type Corner, type Legs, type LegsProblem, type Point } from './legs';
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
