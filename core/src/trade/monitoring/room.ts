import { defineRoom } from '../../model/step';
import { bmsMap } from './bms-map';
import { ladderCheck } from './ladder-check';
import { senseError } from './sense-error';
import { topologyCompare } from './topology-compare';

export const monitoringRoom = defineRoom('monitoring', 'protect')
  .withRules('bms-map', 'ladder-check', 'topology-compare')
  .withCalculator(bmsMap)
  .withCalculator(ladderCheck)
  .withCalculator(topologyCompare)
  .withCalculator(senseError);
