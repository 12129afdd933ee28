import { defineRoom } from '../../model/step';
import { distanceSteps } from './steps';

export const distancesRoom = defineRoom('distances', 'protect')
  .withRules('distances')
  .withSteps(...distanceSteps);
