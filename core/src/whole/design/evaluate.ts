import { rooms } from '../../rooms';
import { Evaluator, type Evaluation } from '../../model/step';
import { withContradictions } from './contradictions';
import type { Design } from '../../model/document';
import type { PartsList } from '../../model/parts';

/** Version of the computation; entries and releases carry it. */
export const coreVersion = '0.1.0';

/** Every step there is, in the order of the job. */
export const steps = rooms.flatMap((room) => room.steps);

/** An evaluator with a memory: hand it one design after another of the same job. */
export function createEvaluator(): Evaluator {
  return new Evaluator(steps, withContradictions());
}

/** Evaluates a design from nothing; rankings choose from the starter catalogue unless there is a library. */
export function evaluate(design: Design, library?: PartsList): Evaluation {
  return createEvaluator().evaluate(design, library);
}
