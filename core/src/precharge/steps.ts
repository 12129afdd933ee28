import type { StepDefinition } from '../step';
import { busStep } from './bus-step';
import { directStep } from './direct-step';
import { dischargeStep } from './discharge-step';
import { choiceStep, runStep } from './run-step';

export const prechargeSteps: StepDefinition[] = [busStep, runStep, directStep, choiceStep, dischargeStep];
