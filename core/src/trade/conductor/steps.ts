import type { StepDefinition } from '../../model/step';
import { cableStep, sizesStep } from './cable-step';
import { dutyStep } from './duty-step';
import { endsStep } from './ends-step';
import { loopStep } from './loop-step';

export const conductorSteps: StepDefinition[] = [loopStep, cableStep, dutyStep, endsStep, sizesStep];
