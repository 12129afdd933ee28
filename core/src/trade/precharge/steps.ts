import type { StepDefinition } from '../../model/step';
import { busStep } from './bus-step';
import { choiceStep } from './choice-step';
import { directStep } from './direct-step';
import { dischargeStep } from './discharge-step';
import { pathStep } from './path-step';
import { runStep } from './run-step';

export const prechargeSteps: StepDefinition[] = [
  busStep,
  pathStep,
  runStep,
  directStep,
  choiceStep,
  dischargeStep,
];
