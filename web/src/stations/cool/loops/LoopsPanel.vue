<script setup lang="ts">
import { figureId } from '@torvek/core/figure';
import type { Design, Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onUnmounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import FigureValue from '../../../parts/FigureValue.vue';
import PartField from '../../../parts/PartField.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import { caseTitles, useLoops } from '../use-loops';
import { swapEnds } from './bank';
import BankStrip from './BankStrip.vue';
import JoinTable from './JoinTable.vue';
import LoopView from './LoopView.vue';
import PieceFields from './PieceFields.vue';
import PieceTable from './PieceTable.vue';
import { sentenceOf, type Shown } from './states';
import StandInTable from './StandInTable.vue';
import ThrottleTable from './ThrottleTable.vue';

/** Coolant loops as they are connected: the picture, what each piece gets, and what it would be otherwise. */
const job = useJob();
const route = useRoute();
const { loops, ids, loopId, loop, answer, pick, add, remove } = useLoops();
const picked = ref<Id | null>(null);
watch(
  () => route.query.at,
  (at) => {
    const [root, id] = typeof at === 'string' ? at.split('.') : [];
    if (root === 'plumbing' && id !== undefined) picked.value = id;
  },
  { immediate: true },
);
const piece = computed(() => {
  const id = picked.value;
  return id !== null && job.design.plumbing?.[id]?.loop === loopId.value ? id : null;
});
const shown = ref<Shown>('flows');
const choices = computed<{ id: Shown; text: string }[]>(() => [
  { id: 'flows', text: 'Flows' },
  ...(answer.value?.cases ?? []).map(({ at }) => ({ id: at, text: caseTitles[at] })),
]);
const now = computed<Shown>(() =>
  choices.value.some(({ id }) => id === shown.value) ? shown.value : 'flows',
);
const missing = computed(() => answer.value?.cases.find(({ at }) => at === now.value)?.gaps.length ?? 0);

/** What is tried without being decided: `shut piece-1`. */
const trying = ref<string[]>([]);
function applyTries(draft: Design): void {
  for (const one of trying.value) {
    const [what, id] = one.split(' ') as [string, Id];
    const own = draft.plumbing?.[id];
    if (own === undefined) continue;
    if (what === 'shut') own.openFraction = 0;
    else if (what === 'swap') swapEnds(draft, id);
    else delete draft.plumbing![id];
  }
}
function attempt(what: string, id: Id): void {
  const key = `${what} ${id}`;
  trying.value = trying.value.includes(key)
    ? trying.value.filter((one) => one !== key)
    : [...trying.value, key];
  job.preview(trying.value.length === 0 ? null : applyTries);
}
function stop(): void {
  if (trying.value.length === 0) return;
  trying.value = [];
  job.preview(null);
}
function keep(): void {
  const own = [...trying.value];
  job.preview(null);
  job.change(`Plumbing as tried: ${own.length === 1 ? 'one change' : `${own.length} changes`}`, applyTries);
  trying.value = [];
}
watch([loopId, () => job.id], stop);
// A field that is typed in shows its own draft: what was tried is over then.
watch(
  () => job.committed,
  () => {
    if (trying.value.length > 0) job.preview(applyTries);
  },
);
onUnmounted(stop);
const fig = (name: 'flowLPerMin' | 'headKPa' | 'imbalanceFraction' | 'shareFraction') =>
  figureId('cooling.loop', loopId.value, name);
const value = (name: Parameters<typeof fig>[0]) => job.figure(fig(name))?.value ?? null;
const sentence = computed(() =>
  sentenceOf(loop.value?.tag ?? '', value('flowLPerMin'), value('shareFraction'), value('imbalanceFraction')),
);
const tables = { pieces: 'Pieces', joins: 'Joins and heights', today: 'For now' } as const;
const table = ref<keyof typeof tables>('pieces');
watch(
  () => route.query.at,
  (at) => {
    if (typeof at === 'string' && at.startsWith('standIns.')) table.value = 'today';
  },
  { immediate: true },
);
</script>

<template>
  <section class="sheet-card" aria-labelledby="loops-title" data-loops>
    <div class="card-head">
      <h2 id="loops-title">Loops</h2>
      <div class="chips" role="group" aria-label="Loops">
        <button
          v-for="id in ids"
          :key="id"
          type="button"
          class="btn btn-sm"
          :class="id === loopId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="id === loopId"
          @click="pick(id)"
        >
          {{ loops[id]?.tag }}
        </button>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">New loop</BButton>
      </div>
      <div v-if="loop && answer" class="chips cases" role="group" aria-label="Shown">
        <button
          v-for="one in choices"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === now ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === now"
          @click="shown = one.id"
        >
          {{ one.text }}
        </button>
      </div>
      <RemoveButton v-if="loop" :name="loop.tag" @remove="remove(loopId)" />
    </div>
    <p v-if="!loop" class="panel-empty">
      No coolant loop yet. A loop is drawn from what is connected to what: it says what each plate gets, which
      way the coolant goes, and where it slips past. A vehicle without liquid needs none: see Cold and Over
      time.
    </p>
    <template v-else>
      <p class="sentence" role="status">{{ sentence }}</p>
      <div v-if="trying.length > 0" class="tried" role="status">
        <b>Tried, not decided</b>
        <BButton size="sm" variant="primary" :disabled="!job.editable" @click="keep">Keep it</BButton>
        <BButton size="sm" variant="light" @click="stop">Back as it was</BButton>
      </div>
      <p v-if="missing > 0" class="soft">
        Temperatures are not computed: {{ missing }} figures are missing for this case.
      </p>
      <LoopView :loop-id="loopId" :answer="answer" :shown="now" :picked="piece" @pick="picked = $event" />
      <div class="figures">
        <FigureValue :id="fig('flowLPerMin')" label="Flow" show-label />
        <FigureValue :id="fig('headKPa')" label="Head" show-label />
        <FigureValue :id="fig('shareFraction')" label="Through what is cooled" show-label />
        <FigureValue :id="fig('imbalanceFraction')" label="Imbalance of like plates" show-label />
      </div>
      <PieceFields
        v-if="piece"
        :key="piece"
        :piece-id="piece"
        :answer="answer"
        :shown="now"
        :trying="trying"
        @try="attempt"
      />
      <ThrottleTable v-if="answer" :answer="answer" />
      <BankStrip :loop-id="loopId" />
      <div class="chips tables" role="group" aria-label="Table">
        <button
          v-for="(name, one) in tables"
          :key="one"
          type="button"
          class="btn btn-sm"
          :class="table === one ? 'btn-primary' : 'btn-light'"
          :aria-pressed="table === one"
          @click="table = one"
        >
          {{ name }}
        </button>
      </div>
      <PieceTable
        v-if="table === 'pieces'"
        :loop-id="loopId"
        :answer="answer"
        :shown="now"
        :picked="piece"
        @pick="picked = $event"
      />
      <JoinTable v-else-if="table === 'joins'" :loop-id="loopId" />
      <StandInTable v-else :loop-id="loopId" />
      <div class="of-loop">
        <TextField :path="`loops.${loopId}.tag`" label="Name" required />
        <PartField
          :path="`loops.${loopId}.coolant`"
          kind="coolant"
          label="Coolant"
          none="50 % glycol in water (default)"
        />
      </div>
    </template>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.cases {
  margin-left: auto;
}

.sentence {
  margin: 0 0 0.2rem;
}

.tried {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  padding: 0.3rem 0.5rem;
  border-left: 3px solid var(--tv-act);
  background: var(--tv-pick);
}

.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.4rem 0;
}

.tables {
  margin: 0.7rem 0 0.3rem;
}

.of-loop {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.6rem 1.4rem;
  align-items: end;
  margin-top: 0.6rem;
}
</style>
