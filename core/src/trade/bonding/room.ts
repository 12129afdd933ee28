import { defineRoom } from '../../model/room';
import { bondingSteps } from './steps';
import { bondRecordChecks } from './recorded';
import { bondsProcedure } from './templates/bonds';

export const bondingRoom = defineRoom('bonding', 'protect')
  .withRules('bonding', 'marking', 'charging')
  .withSteps(...bondingSteps)
  .withRecord(bondRecordChecks)
  .withProcedure(bondsProcedure);
