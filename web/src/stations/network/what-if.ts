import { laid } from '@torvek/core/document';
import { liveMapOf, liveStateOf } from '@torvek/core/design';
import { deriveNetwork, stagesOf, storedAtMost, type Stage } from '@torvek/core/network';
import { computed, ref, shallowRef } from 'vue';
import { useJob } from '../../stores/job';

/** What stands open in the what-if: a stage of the build, the vehicle as recorded, or switched by hand from there. */
export function useWhatIf() {
  const job = useJob();
  const network = computed(() => deriveNetwork(laid(job.design)));
  const stages = computed(() => stagesOf(job.design, network.value));
  const recorded = computed(() => liveStateOf(job.design, job.assessment.position, job.entries));
  /** A stage, or `recorded`. */
  const chosen = ref<Stage['id'] | 'recorded'>('last-link');
  /** Elements switched by hand away from what was chosen. */
  const switched = shallowRef<ReadonlySet<string>>(new Set());
  const keepCharge = ref<boolean | null>(null);

  const stage = computed(() => stages.value.find(({ id }) => id === chosen.value) ?? null);
  const base = computed(() =>
    chosen.value === 'recorded' ? recorded.value.open : (stage.value?.open ?? []),
  );
  const open = computed(() => {
    const now = new Set(base.value);
    for (const id of switched.value) if (!now.delete(id)) now.add(id);
    return now;
  });
  const stored = computed(() => keepCharge.value ?? stage.value?.stored ?? false);
  const storedV = computed<Record<string, number>>(() => {
    const most = storedAtMost(job.design, network.value);
    if (chosen.value === 'recorded' && keepCharge.value === null)
      return Object.fromEntries(recorded.value.stored.map((id) => [id, most[id] ?? 0]));
    return stored.value ? most : {};
  });
  const map = computed(() => liveMapOf(network.value, open.value, storedV.value));

  function choose(id: Stage['id'] | 'recorded'): void {
    chosen.value = id;
    switched.value = new Set();
    keepCharge.value = null;
  }

  function toggle(ids: readonly string[], toOpen: boolean): void {
    const now = new Set(switched.value);
    for (const id of ids) {
      if (open.value.has(id) === toOpen) continue;
      if (!now.delete(id)) now.add(id);
    }
    switched.value = now;
  }

  return {
    network,
    stages,
    stage,
    chosen,
    switched,
    open,
    stored,
    keepCharge,
    map,
    recorded,
    choose,
    toggle,
  };
}

export type WhatIf = ReturnType<typeof useWhatIf>;
