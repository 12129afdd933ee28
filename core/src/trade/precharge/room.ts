import { defineRoom } from '../../model/step';
import { busDischarge } from './bus-discharge';
import { prechargeChoose } from './choose';
import { prechargeFit } from './fit';
import { precharge } from './precharge';
import { prechargeSteps } from './steps';

export const prechargeRoom = defineRoom('precharge', 'protect')
  .withRules('precharge', 'precharge-fit', 'bus-discharge')
  .withSteps(...prechargeSteps)
  .withCalculator(precharge)
  .withCalculator(prechargeChoose)
  .withCalculator(prechargeFit)
  .withCalculator(busDischarge);
