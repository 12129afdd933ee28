import { defineRoom } from '../../model/room';
import { balanceTime } from './balance-time';
import { intakeChecks } from './intake';
import { parallelMatch } from './parallel-match';
import { restPredict } from './rest-predict';
import { balanceSteps } from './steps';
import { intakeProcedure } from './templates/intake';

export const balanceRoom = defineRoom('balance', 'pack')
  .withRules('balance', 'intake', 'balance-time', 'parallel-match', 'rest-predict')
  .withSteps(...balanceSteps)
  .withRecord(intakeChecks)
  .withCalculator(parallelMatch)
  .withCalculator(restPredict)
  .withCalculator(balanceTime)
  .withProcedure(intakeProcedure);
