import './figures';
export { normsRoom } from './room';
export { normRules } from './steps';
