import { defineRoom } from '../../model/room';
import { airStep } from './air-step';
import { boxStep } from './box-step';
import { boxUa } from './box-ua';
import { cabinStep } from './cabin-step';
import { chargeStep, hillStep } from './demand-steps';
import { expansion } from './expansion';
import { fillStep } from './fill-step';
import { heaterStep } from './heater-step';
import { heaterAtVoltage } from './heater-at-voltage';
import { hydraulic } from './hydraulic';
import { leakTest } from './leak-test';
import { loopBalance } from './loop-balance';
import { loopStep } from './loop-step';
import { loopThermal } from './loop-thermal';
import { presentStep } from './present-step';
import { packStep } from './pack-step';
import { packThermal } from './pack-thermal';
import { plumbingStep, schoolStep } from './plumbing-step';
import { warmUp } from './warm-up';
import { clampsProcedure } from './templates/clamps';
import { coolantProcedure } from './templates/coolant';

export const coolingRoom = defineRoom('cooling', 'cool')
  .withRules(
    'cooling',
    'hydraulic',
    'loop-balance',
    'loop-thermal',
    'warm-up',
    'heater-at-voltage',
    'leak-test',
    'expansion',
  )
  .withSteps(
    hillStep,
    chargeStep,
    schoolStep,
    plumbingStep,
    loopStep,
    fillStep,
    presentStep,
    boxStep,
    heaterStep,
    airStep,
    packStep,
    cabinStep,
  )
  .withCalculator(hydraulic)
  .withCalculator(loopBalance)
  .withCalculator(loopThermal)
  .withCalculator(packThermal)
  .withCalculator(warmUp)
  .withCalculator(boxUa)
  .withCalculator(heaterAtVoltage)
  .withCalculator(leakTest)
  .withCalculator(expansion)
  .withProcedure(clampsProcedure, coolantProcedure);
