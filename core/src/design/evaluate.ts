import { bondingSteps } from '../bonding';
import { busbarSteps, conductorSteps } from '../conductor';
import { contactorSteps } from '../contactor';
import { distanceSteps } from '../distances';
import { fuseSteps } from '../fuse';
import { jointSteps } from '../joints';
import { librarySteps } from '../library';
import { networkSteps } from '../network';
import { balanceSteps } from '../balance';
import { packSteps } from '../pack';
import { prechargeSteps } from '../precharge';
import { Evaluator, type Evaluation } from '../step';
import { vehicleSteps } from '../vehicle';
import type { Design } from '../document';
import type { PartsList } from '../parts';

/** Version of the computation; entries and releases carry it. */
export const coreVersion = '0.1.0';

/** Every step there is, in the order of the job. */
export const steps = [
  ...librarySteps,
  ...vehicleSteps,
  ...packSteps,
  ...balanceSteps,
  ...networkSteps,
  ...prechargeSteps,
  ...fuseSteps,
  ...conductorSteps,
  ...busbarSteps,
  ...contactorSteps,
  ...distanceSteps,
  ...jointSteps,
  ...bondingSteps,
];

/** An evaluator with a memory: hand it one design after another of the same job. */
export function createEvaluator(): Evaluator {
  return new Evaluator(steps);
}

/** Evaluates a design from nothing; rankings choose from the starter catalogue unless there is a library. */
export function evaluate(design: Design, library?: PartsList): Evaluation {
  return createEvaluator().evaluate(design, library);
}
