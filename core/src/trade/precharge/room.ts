import { defineRoom } from '../../model/room';
import { busDischarge } from './bus-discharge';
import { prechargeChoose } from './choose';
import { prechargeFit } from './fit';
import { precharge } from './precharge';
import { prechargeSteps } from './steps';
import { partsProcedure } from './templates/parts';
import { firstHvProcedure } from './templates/first-hv';

export const prechargeRoom = defineRoom('precharge', 'protect')
  .withRules('precharge', 'precharge-fit', 'bus-discharge')
  .withSteps(...prechargeSteps)
  .withCalculator(precharge)
  .withCalculator(prechargeChoose)
  .withCalculator(prechargeFit)
  .withCalculator(busDischarge)
  .withProcedure(partsProcedure, firstHvProcedure);
