<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import PrintSheet from '../../parts/PrintSheet.vue';
import PanelNav from '../../parts/PanelNav.vue';
import WaitingEntries from '../../parts/WaitingEntries.vue';
import PositionForm from './PositionForm.vue';
import { panels, provePanelOf } from './panels';
import SnagList from './SnagList.vue';
import StepBench from './StepBench.vue';
import StepList from './StepList.vue';

const BuiltPanel = defineAsyncComponent(() => import('./built/BuiltPanel.vue'));
const job = useJob();
const session = useSession();
const route = useRoute();
const panel = computed(() => provePanelOf(route.query));
const chosen = ref<string | null>(null);
watch(
  () => route.query.step,
  (step) => {
    if (typeof step === 'string') chosen.value = step;
  },
  { immediate: true },
);
const steps = computed(() => job.assessment.steps);
const openGate = (id: string) => job.assessment.gates.find((gate) => gate.id === id);
/** The chosen step, or the first that is not passed and whose gate is open. */
const selected = computed(
  () =>
    steps.value.find(({ step }) => step.id === chosen.value) ??
    steps.value.find(({ state, step }) => state !== 'passed' && openGate(step.gate)?.open === true) ??
    steps.value[0],
);
const gate = computed(() => openGate(selected.value?.step.gate ?? ''));

const index = computed(() => steps.value.findIndex(({ step }) => step.id === selected.value?.step.id));
const place = computed(() => `${index.value + 1} of ${steps.value.length}`);

/** The step before or after, whatever its state. */
function go(by: number): void {
  const count = steps.value.length;
  chosen.value = steps.value[(index.value + by + count) % count]?.step.id ?? null;
}

function next(): void {
  const at = index.value;
  const order = [...steps.value.slice(at + 1), ...steps.value.slice(0, at + 1)];
  chosen.value = (order.find(({ state }) => state !== 'passed') ?? order[0])?.step.id ?? null;
}
</script>

<template>
  <div class="station">
    <PanelNav
      v-if="!session.benchMode"
      station="prove"
      label="Panels of Prove"
      :panels="panels"
      :open="panel"
    />
    <div v-if="panel === 'built'" class="built">
      <BuiltPanel />
    </div>
    <div v-else class="prove" :class="{ benching: session.benchMode }">
      <div v-if="!session.benchMode" class="left">
        <PositionForm />
        <p class="paper no-print">
          <PrintSheet sheet="to-do" text="To do, PDF" />
          <PrintSheet sheet="procedure" :subject="gate?.id ?? ''" text="This gate, blank, PDF" />
        </p>
        <section class="sheet-card list">
          <StepList :selected="selected?.step.id ?? null" @select="chosen = $event" />
        </section>
        <SnagList />
      </div>
      <div class="sheet-card right">
        <div class="mode no-print">
          <template v-if="session.benchMode">
            <button type="button" class="btn btn-quiet" @click="go(-1)">Step before</button>
            <span class="soft">{{ place }}</span>
            <button type="button" class="btn btn-quiet" @click="go(1)">Step after</button>
          </template>
          <button
            type="button"
            class="btn btn-quiet"
            :class="{ 'btn-sm': !session.benchMode }"
            :aria-pressed="session.benchMode"
            @click="session.benchMode = !session.benchMode"
          >
            {{ session.benchMode ? 'Show the list' : 'Bench mode' }}
          </button>
        </div>
        <WaitingEntries />
        <StepBench
          v-if="selected"
          :status="selected"
          :gate-open="gate?.open ?? false"
          :waits-for="gate?.waitsFor ?? []"
          @next="next"
        />
        <p v-else class="soft">
          The procedure is made from the design: it appears with the first module and device.
        </p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.paper {
  display: flex;
  gap: 0.4rem;
  margin: 0;
}

.station {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  gap: 0.5rem;
  height: 100%;
}

.built {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}

.prove {
  display: grid;
  grid-template-columns: 306px minmax(0, 1fr);
  gap: 0.6rem;
  height: 100%;
  min-height: 0;
}

.mode {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  justify-content: flex-end;
  float: right;
}

.benching {
  grid-template-columns: minmax(0, 1fr);
}

.benching .right {
  padding: 0.8rem max(1rem, calc((100% - 50rem) / 2));
}

.benching .mode {
  float: none;
  justify-content: space-between;
  margin-bottom: 0.6rem;
}

.benching :deep(.bench) {
  font-size: 1.2rem;
}

.benching :deep(.btn),
.benching :deep(.form-control),
.benching :deep(.form-select) {
  min-height: 44px;
  font-size: 1.1rem;
}

.benching :deep(.bench label) {
  font-size: 1.05rem;
}

.left {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  min-height: 0;
}

.list {
  overflow-y: auto;
  flex: 1;
  padding: 0.6rem 0.5rem;
}

.right {
  overflow-y: auto;
}

@media (max-width: 820px) {
  .prove {
    grid-template-columns: 1fr;
    height: auto;
  }
}
</style>
