import type { Check, Figure, FigureId } from '../figure';
import type { Graph } from './graph';
import type { StepOutput } from './reader';

/** Everything that follows from a design. */
export interface Evaluation {
  figures: Record<FigureId, Figure>;
  /** By key. */
  checks: Check[];
  /** Input and result of each calculation, by `${step}:${subject}`. */
  runs: Record<string, NonNullable<StepOutput['run']>>;
}

export const emptyEvaluation = (): Evaluation => ({ figures: {}, checks: [], runs: {} });

/**
 * The last evaluation with the output of some nodes in place of what they gave before; it is left as it was.
 *
 * @param replaced what each of these gave before, by its key
 */
export function patched(
  last: Evaluation,
  replaced: ReadonlyMap<string, StepOutput>,
  graph: Graph,
): Evaluation {
  if (replaced.size === 0) return last;
  const figures = { ...last.figures };
  const runs = { ...last.runs };
  const gone = new Set<Check>();
  const come: Check[] = [];
  for (const [key, before] of replaced) {
    const now = graph.get(key)?.output;
    for (const { id } of before.figures) if (now === undefined) delete figures[id];
    if (now !== undefined && before.figures.length > 0) {
      const kept = new Set(now.figures.map(({ id }) => id));
      for (const { id } of before.figures) if (!kept.has(id)) delete figures[id];
    }
    for (const figure of now?.figures ?? []) figures[figure.id] = figure;
    for (const check of before.checks) gone.add(check);
    come.push(...(now?.checks ?? []));
    if (now?.run !== undefined) runs[key] = now.run;
    else delete runs[key];
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
