import { defineRoom } from '../step';
import { jointSteps } from './steps';

export const jointsRoom = defineRoom('joints', 'protect')
  .withRules('joints')
  .withSteps(...jointSteps);
