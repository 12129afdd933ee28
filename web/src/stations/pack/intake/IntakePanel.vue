<script setup lang="ts">
import { stepsOfItem } from '@torvek/core/commissioning';
import type { Id } from '@torvek/core/document';
import { intakeReadings } from '@torvek/core/balance';
import type { PartOf } from '@torvek/core/parts';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import { ownSheet, typedInBrowser } from '../../../parts/grid/own-sheet';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { useSession } from '../../../stores/session';
import { thingRows } from '../stock/things';
import LabelButton from '../../../parts/LabelButton.vue';
import { moduleLabels } from './module-labels';
import IntakeBench from './IntakeBench.vue';
import IntakeDoubts from './IntakeDoubts.vue';
import ModuleCard from './ModuleCard.vue';
import {
  entriesOf,
  recordedSheet,
  typedIn,
  withThings,
  withTyped,
  type IntakeRow,
  type IntakeSheet,
} from './sheet';
import SpreadPlot from './SpreadPlot.vue';
import { intakeColumns, views, type IntakeLine, type IntakeView } from './columns';
import { useBatch } from './use-batch';
import { useRecording } from './use-recording';

/** A batch of modules as they come in: typed or pasted fast, outliers seen at once, then recorded in one go. */
const job = useJob();
const session = useSession();
const shelf = useLibrary();
const route = useRoute();
const router = useRouter();

/** Typed and not recorded: it lies in the browser until it is. */
const { typed, back } = typedInBrowser<Record<Id, IntakeRow>>(
  `torvek.intake.${session.person?.id ?? ''}.${job.id}`,
  {},
);
/** Things on the shelf are measured here as well, each under its own name. */
const things = computed(() =>
  thingRows(job.design, job.entries)
    .filter(({ place, item }) => place === null && item.state !== 'retired' && item.state !== 'rejected')
    // What was measured in another job is due here all the same.
    .map(({ quoted, values, ...row }) => ({
      ...row,
      quoted,
      values: Object.fromEntries(
        Object.entries(values).filter(([field]) => !quoted.includes(field as never)),
      ) as typeof values,
    })),
);
const kinds = computed(() => new Map(things.value.map(({ id, item }) => [id, kindOf(item.part)])));
function kindOf(key: string | null): PartOf<'module'> | null {
  const modules = Object.values(job.design.parts).filter((part) => part.kind === 'module');
  const part =
    key === null ? modules.length === 1 && modules[0] : (job.design.parts[key] ?? shelf.library.find(key));
  return part && part.kind === 'module' ? part : null;
}
const procedure = computed(() => [
  ...job.procedure,
  ...things.value.flatMap(({ id, item }) => {
    const part = kinds.value.get(id);
    return part == null ? [] : stepsOfItem(job.design, job.evaluation, item, part);
  }),
]);
const recorded = computed(() =>
  withThings(recordedSheet(job.design, job.assessment.steps, job.present), things.value),
);
const nameOf = (id: Id) =>
  job.design.modules[id]?.tag ?? things.value.find((one) => one.id === id)?.name ?? id;
const shown = computed(() => withTyped(recorded.value, typed.value));
/** As the grid edits it: what ended a range has a place in every row. */
const edited = computed<IntakeSheet>(() => ({
  rows: Object.fromEntries(
    Object.entries(shown.value.rows).map(([id, row]) => [id, { ...row, over: row.over ?? {} }]),
  ),
}));
const sheet = ownSheet(
  () => edited.value,
  () => session.mayRecord,
  (draft) => back.take(typedIn(recorded.value, draft)),
  back.undo,
);

const rows = computed(() => {
  const strung = Object.values(job.design.strings).flatMap(({ modules }) => modules);
  const known = new Set(strung);
  return [
    ...strung,
    ...Object.keys(job.design.modules).filter((id) => !known.has(id)),
    ...things.value.map(({ id }) => id),
  ].map((id): IntakeLine => ({ id, name: nameOf(id), shelved: job.design.modules[id] === undefined }));
});

const labels = computed(() => moduleLabels(job.name, job.design, job.entries, rows.value));
const kindOfRow = (id: Id) => {
  const part = job.design.parts[job.design.modules[id]?.part ?? ''] ?? kinds.value.get(id);
  return part?.kind === 'module' ? part : null;
};
const { losses, scoredBy, offText, plotOf, waited } = useBatch({
  rows,
  readings: computed(() => intakeReadings(job.present)),
  kindOf: kindOfRow,
  typed: (id) => shown.value.rows[id] ?? {},
});

const waiting = computed(() => entriesOf(typed.value, recorded.value, procedure.value));
const isTyped = (id: Id) => typed.value[id] !== undefined;
const view = ref<IntakeView>('arrival');
const hint = computed(() => views.find(([id]) => id === (session.benchMode ? 'arrival' : view.value))![2]);
const columnsOf = intakeColumns((id) => losses.value.get(id));
const columns = computed(() => columnsOf[view.value]);
/** A field of one module, typed at the bench; undefined takes it away. */
function setField(
  id: Id,
  field: keyof IntakeRow,
  value: string | number | boolean | undefined,
  over = false,
): void {
  sheet.change('Intake', (draft) => {
    const row = (draft as IntakeSheet).rows[id]! as Record<string, unknown>;
    if (value === undefined) delete row[field];
    else row[field] = value;
    const { [field]: _before, ...others } = (row.over ?? {}) as Record<string, true>;
    row.over = over ? { ...others, [field]: true } : others;
  });
}

const picked = computed(() => {
  const asked = String(route.query.module ?? '');
  return rows.value.some(({ id }) => id === asked) ? asked : null;
});
const pick = (id: Id | null) =>
  void router.replace({ query: { panel: 'intake', ...(id !== null && { module: id }) } });

const plotted = ref('voltageV');
const plot = computed(() => plotOf(plotted.value));

const { open, confirm, unsaid, mean, blocked, meters, testers, meter, tester, busy, done, said, record } =
  useRecording({ waiting, typed, things, nameOf, recorded: back.forget });
</script>

<template>
  <section class="sheet-card intake" aria-label="Intake" data-intake>
    <div class="card-head">
      <h2>Intake</h2>
      <span v-if="!session.benchMode" class="btn-group" role="group" aria-label="Columns">
        <BButton
          v-for="[id, words] in views"
          :key="id"
          size="sm"
          :variant="view === id ? 'primary' : 'light'"
          :aria-pressed="view === id"
          @click="view = id"
          >{{ words }}</BButton
        >
      </span>
      <span class="hint">{{ hint }}</span>
      <LabelButton v-if="!session.benchMode" class="labels" what="modules" :labels="labels" />
      <button
        v-if="session.mayRecord && rows.length > 0"
        type="button"
        class="btn btn-light"
        :class="session.benchMode ? 'labels' : 'btn-sm'"
        :aria-pressed="session.benchMode"
        @click="session.benchMode = !session.benchMode"
      >
        {{ session.benchMode ? 'Show the table' : 'Bench mode' }}
      </button>
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      No module yet: their kind and number are chosen under Cells and devices.
    </p>
    <template v-else>
      <IntakeBench
        v-if="session.benchMode && session.mayRecord"
        :rows="rows"
        :kind-of="kindOfRow"
        :values="shown.rows"
        :module="picked"
        :off="offText"
        :waited="waited"
        :busy="busy"
        :blocked="blocked"
        @pick="pick"
        @set="setField"
        @record="(module, then) => record(module).then((ok) => ok && then())"
      />
      <div v-else class="scroller">
        <EditGrid
          label="Intake of modules"
          :rows="rows"
          :columns="columns"
          :sheet="sheet"
          :picked="picked"
          @pick="pick"
        >
          <template #off="{ row }">
            <span v-if="view !== 'seen' && offText(row.id) !== ''" class="off">{{ offText(row.id) }}</span>
            <em v-if="isTyped(row.id)">not recorded</em>
          </template>
        </EditGrid>
      </div>
      <div v-if="session.mayRecord" class="acts" :class="{ benching: session.benchMode }">
        <label
          >meter
          <select v-model="meter" class="form-select" aria-label="Meter">
            <option value="">{{ meters[0]?.name ?? 'not registered' }}</option>
            <option v-for="one in meters.slice(1)" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
        </label>
        <label
          >insulation tester
          <select v-model="tester" class="form-select" aria-label="Insulation tester">
            <option value="">{{ testers[0]?.name ?? 'not registered' }}</option>
            <option v-for="one in testers.slice(1)" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
        </label>
        <BButton
          v-if="!session.benchMode"
          variant="primary"
          size="sm"
          :disabled="waiting.length === 0 || blocked || busy"
          @click="record()"
          >{{
            busy ? `Recording ${done + 1} of ${waiting.length + done} …` : `Record ${waiting.length}`
          }}</BButton
        >
        <BButton v-if="waiting.length > 0 && !busy" variant="light" size="sm" @click="back.take({})"
          >Take what is typed back</BButton
        >
        <span v-if="said" role="status">{{ said }}</span>
      </div>
      <IntakeDoubts :unsaid="unsaid" :open="open" :name-of="nameOf" @mean="mean" @confirm="confirm" />
    </template>
  </section>
  <div v-if="rows.length > 0 && !session.benchMode" class="below">
    <section class="sheet-card" aria-label="Distribution">
      <div class="card-head">
        <h2>Spread of the batch</h2>
        <select v-model="plotted" class="form-select what" aria-label="Quantity shown">
          <option v-for="one in scoredBy" :key="one.id" :value="one.id">
            {{ one.title }}, {{ one.unit }}
          </option>
        </select>
      </div>
      <SpreadPlot
        :title="plot.quantity.title"
        :unit="plot.quantity.unit"
        :scale="plot.quantity.scale"
        :points="plot.points"
        :scores="plot.scores"
        :picked="picked"
        @pick="pick"
      />
    </section>
    <ModuleCard
      v-if="picked !== null && job.design.modules[picked] !== undefined"
      :module="picked"
      :row="shown.rows[picked] ?? {}"
    />
  </div>
</template>

<style scoped>
.scroller :deep(td:has(.off)),
.scroller :deep(td:has(em)) {
  white-space: normal;
  line-height: 1.15;
  font-size: 0.82rem;
}

.scroller :deep(td) {
  white-space: nowrap;
}

.off {
  color: var(--tv-stop);
  font-weight: 600;
  margin-right: 0.4rem;
}

.scroller em {
  color: var(--tv-soft);
}

.labels {
  margin-left: auto;
}

.scroller {
  max-height: 25rem;
  overflow-y: auto;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
  margin-top: 0.6rem;
}

.acts label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  font-size: 0.9rem;
}

.acts select,
.what {
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
  width: 13rem;
}

.benching select {
  height: 44px;
}

.below {
  display: grid;
  gap: 0.6rem;
  grid-template-columns: minmax(0, 1fr);
}
</style>
