export { contactorCriteria, contactorNeeds, rankContactors, type ContactorPlace } from './choose';
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
export { contactorSteps } from './steps';
