import { defineRoom } from '../../model/room';
import { pack } from './pack';
import { segments } from './segments';
import { stockChecks } from './recorded';
import { packSteps } from './steps';

export const packRoom = defineRoom('pack', 'pack')
  .withRules('pack', 'segments', 'stock')
  .withSteps(...packSteps)
  .withRecord(stockChecks)
  .withCalculator(pack)
  .withCalculator(segments);
