import { defineRoom } from '../../model/room';
import { liveMap } from './live-map';
import { pathFaults } from './path-faults';
import { networkSteps } from './steps';
import { insulationProcedure } from './templates/insulation';

export const networkRoom = defineRoom('network', 'network')
  .withRules('network', 'live-map', 'path-faults')
  .withSteps(...networkSteps)
  .withCalculator(liveMap)
  .withCalculator(pathFaults)
  .withProcedure(insulationProcedure);
