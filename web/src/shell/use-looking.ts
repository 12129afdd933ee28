import type { Station } from '@torvek/core/document';
import { computed, type ComputedRef } from 'vue';
import { useRoute } from 'vue-router';
import { packPanelOf, packPanelOfRule } from '../stations/pack/panels';
import { panelOfRule, protectPanelOf, showsOneCircuit } from '../stations/protect/panels';
import { useCircuit } from '../stations/protect/use-circuit';
import type { Looking } from './arrange-findings';

/** Where somebody looks, by the address. */
export function useLooking(station: () => Station): ComputedRef<Looking> {
  const route = useRoute();
  const { circuitId } = useCircuit();
  return computed(() => {
    const at = station();
    if (at === 'pack') return { station: at, panel: packPanelOf(route.query), panelOfRule: packPanelOfRule };
    if (at !== 'protect') return { station: at };
    const panel = protectPanelOf(route.query);
    return {
      station: at,
      panel,
      panelOfRule,
      ...(showsOneCircuit(panel) && { circuit: circuitId.value }),
    };
  });
}
