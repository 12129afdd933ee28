export { networkSteps } from './steps';
