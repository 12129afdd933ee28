import { defineRoom } from '../../model/step';
import { acCharge } from './ac-charge';
import { chargeCurve } from './charge-curve';
import { dcfcWindow } from './dcfc-window';
import { pilot } from './pilot';
import { proximity } from './proximity';
import { thresholdLadder } from './threshold-ladder';

export const chargingRoom = defineRoom('charging', 'cool')
  .withRules('charge-curve', 'ac-charge', 'dcfc-window', 'threshold-ladder')
  .withCalculator(pilot)
  .withCalculator(proximity)
  .withCalculator(acCharge)
  .withCalculator(chargeCurve)
  .withCalculator(dcfcWindow)
  .withCalculator(thresholdLadder);
