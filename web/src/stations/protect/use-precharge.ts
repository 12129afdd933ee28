import type { Id } from '@torvek/core/document';
import { pathOf, type InrushLoop, type PrechargeInput, type PrechargeResult } from '@torvek/core/precharge';
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

/** What the inrush of a circuit flows through; null while that is not known. */
export function useInrushLoop(
  circuit: ComputedRef<Id>,
  run: ReturnType<typeof usePrecharge>,
): ComputedRef<InrushLoop | null> {
  const job = useJob();
  return computed(() => {
    const loopOhm = job.figure(pathOf(circuit.value))?.value ?? null;
    const capacitanceF = run.value?.input.busCapacitanceF;
    if (loopOhm === null || capacitanceF === undefined) return null;
    return {
      loopOhm,
      capacitanceF,
      inductanceH: job.design.circuits[circuit.value]?.loopInductanceH,
      atMostA: job.figure(`fuse.fault:${circuit.value}/largest:prospectiveA`)?.value ?? undefined,
    };
  });
}
