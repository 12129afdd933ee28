import { defineRoom } from '../../model/room';
import { ambientStep } from './ambient-step';
import { normSteps } from './steps';
import { usualStep } from './usual-step';

export const normsRoom = defineRoom('norms', 'protect')
  .withRules('norms', 'protect')
  .withSteps(...normSteps, usualStep, ambientStep);
