<script setup lang="ts">
import { touchLimitOf } from '@torvek/core/document';
import { outsideReach } from '@torvek/core/network';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import type { WhatIf } from './what-if';

/** What if this were open and that closed: stages of the build to start from, and what follows in every box. */
const props = defineProps<{ whatIf: WhatIf }>();
const job = useJob();
const session = useSession();
const { stages, stage, chosen, switched, open, map, stored, keepCharge, recorded, network } = props.whatIf;
const limitV = computed(() => touchLimitOf(job.design));
const reaches = computed(() => {
  const names = new Map(network.value.boxes.map(({ id, tag }) => [id, tag]));
  return Object.entries(map.value.reaches)
    .map(([id, { maxVoltageV, between }]) => ({
      id,
      tag: names.get(id) ?? 'Outside the boxes',
      volts: maxVoltageV,
      between,
      live: hasState(id, 'live'),
      over: maxVoltageV > limitV.value + 1e-9,
    }))
    .sort((a, b) => Number(a.id === outsideReach) - Number(b.id === outsideReach));
});
function hasState(reach: string, state: string): boolean {
  return network.value.elements.some(
    (one) =>
      one.reach === reach &&
      (map.value.terminals[one.a]?.state === state || map.value.terminals[one.b]?.state === state),
  );
}
const conflicts = computed(() =>
  map.value.conflicts.map(({ element, differenceV }) => ({
    tag: network.value.elements.find(({ id }) => id === element)?.tag ?? element,
    differenceV,
  })),
);
const what = computed(() => {
  const from =
    chosen.value === 'recorded' ? `As recorded: ${recorded.value.text}.` : (stage.value?.what ?? '');
  const by = switched.value.size;
  return by === 0 ? from : `${from} Switched by hand from there: ${by}.`;
});

const busy = ref(false);
const said = ref<string | null>(null);
const asking = ref(false);
async function record(): Promise<void> {
  busy.value = true;
  said.value = null;
  try {
    const entry = await job.record(
      { id: newId('entry'), kind: 'position', open: [...open.value] },
      'State of the vehicle',
    );
    said.value = entry === null ? 'Waiting to be recorded.' : `Recorded as entry ${entry.seq}.`;
    asking.value = false;
  } catch (error) {
    said.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet-card strip" aria-label="What if">
    <div class="head">
      <label class="stage"
        ><b>What is live</b> when
        <select
          class="form-select"
          :value="chosen"
          aria-label="Stage"
          @change="whatIf.choose(($event.target as HTMLSelectElement).value as typeof chosen)"
        >
          <option value="recorded">as recorded</option>
          <option v-for="one in stages" :key="one.id" :value="one.id">{{ one.title }}</option>
        </select>
      </label>
      <label class="charge"
        ><input
          type="checkbox"
          class="form-check-input"
          :checked="stored"
          @change="keepCharge = ($event.target as HTMLInputElement).checked"
        />
        capacitors not proved discharged</label
      >
      <span class="spacer" />
      <template v-if="session.mayRecord">
        <BButton v-if="!asking" size="sm" variant="light" @click="asking = true">Record as state …</BButton>
        <template v-else>
          <span class="sure">The vehicle itself stands like this?</span>
          <BButton size="sm" variant="primary" :disabled="busy" @click="record">Record</BButton>
          <BButton size="sm" variant="light" @click="asking = false">Leave it</BButton>
        </template>
      </template>
    </div>
    <p class="what">{{ what }}</p>
    <ul class="reaches" aria-label="Highest voltage in each box">
      <li
        v-for="one in reaches"
        :key="one.id"
        :class="{ live: one.live, over: one.over }"
        :data-reach="one.id"
      >
        <span class="state-mark" aria-hidden="true" />
        <span class="tag">{{ one.tag }}</span>
        <b>{{ formatNumber(one.volts, 4) }}</b><span class="unit">
          V{{ one.over ? `, over ${formatNumber(limitV)} V` : one.live ? ', live' : '' }}</span
        >
      </li>
    </ul>
    <p v-for="one in conflicts" :key="one.tag" class="conflict" role="alert">
      {{ one.tag }} closes a loop in which {{ formatNumber(one.differenceV, 4) }} V are left over: a short, or
      strings of different voltage.
    </p>
    <p v-if="said" class="said" role="status">{{ said }}</p>
  </section>
</template>

<style scoped>
.strip {
  position: sticky;
  top: -0.6rem;
  z-index: 3;
  box-shadow: 0 3px 6px -4px rgb(0 0 0 / 35%);
}

.head {
  display: flex;
  gap: 0.9rem;
  align-items: center;
  flex-wrap: wrap;
}

.stage {
  display: flex;
  gap: 0.45rem;
  align-items: center;
}

.stage select {
  width: 17rem;
}

.charge {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  font-size: 0.9rem;
}

.spacer {
  flex: 1;
}

.sure {
  font-size: 0.9rem;
  font-weight: 600;
}

.what {
  margin: 0.2rem 0 0.35rem;
  font-size: 0.9rem;
}

.reaches {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem 0.6rem;
}

.reaches li {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0.15rem 0.55rem 0.15rem 0.2rem;
  border: 1px solid var(--tv-line);
  border-radius: 3px;
}

.reaches b {
  font-size: 1.05rem;
}

.unit {
  color: var(--tv-soft);
  font-size: 0.85rem;
}

.state-mark {
  width: 16px;
  height: 22px;
  border: 1px solid var(--tv-line);
}

.live .state-mark {
  background: repeating-linear-gradient(45deg, var(--tv-hv-fill) 0 2.4px, var(--tv-sheet) 2.4px 6px);
  border-color: var(--tv-hv);
}

.over {
  border-color: var(--tv-hv) !important;
}

.over b,
.over .unit {
  color: var(--tv-hv);
}

.conflict {
  margin: 0.5rem 0 0;
  color: var(--tv-stop);
  font-weight: 600;
}

.said {
  margin: 0.4rem 0 0;
  font-weight: 600;
}
</style>
