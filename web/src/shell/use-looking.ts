import type { Station } from '@torvek/core/document';
import { computed, type ComputedRef } from 'vue';
import { useRoute } from 'vue-router';
import { showsOneCircuit } from '../stations/protect/panels';
import { useCircuit } from '../stations/protect/use-circuit';
import { stationList } from '../stations/stations';
import type { Looking } from './arrange-findings';

/** Where somebody looks, by the address. */
export function useLooking(station: () => Station): ComputedRef<Looking> {
  const route = useRoute();
  const { circuitId } = useCircuit();
  return computed(() => {
    const at = station();
    const { panels } = stationList[at];
    if (panels === undefined) return { station: at };
    const panel = panels.of(route.query);
    // Two panels of Protect show one circuit at a time.
    const one = at === 'protect' && showsOneCircuit(panel);
    return { station: at, panel, panelOfRule: panels.ofRule, ...(one && { circuit: circuitId.value }) };
  });
}
