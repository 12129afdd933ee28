export { chargeCurve, type ChargeCurveInput, type ChargeCurveResult } from './charge-curve';
export { chargingRoom } from './room';
