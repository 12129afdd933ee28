import { mainCircuit, type CircuitItem, type Id } from '@torvek/core/document';
import { computed, type ComputedRef } from 'vue';
import { useRoute } from 'vue-router';
import { useJob } from '../../stores/job';

/** The circuit that Protect has open: asked for by name, or by a place of the design in it; otherwise the main one. */
export function useCircuit(): {
  circuitId: ComputedRef<Id>;
  circuit: ComputedRef<CircuitItem | undefined>;
  /** Where it lies in the design. */
  at: ComputedRef<string>;
} {
  const job = useJob();
  const route = useRoute();
  const circuitId = computed(() => {
    const asked = String(route.query.circuit ?? '');
    if (job.design.circuits[asked] !== undefined) return asked;
    const [head, id = ''] = String(route.query.at ?? '').split('.');
    return head === 'circuits' && job.design.circuits[id] !== undefined ? id : mainCircuit;
  });
  return {
    circuitId,
    circuit: computed(() => job.design.circuits[circuitId.value]),
    at: computed(() => `circuits.${circuitId.value}`),
  };
}
