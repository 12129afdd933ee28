import { defineRoom } from '../../model/step';
import { chargeCurve } from './charge-curve';

export const chargingRoom = defineRoom('charging', 'cool')
  .withRules('charge-curve')
  .withCalculator(chargeCurve);
