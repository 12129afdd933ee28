import { defineRoom } from '../../model/step';
import { jointSteps } from './steps';

export const jointsRoom = defineRoom('joints', 'protect')
  .withRules('joints')
  .withSteps(...jointSteps);
