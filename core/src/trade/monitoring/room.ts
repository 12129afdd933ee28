import { defineRoom } from '../../model/room';
import { bmsMap } from './bms-map';
import { ladderCheck } from './ladder-check';
import { boardStep } from './board-step';
import { currentStep } from './current-step';
import { linkStep } from './link-step';
import { donorStep } from './donor-step';
import { mapStep } from './map-step';
import { orderStep } from './order-step';
import { sensorsStep } from './sensors-step';
import { spinStep } from './spin-step';
import { senseError } from './sense-error';
import { topologyCompare } from './topology-compare';
import { laddersProcedure } from './templates/ladders';
import { powerUpProcedure } from './templates/power-up';

export const monitoringRoom = defineRoom('monitoring', 'sense')
  .withRules('monitoring', 'bms-map', 'ladder-check', 'topology-compare')
  .withSteps(mapStep, linkStep, boardStep, sensorsStep, donorStep, orderStep, currentStep, spinStep)
  .withCalculator(bmsMap)
  .withCalculator(ladderCheck)
  .withCalculator(topologyCompare)
  .withCalculator(senseError)
  .withProcedure(laddersProcedure, powerUpProcedure);
