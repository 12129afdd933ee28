import { defineRoom } from '../../model/room';
import { faultCurrent } from './fault-current';
import { fuse } from './fuse';
import { fuseSteps } from './steps';

export const fuseRoom = defineRoom('fuse', 'protect')
  .withRules('fuse', 'strings')
  .withSteps(...fuseSteps)
  .withCalculator(fuse)
  .withCalculator(faultCurrent);
