import { procedureFor, type ProcedureStep } from '@torvek/core/commissioning';
import { createEvaluator } from '@torvek/core/design';
import { starterLibrary, type Library } from '@torvek/core/library';
import type { Evaluation } from '@torvek/core/step';
import type { Job } from './jobs';

/** What follows from a job's saved design. */
export interface Evaluated {
  evaluation: Evaluation;
  procedure: ProcedureStep[];
}

const mostKept = 8;
interface Kept extends Evaluated {
  of: string;
  library: Library;
  evaluator: ReturnType<typeof createEvaluator>;
}

const kept = new Map<string, Kept>();

/**
 * The evaluation of a saved design, kept for the jobs used last: recording twenty results in a row evaluates once.
 * A job's evaluator stays warm over its versions.
 *
 * @param library matters to findings about parts alone: figures do not depend on it
 */
export function evaluated(job: Job, library = starterLibrary): Evaluated {
  const of = `${job.version}`;
  const known = kept.get(job.id);
  if (known?.of === of && known.library === library) return known;
  const evaluator = known?.evaluator ?? createEvaluator();
  const evaluation = evaluator.evaluate(job.design, library);
  const fresh = { of, library, evaluator, evaluation, procedure: procedureFor(job.design, evaluation) };
  kept.delete(job.id);
  kept.set(job.id, fresh);
  const oldest = kept.keys().next().value;
  if (kept.size > mostKept && oldest !== undefined) kept.delete(oldest);
  return fresh;
}

/** Forgets all: the data was replaced. */
export function forgetEvaluations(): void {
  kept.clear();
}

/** Forgets a job: a version of it was not kept after all. */
export function forgetEvaluation(job: string): void {
  kept.delete(job);
}
