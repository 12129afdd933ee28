export { acCharge, type AcChargeInput, type AcChargeResult } from './ac-charge';
export { chargeCurve, type ChargeCurveInput, type ChargeCurveResult } from './charge-curve';
export { dcfcWindow, type DcfcWindowInput, type DcfcWindowResult } from './dcfc-window';
export { pilot, pilotOf } from './pilot';
export { proximity } from './proximity';
export {
  thresholdLadder,
  thresholdRoles,
  type Threshold,
  type ThresholdLadderResult,
} from './threshold-ladder';
export { chargingRoom } from './room';
