import { defineRoom } from '../../model/room';
import { contactorSteps } from './steps';
import { coilsProcedure } from './templates/coils';

export const contactorRoom = defineRoom('contactor', 'protect')
  .withRules('contactor', 'disconnect', 'plug')
  .withSteps(...contactorSteps)
  .withProcedure(coilsProcedure);
