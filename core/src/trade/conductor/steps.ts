import type { StepDefinition } from '../../model/step';
import { cableStep, sizesStep } from './cable-step';
import { dutyStep } from './duty-step';
import { endsStep } from './ends-step';
import { leadFaultStep, packLeadStep } from './lead-step';
import { leadsSaidStep } from './leads-said';
import { senseStep } from './sense-step';
import { loopStep } from './loop-step';

export const conductorSteps: StepDefinition[] = [
  loopStep,
  cableStep,
  dutyStep,
  endsStep,
  sizesStep,
  packLeadStep,
  leadFaultStep,
  leadsSaidStep,
  senseStep,
];
