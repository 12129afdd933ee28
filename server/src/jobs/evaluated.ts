import { procedureFor, type ProcedureStep } from '@torvek/core/commissioning';
import { createEvaluator } from '@torvek/core/design';
import type { Evaluation } from '@torvek/core/step';
import type { Job } from './jobs';

/** What follows from a job's saved design. */
export interface Evaluated {
  evaluation: Evaluation;
  procedure: ProcedureStep[];
}

const mostKept = 8;
const kept = new Map<string, Evaluated & { of: string; evaluator: ReturnType<typeof createEvaluator> }>();

/**
 * The evaluation of a saved design, kept for the jobs used last: recording twenty results in a row evaluates once.
 * A job's evaluator stays warm over its versions.
 */
export function evaluated(job: Job): Evaluated {
  const of = `${job.version}`;
  const known = kept.get(job.id);
  if (known?.of === of) return known;
  const evaluator = known?.evaluator ?? createEvaluator();
  const evaluation = evaluator.evaluate(job.design);
  const fresh = { of, evaluator, evaluation, procedure: procedureFor(job.design, evaluation) };
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
