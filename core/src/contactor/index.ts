export { contactorNeeds, contactorProblems, rankContactors, type ContactorPlace } from './choose';
export {
  coilDefaults,
  coilOf,
  coilRules,
  decayS,
  holdCurrentA,
  pullInAtV,
  releaseMs,
  type Coil,
} from './coil';
export { carryTimeS, firstUncovered } from './short-time';
export { contactorSteps } from './steps';
