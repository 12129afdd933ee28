import { defineRoom } from '../../model/step';
import { bendCard } from './bend-card';
import { conduitFit } from './conduit-fit';
import { cutPlan } from './cut-plan';
import { pull } from './pull';
import { route } from './route';

export const routingRoom = defineRoom('routing', 'protect')
  .withRules('route', 'bend-card', 'conduit-fit', 'pull', 'cut-plan')
  .withCalculator(route)
  .withCalculator(bendCard)
  .withCalculator(conduitFit)
  .withCalculator(pull)
  .withCalculator(cutPlan);
