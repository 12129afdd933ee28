import { defineRoom } from '../../model/room';
import { jointSteps } from './steps';
import { jointRecordChecks } from './recorded';
import { torqueProcedure } from './templates/torque';

export const jointsRoom = defineRoom('joints', 'protect')
  .withRules('joints')
  .withSteps(...jointSteps)
  .withRecord(jointRecordChecks)
  .withProcedure(torqueProcedure);
