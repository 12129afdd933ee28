import { defineRoom } from '../../model/step';
import { pack } from './pack';
import { segments } from './segments';
import { packSteps } from './steps';

export const packRoom = defineRoom('pack', 'pack')
  .withRules('pack', 'segments')
  .withSteps(...packSteps)
  .withCalculator(pack)
  .withCalculator(segments);
