import { procedureFor, type ProcedureStep } from '@torvek/core/commissioning';
import { asBuilt } from '@torvek/core/built';
import { createEvaluator } from '@torvek/core/design';
import type { Entry } from '@torvek/core/record';
import type { Design } from '@torvek/core/document';
import { starterLibrary, type Library } from '@torvek/core/library';
import type { Evaluation } from '@torvek/core/step';
import type { Job } from './jobs';

/** What follows from a job's saved design. */
export interface Evaluated {
  evaluation: Evaluation;
  procedure: ProcedureStep[];
}

type Evaluator = ReturnType<typeof createEvaluator>;
const mostKept = 8;
interface Kept extends Evaluated {
  of: string;
  library: Library;
  evaluator: Evaluator;
}

const kept = new Map<string, Kept>();

/**
 * The evaluation of a saved design, kept for the jobs used last: recording twenty results in a row evaluates once.
 * A job's evaluator stays warm over its versions.
 *
 * @param library matters to findings about parts alone: figures do not depend on it
 */
export const evaluated = (job: Job, library = starterLibrary): Evaluated =>
  keptOf(job.id, `${job.version}`, job.design, library);

export interface EvaluatedAsBuilt extends Evaluated {
  /** Up to which entry the vehicle as built differs from the design; null: it does not. */
  upTo: number | null;
}

/** The same of the vehicle as built: with the parts that were fitted and the lengths that were cut. Gates and results go by it. */
export function evaluatedAsBuilt(
  job: Job,
  entries: readonly Entry[],
  library = starterLibrary,
): EvaluatedAsBuilt {
  const { design, differences, upTo } = asBuilt(job.design, entries);
  if (differences.length === 0) return { ...evaluated(job, library), upTo: null };
  // What differs, and not how many: a correction brings an older entry back.
  const what = JSON.stringify(differences.map(({ path, built }) => [path, built]));
  const key = `${job.id} built`;
  // The vehicle as built differs in little: it begins with what is known of the design.
  const begin = () => kept.get(job.id)?.evaluator.fork() ?? createEvaluator();
  return { ...keptOf(key, `${job.version} ${what}`, design, library, begin), upTo };
}

function keptOf(
  key: string,
  of: string,
  design: Design,
  library: Library,
  begin: () => Evaluator = createEvaluator,
): Evaluated {
  const known = kept.get(key);
  if (known?.of === of && known.library === library) return known;
  const evaluator = known?.evaluator ?? begin();
  const evaluation = evaluator.evaluate(design, library);
  const fresh = { of, library, evaluator, evaluation, procedure: procedureFor(design, evaluation) };
  kept.delete(key);
  kept.set(key, fresh);
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
  kept.delete(`${job} built`);
}
