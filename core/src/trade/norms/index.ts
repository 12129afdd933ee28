import './figures';
export { rulesByStation } from './by-station';
export { normsRoom } from './room';
export { normRules } from './steps';
