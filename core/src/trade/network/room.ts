import { defineRoom } from '../../model/step';
import { liveMap } from './live-map';
import { pathFaults } from './path-faults';
import { networkSteps } from './steps';

export const networkRoom = defineRoom('network', 'network')
  .withRules('network', 'live-map', 'path-faults')
  .withSteps(...networkSteps)
  .withCalculator(liveMap)
  .withCalculator(pathFaults);
