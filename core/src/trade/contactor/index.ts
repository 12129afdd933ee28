import './figures';
export { contactorRoom } from './room';
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
