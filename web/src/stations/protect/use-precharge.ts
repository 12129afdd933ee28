import type { Id } from '@torvek/core/document';
import type { PrechargeInput, PrechargeResult } from '@torvek/core/precharge';
import { computed, type ComputedRef } from 'vue';
import { useJob } from '../../stores/job';

/** The computed pre-charge of a circuit; undefined while something for it is missing. */
export function usePrecharge(
  circuit: ComputedRef<Id>,
): ComputedRef<{ input: PrechargeInput; result: PrechargeResult } | undefined> {
  const job = useJob();
  return computed(
    () =>
      job.evaluation.runs[`precharge.run:${circuit.value}`] as
        { input: PrechargeInput; result: PrechargeResult } | undefined,
  );
}
