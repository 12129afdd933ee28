import { defineRoom } from '../step';
import { librarySteps } from './steps';

export const libraryRoom = defineRoom('library', 'protect')
  .withRules('library')
  .withSteps(...librarySteps);
