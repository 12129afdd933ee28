import { defineRoom } from '../../model/room';
import { pack } from './pack';
import { segments } from './segments';
import { stockChecks } from './recorded';
import { packSteps } from './steps';
import { coatProcedure } from './templates/coat';

export const packRoom = defineRoom('pack', 'pack')
  .withRules('pack', 'segments', 'stock')
  .withSteps(...packSteps)
  .withRecord(stockChecks)
  .withProcedure(coatProcedure)
  .withCalculator(pack)
  .withCalculator(segments);
