import { defineRoom } from '../../model/room';
import { bendCard } from './bend-card';
import { conduitFit } from './conduit-fit';
import { cutPlan } from './cut-plan';
import { holdStep } from './hold-step';
import { placeStep } from './place-step';
import { pull } from './pull';
import { route } from './route';
import { routedStep } from './routed-step';
import { phasesStep } from './phases-step';
import { runStep } from './run-step';
import { signalStep } from './signal-step';
import { tubeStep } from './tube-step';
import { faceStep, openingStep, throughStep } from './wall-step';
import { routesProcedure } from './templates/routes';
import { polesProcedure } from './templates/poles';

export const routingRoom = defineRoom('routing', 'route')
  .withRules('route', 'bend-card', 'conduit-fit', 'pull', 'cut-plan', 'run', 'wall')
  .withSteps(
    runStep,
    tubeStep,
    routedStep,
    placeStep,
    holdStep,
    phasesStep,
    signalStep,
    openingStep,
    faceStep,
    throughStep,
  )
  .withCalculator(route)
  .withCalculator(bendCard)
  .withCalculator(conduitFit)
  .withCalculator(pull)
  .withCalculator(cutPlan)
  .withProcedure(routesProcedure, polesProcedure);
