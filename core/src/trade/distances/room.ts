import { defineRoom } from '../../model/room';
import { distanceSteps } from './steps';

export const distancesRoom = defineRoom('distances', 'protect')
  .withRules('distances')
  .withSteps(...distanceSteps);
