import { defineRoom } from '../../model/step';
import { bondingSteps } from './steps';
import { bondRecordChecks } from './recorded';

export const bondingRoom = defineRoom('bonding', 'protect')
  .withRules('bonding', 'marking', 'charging')
  .withSteps(...bondingSteps)
  .withRecord(bondRecordChecks);
