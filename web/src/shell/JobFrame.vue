<script setup lang="ts">
import { stations, type Station } from '@torvek/core/document';
import { computed, onUnmounted, watch } from 'vue';
import { RouterLink, RouterView, useRoute } from 'vue-router';
import { useJob } from '../stores/job';
import { useLive } from '../stores/live';
import { useSession } from '../stores/session';
import FinderBox from './finder/FinderBox.vue';
import JobRail from './JobRail.vue';
import KeyHelp from './KeyHelp.vue';
import NamePlate from './NamePlate.vue';
import SlatePanel from './SlatePanel.vue';
import TroubleBar from './TroubleBar.vue';
import { useKeys } from './use-keys';

const props = defineProps<{ job: string }>();
const store = useJob();
const live = useLive();
let gone = false;
onUnmounted(() => {
  gone = true;
  live.leave();
});
const session = useSession();
const route = useRoute();
const station = computed<Station>(() => stations.find((one) => one === route.name) ?? 'brief');

watch(
  () => props.job,
  async (id) => {
    await store.open(id);
    // Meanwhile another one may have been opened, or this page left.
    if (!gone && store.loaded && store.id === id) live.watch(id);
  },
  { immediate: true },
);
watch(
  () => store.name,
  (name) => (document.title = name ? `${name} · Torvek` : 'Torvek'),
);

/** At the bench one step has the screen to itself. */
const atBench = computed(
  () =>
    session.benchMode &&
    (station.value === 'prove' || (station.value === 'pack' && route.query.panel === 'intake')),
);
const slateShown = computed(() => session.slateOpen && !atBench.value && route.name !== 'rules');
const { finding, help } = useKeys(station);
</script>

<template>
  <div class="frame" :class="{ 'slate-open': slateShown }">
    <JobRail v-if="store.loaded" @keys="help = true" />
    <div class="main">
      <template v-if="store.loaded">
        <NamePlate @find="finding = true" />
        <FinderBox v-if="finding" @close="finding = false" />
        <TroubleBar />
        <p v-if="!store.editable && station !== 'prove' && station !== 'book'" class="reading" role="status">
          You read this design. Changing it asks for the role designer.
        </p>
        <div class="work">
          <main class="sheet" :data-station="route.name === 'rules' ? 'rules' : station"><RouterView /></main>
          <SlatePanel v-if="slateShown" :station="station" />
        </div>
      </template>
      <div v-else-if="store.failed" class="notice" role="alert">
        <p>This job cannot be opened: {{ store.failed }}.</p>
        <RouterLink :to="{ name: 'jobs' }">All jobs</RouterLink>
      </div>
      <p v-else class="notice" role="status">Opening the job …</p>
    </div>
    <KeyHelp v-model="help" />
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  height: 100vh;
  overflow: clip;
}

.main {
  flex: 1;
  min-width: 0;
  height: 100%;
  display: flex;
  flex-direction: column;
}

.work {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
}

.slate-open .work {
  grid-template-columns: minmax(0, 1fr) 320px;
}

.sheet {
  position: relative;
  overflow-y: auto;
  padding: 0.7rem;
}

/* A word to those who may not change what they see. */
.reading {
  margin: 0;
  padding: 0.3rem 0.9rem;
  background: var(--tv-recess);
  color: var(--tv-soft);
  font-size: 0.9rem;
}

.notice {
  padding: 2rem;
}

@media (max-width: 1100px) {
  .slate-open .work {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr) fit-content(38vh);
  }
}

@media print {
  .frame {
    height: auto;
    overflow: visible;
    display: block;
  }
}
</style>
