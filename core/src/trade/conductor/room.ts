import { defineRoom } from '../../model/room';
import { busbar } from './busbar';
import { busbarSteps } from './busbar-step';
import { cable } from './cable';
import { cableDuty } from './duty';
import { conductorSteps } from './steps';

export const conductorRoom = defineRoom('conductor', 'protect')
  .withRules('cable', 'cable-duty', 'busbar', 'sense')
  .withSteps(...conductorSteps, ...busbarSteps)
  .withCalculator(cable)
  .withCalculator(cableDuty)
  .withCalculator(busbar);
