import { defineRoom } from '../room';
import { librarySteps } from './steps';

export const libraryRoom = defineRoom('library', 'protect')
  .withRules('library')
  .withSteps(...librarySteps);
