import { defineRoom } from '../../model/step';
import { balanceTime } from './balance-time';
import { parallelMatch } from './parallel-match';
import { restPredict } from './rest-predict';
import { balanceSteps } from './steps';

export const balanceRoom = defineRoom('balance', 'pack')
  .withRules('balance', 'balance-time', 'parallel-match', 'rest-predict')
  .withSteps(...balanceSteps)
  .withCalculator(parallelMatch)
  .withCalculator(restPredict)
  .withCalculator(balanceTime);
