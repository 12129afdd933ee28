import { defineRoom } from '../../model/step';
import { contactorSteps } from './steps';

export const contactorRoom = defineRoom('contactor', 'protect')
  .withRules('contactor', 'disconnect', 'plug')
  .withSteps(...contactorSteps);
