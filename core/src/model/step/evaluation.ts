import type { Check, Figure, FigureId, RunId } from '../../ground/figure';
import type { Node } from './graph';
import type { StepOutput } from './reader';

/** Everything that follows from a design. */
export interface Evaluation {
  figures: Record<FigureId, Figure>;
  /** By key. */
  checks: Check[];
  /** Input and result of each calculation, by `${step}:${subject}`. */
  runs: Record<RunId, NonNullable<StepOutput['run']>>;
}

export const emptyEvaluation = (): Evaluation => ({ figures: {}, checks: [], runs: {} });

/**
 * The last evaluation with the output of some nodes in place of what they gave before; it is left as it was.
 *
 * @param replaced the nodes, with what each gave before
 */
export function patched(last: Evaluation, replaced: ReadonlyMap<Node, StepOutput>): Evaluation {
  if (replaced.size === 0) return last;
  const figures = { ...last.figures };
  const runs = { ...last.runs };
  const gone = new Set<Check>();
  const come: Check[] = [];
  for (const [{ key, output }, before] of replaced) {
    before.figures.forEach(({ id }, i) => {
      // A step nearly always gives the same figures in the same order.
      if (output.figures[i]?.id !== id) delete figures[id];
    });
    for (const figure of output.figures) figures[figure.id] = figure;
    for (const check of before.checks) gone.add(check);
    for (const check of output.checks) come.push(check);
    // Only a step’s own node has a run.
    if (output.run !== undefined) runs[key as RunId] = output.run;
    else if (before.run !== undefined) delete runs[key as RunId];
  }
  return { figures, checks: merged(last.checks, gone, come.sort(byKey)), runs };
}

const byKey = (a: Check, b: Check) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0);

/** Two sorted lists as one, without what is gone of the first. */
function merged(kept: readonly Check[], gone: ReadonlySet<Check>, come: readonly Check[]): Check[] {
  const all: Check[] = [];
  let next = 0;
  for (const check of kept) {
    if (gone.has(check)) continue;
    while (next < come.length && byKey(come[next]!, check) < 0) all.push(come[next++]!);
    all.push(check);
  }
  for (; next < come.length; next += 1) all.push(come[next]!);
  return all;
}
