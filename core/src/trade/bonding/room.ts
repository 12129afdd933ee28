import { defineRoom } from '../../model/step';
import { bondingSteps } from './steps';

export const bondingRoom = defineRoom('bonding', 'protect')
  .withRules('bonding', 'marking', 'charging')
  .withSteps(...bondingSteps);
