import { defineRoom } from '../../model/step';
import { jointSteps } from './steps';
import { jointRecordChecks } from './recorded';

export const jointsRoom = defineRoom('joints', 'protect')
  .withRules('joints')
  .withSteps(...jointSteps)
  .withRecord(jointRecordChecks);
