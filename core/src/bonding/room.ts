import { defineRoom } from '../step';
import { bondingSteps } from './steps';

export const bondingRoom = defineRoom('bonding', 'protect')
  .withRules('bonding', 'marking', 'charging')
  .withSteps(...bondingSteps);
