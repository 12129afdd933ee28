import { defineRoom } from '../../model/room';
import { acCharge } from './ac-charge';
import { branchStep, chargerStep } from './branch-step';
import { breakerStep } from './breaker-step';
import { chargeCurve } from './charge-curve';
import { cutStep } from './cut-step';
import { dcfcWindow } from './dcfc-window';
import { inletStep } from './inlet-step';
import { ladderStep } from './ladder-step';
import { pilot } from './pilot';
import { proximity } from './proximity';
import { stationStep } from './station-step';
import { supplyStep } from './supply-step';
import { thresholdLadder } from './threshold-ladder';
import { winterStep } from './winter-step';
import { chargeProcedure } from './templates/charge';

export const chargingRoom = defineRoom('charging', 'charge')
  .withRules('charge', 'charge-curve', 'ac-charge', 'dcfc-window', 'threshold-ladder')
  .withSteps(
    supplyStep,
    breakerStep,
    stationStep,
    winterStep,
    inletStep,
    cutStep,
    chargerStep,
    branchStep,
    ladderStep,
  )
  .withCalculator(pilot)
  .withCalculator(proximity)
  .withCalculator(acCharge)
  .withCalculator(chargeCurve)
  .withCalculator(dcfcWindow)
  .withCalculator(thresholdLadder)
  .withProcedure(chargeProcedure);
