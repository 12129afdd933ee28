import { defineRoom } from '../../model/step';
import { normSteps } from './steps';
import { usualPartsStep, usualStep } from './usual-step';

export const normsRoom = defineRoom('norms', 'protect')
  .withRules('norms', 'protect')
  .withSteps(...normSteps, usualStep, usualPartsStep);
