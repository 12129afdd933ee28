import { defineRoom } from '../../model/step';
import { boxUa } from './box-ua';
import { expansion } from './expansion';
import { heaterAtVoltage } from './heater-at-voltage';
import { hydraulic } from './hydraulic';
import { leakTest } from './leak-test';
import { loopBalance } from './loop-balance';
import { loopThermal } from './loop-thermal';
import { packThermal } from './pack-thermal';
import { warmUp } from './warm-up';

export const coolingRoom = defineRoom('cooling', 'protect')
  .withRules(
    'hydraulic',
    'loop-balance',
    'loop-thermal',
    'warm-up',
    'heater-at-voltage',
    'leak-test',
    'expansion',
  )
  .withCalculator(hydraulic)
  .withCalculator(loopBalance)
  .withCalculator(loopThermal)
  .withCalculator(packThermal)
  .withCalculator(warmUp)
  .withCalculator(boxUa)
  .withCalculator(heaterAtVoltage)
  .withCalculator(leakTest)
  .withCalculator(expansion);
