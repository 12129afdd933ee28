import { asBuilt } from '@torvek/core/built';
import { assess, createEvaluator, everyCheck, liveStateOf, type Assessment } from '@torvek/core/design';
import { procedureFor, type ProcedureStep } from '@torvek/core/commissioning';
import type { Design } from '@torvek/core/document';
import type { PartsList } from '@torvek/core/parts';
import type { Evaluation } from '@torvek/core/step';
import { useNow } from '@vueuse/core';
import { computed, type Ref } from 'vue';
import type { RecordedEntry } from './types';

/** What follows from a design and its record, as designed and as built: figures, checks, steps, gates, what is live. */
export function useFollows({
  design,
  committed,
  draft,
  entries,
  demo,
  library,
}: {
  design: Readonly<Ref<Design>>;
  committed: Readonly<Ref<Design>>;
  draft: Readonly<Ref<Design | null>>;
  entries: Readonly<Ref<RecordedEntry[]>>;
  demo: Readonly<Ref<boolean>>;
  library: () => PartsList;
}) {
  let evaluator = createEvaluator();
  const evaluation = computed<Evaluation>(() => evaluator.evaluate(design.value, library()));
  /** The vehicle that stands there: the design with what was fitted and cut laid over it. Gates and results go by it. */
  const built = computed(() => asBuilt(design.value, entries.value));
  /** Begins with what the other one knows: what was fitted differs in little. */
  let builtEvaluator: typeof evaluator | null = null;
  const builtEvaluation = computed<Evaluation>(() => {
    const asDesigned = evaluation.value;
    if (built.value.design === design.value) return asDesigned;
    builtEvaluator ??= evaluator.fork();
    return builtEvaluator.evaluate(built.value.design, library());
  });
  /** While something is typed or dragged it stays as it was: nobody goes by a step of what is no change yet. */
  const procedure = computed((before?: ProcedureStep[]) =>
    draft.value !== null && before !== undefined
      ? before
      : procedureFor(built.value.design, builtEvaluation.value),
  );
  const now = useNow({ interval: 600_000 });
  /** Every rule, by the design and by what the record says of what was measured. */
  const checks = computed(() =>
    everyCheck(evaluation.value, builtEvaluation.value, design.value, entries.value, now.value.getTime()),
  );
  const assessment = computed<Assessment>(() =>
    assess({ ...builtEvaluation.value, checks: checks.value }, procedure.value, entries.value, {
      practice: demo.value,
    }),
  );

  /** The vehicle as last recorded, for the design as it is saved. */
  const live = computed(() => liveStateOf(committed.value, assessment.value.position, entries.value));
  /** Another job: nothing of the last one is remembered. */
  function begin(): void {
    evaluator = createEvaluator();
    builtEvaluator = null;
  }
  return { evaluation, built, builtEvaluation, procedure, checks, assessment, live, begin };
}
