import { defineRoom } from '../../model/room';
import { axleLoads } from './axle-loads';
import { range } from './range';
import { vehicleSteps } from './steps';

export const vehicleRoom = defineRoom('vehicle', 'brief')
  .withRules('axle', 'drive-cycle', 'range', 'vehicle')
  .withSteps(...vehicleSteps)
  .withCalculator(range)
  .withCalculator(axleLoads);
