import { defineRoom } from '../../model/step';
import { chargeCurve } from './charge-curve';

export const chargingRoom = defineRoom('charging', 'protect')
  .withRules('charge-curve')
  .withCalculator(chargeCurve);
