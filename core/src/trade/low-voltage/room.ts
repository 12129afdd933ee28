import { defineRoom } from '../../model/room';
import { adapterStep, colourStep } from './adapter-step';
import { budgetStep } from './budget-step';
import { controllerStep } from './controller-step';
import { coilsStep } from './coils-step';
import { fedStep, feedingStep, heaterFedStep } from './fed-step';
import { groupStep } from './group-step';
import { loadStep } from './load-step';
import { bundleStep, endStep } from './end-step';
import { sourceStep } from './source-step';
import { serviceStep } from './service-step';
import { twelveVolt } from './twelve-volt';
import { wire12v } from './wire-12v';
import { wireStep } from './wire-step';
import { underLoadProcedure } from './templates/under-load';

export const lowVoltageRoom = defineRoom('low-voltage', 'charge')
  .withRules('low-voltage', 'looms', 'twelve-volt', 'wire-12v')
  .withSteps(
    budgetStep,
    sourceStep,
    loadStep,
    groupStep,
    serviceStep,
    fedStep,
    heaterFedStep,
    coilsStep,
    feedingStep,
    wireStep,
    endStep,
    bundleStep,
    controllerStep,
    adapterStep,
    colourStep,
  )
  .withCalculator(twelveVolt)
  .withCalculator(wire12v)
  .withProcedure(underLoadProcedure);
