<script setup lang="ts">
import { doubtAbout } from '@torvek/core/commissioning';
import type { Id } from '@torvek/core/document';
import { scoreBatch } from '@torvek/core/balance';
import { formatNumber } from '@torvek/core/quantity';
import { looks } from '@torvek/core/record';
import { useStorage } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { ownSheet } from '../../../parts/grid/own-sheet';
import { useInstruments } from '../../../stores/instruments';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import IntakeBench from './IntakeBench.vue';
import ModuleCard from './ModuleCard.vue';
import ModuleLabels from './ModuleLabels.vue';
import {
  entriesOf,
  measures,
  recordedSheet,
  typedIn,
  withTyped,
  type IntakeRow,
  type IntakeSheet,
  type ToRecord,
} from './sheet';
import SpreadPlot from './SpreadPlot.vue';

/** A batch of modules as they come in: typed or pasted fast, outliers seen at once, then recorded in one go. */
const job = useJob();
const session = useSession();
const register = useInstruments();
const route = useRoute();
const router = useRouter();
onMounted(() => {
  if (register.all.length === 0) void register.load();
});

/** Typed and not recorded: it lies in the browser until it is. */
const typed = useStorage<Record<Id, IntakeRow>>(`torvek.intake.${session.person?.id ?? ''}.${job.id}`, {});
const recorded = computed(() => recordedSheet(job.design, job.assessment.steps, job.entries));
const shown = computed(() => withTyped(recorded.value, typed.value));
const sheet = ownSheet(
  () => shown.value,
  () => session.mayRecord,
  (draft) => (typed.value = typedIn(recorded.value, draft)),
);

interface Row {
  id: Id;
  name: string;
}
const rows = computed(() => {
  const strung = Object.values(job.design.strings).flatMap(({ modules }) => modules);
  const known = new Set(strung);
  return [...strung, ...Object.keys(job.design.modules).filter((id) => !known.has(id))].map((id): Row => ({
    id,
    name: job.design.modules[id]!.tag,
  }));
});

/** Scores of each quantity, over modules of one kind. */
const scored = computed(() =>
  measures.map((measure) => {
    const byKind = new Map<string, Row[]>();
    for (const row of rows.value) {
      const { part } = job.design.modules[row.id]!;
      byKind.set(part, [...(byKind.get(part) ?? []), row]);
    }
    const scores = new Map<Id, { score: number | null; outlier: boolean }>();
    for (const batch of byKind.values()) {
      const result = scoreBatch(batch.map(({ id }) => shown.value.rows[id]?.[measure.field] ?? null));
      batch.forEach(({ id }, i) =>
        scores.set(id, { score: result.scores[i]!, outlier: result.outliers[i]! }),
      );
    }
    return { measure, scores };
  }),
);
const offText = (id: Id) =>
  scored.value
    .flatMap(({ measure, scores }) => {
      const own = scores.get(id);
      return own?.outlier === true
        ? [`${measure.title}${own.score === null ? '' : ` ${formatNumber(own.score, 2)}`}`]
        : [];
    })
    .join(', ');

const waiting = computed(() => entriesOf(typed.value, recorded.value, job.procedure));
const isTyped = (id: Id) => typed.value[id] !== undefined;
const columns: GridColumn<Row>[] = [
  { id: 'name', title: 'Module', kind: 'fixed', label: 'Module', text: ({ name }) => name, width: '5.6rem' },
  {
    id: 'serial',
    title: 'serial',
    kind: 'text',
    label: 'Serial number',
    path: ({ id }) => `rows.${id}.serial`,
    width: '7.5rem',
  },
  ...measures.map(({ field, title, unit, scale }): GridColumn<Row> => ({
    id: field,
    title,
    kind: 'number',
    unit,
    scale,
    label: title,
    path: ({ id }) => `rows.${id}.${field}`,
  })),
  { id: 'look', title: 'look', kind: 'slot', label: 'Look', width: '5.8rem' },
  { id: 'off', title: 'outlier, with score', kind: 'slot', label: 'Outlier', width: '11rem' },
];
/** A field of one module, typed at the bench; undefined takes it away. */
function setField(id: Id, field: keyof IntakeRow, value: string | number | undefined): void {
  sheet.change('Intake', (draft) => {
    const row = (draft as IntakeSheet).rows[id]! as Record<string, unknown>;
    if (value === undefined) delete row[field];
    else row[field] = value;
  });
}
function setLook(id: Id, value: string): void {
  sheet.change('Look', (draft) => {
    const row = (draft as IntakeSheet).rows[id]!;
    const look = looks.find((one) => one === value);
    if (look === undefined) delete row.look;
    else row.look = look;
  });
}

const picked = computed(() => {
  const asked = String(route.query.module ?? '');
  return job.design.modules[asked] === undefined ? null : asked;
});
const pick = (id: Id | null) =>
  void router.replace({ query: { panel: 'intake', ...(id !== null && { module: id }) } });

const plotted = ref<(typeof measures)[number]['field']>('voltageV');
const plot = computed(() => {
  const measure = measures.find(({ field }) => field === plotted.value)!;
  const points = rows.value.flatMap(({ id, name }) => {
    const value = shown.value.rows[id]?.[measure.field];
    const own = scored.value.find((one) => one.measure === measure)!.scores.get(id);
    return value === undefined ? [] : [{ id, tag: name, value, outlier: own?.outlier === true }];
  });
  return { measure, points, scores: scoreBatch(points.map(({ value }) => value)) };
});

/** Readings that would be right with their decimal point or sign moved: asked about before they are recorded. */
const doubts = computed(() =>
  waiting.value.flatMap((one) => {
    if (one.kind !== 'reading' || one.step.expected === null) return [];
    const question = doubtAbout(one.step.expected, one.value);
    return question === null ? [] : [{ key: `${one.step.id}=${one.value}`, module: one.module, question }];
  }),
);
const sure = ref<Set<string>>(new Set());
const open = computed(() => doubts.value.filter(({ key }) => !sure.value.has(key)));

const meters = computed(() => register.ofKind('meter'));
const testers = computed(() => register.ofKind('insulation-tester'));
const meter = ref('');
const tester = ref('');
const busy = ref(false);
const done = ref(0);
const said = ref<string | null>(null);

function bodyOf(one: ToRecord): {
  body: { id: string; kind: string } & Record<string, unknown>;
  title: string;
} {
  const tag = job.design.modules[one.module]!.tag;
  if (one.kind === 'intake') {
    const { kind, module, serial, look } = one;
    const body = { id: newId('entry'), kind, module };
    return {
      body: { ...body, ...(serial !== undefined && { serial }), ...(look !== undefined && { look }) },
      title: `Intake of ${tag}`,
    };
  }
  const isTester = one.step.instrument === 'insulation-tester';
  const chosen = isTester ? tester.value || testers.value[0]?.id : meter.value || meters.value[0]?.id;
  return {
    body: {
      id: newId('entry'),
      kind: 'result',
      step: one.step.id,
      entered: 'typed',
      measured: { kind: 'value', value: one.value, unit: one.step.expected?.unit ?? '' },
      instrument:
        chosen === undefined
          ? {
              kind: one.step.instrument,
              name: isTester ? 'insulation tester, not registered' : 'meter, not registered',
              standIn: false,
            }
          : { id: chosen },
    },
    title: one.step.title,
  };
}

/** @param only the module at the bench; otherwise all that was typed */
async function record(only?: Id): Promise<boolean> {
  if (open.value.length > 0 || busy.value) return false;
  busy.value = true;
  said.value = null;
  done.value = 0;
  const list = waiting.value.filter(({ module }) => only === undefined || module === only);
  try {
    for (const one of list) {
      const { body, title } = bodyOf(one);
      await job.record(body, title);
      forget(one);
      done.value += 1;
    }
    said.value = `${list.length} ${list.length === 1 ? 'entry' : 'entries'} recorded.`;
    return true;
  } catch (error) {
    said.value = `Stopped after ${done.value}: ${error instanceof Error ? error.message : 'not recorded'}`;
    return false;
  } finally {
    busy.value = false;
  }
}

/** What is on its way stands in the record, or waits in the outbox: it is typed no more. */
function forget(one: ToRecord): void {
  const row = { ...typed.value[one.module] };
  if (one.kind === 'intake') {
    delete row.serial;
    delete row.look;
  } else delete row[one.measure.field];
  const next = { ...typed.value, [one.module]: row };
  if (Object.keys(row).length === 0) delete next[one.module];
  typed.value = next;
}
</script>

<template>
  <section class="sheet-card intake" aria-label="Intake" data-intake>
    <div class="card-head">
      <h2>Intake</h2>
      <span class="hint"
        >type or paste a batch; outliers beyond 3.5 scaled deviations from the median are marked</span
      >
      <ModuleLabels v-if="!session.benchMode" class="labels" :rows="rows" />
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
        :values="shown.rows"
        :module="picked"
        :off="offText"
        :busy="busy"
        :blocked="open.length > 0"
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
          <template #look="{ row }">
            <select
              class="form-select choice-cell"
              :aria-label="`Look of ${row.name}`"
              :value="shown.rows[row.id]?.look ?? ''"
              :disabled="!session.mayRecord"
              @change="setLook(row.id, ($event.target as HTMLSelectElement).value)"
            >
              <option value="">–</option>
              <option v-for="look in looks" :key="look" :value="look">{{ look }}</option>
            </select>
          </template>
          <template #off="{ row }">
            <span v-if="offText(row.id) !== ''" class="off">{{ offText(row.id) }}</span>
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
          :disabled="waiting.length === 0 || open.length > 0 || busy"
          @click="record()"
          >{{
            busy ? `Recording ${done + 1} of ${waiting.length + done} …` : `Record ${waiting.length}`
          }}</BButton
        >
        <BButton v-if="waiting.length > 0 && !busy" variant="light" size="sm" @click="typed = {}"
          >Take what is typed back</BButton
        >
        <span v-if="said" role="status">{{ said }}</span>
      </div>
      <ul v-if="open.length > 0" class="doubts" role="alert">
        <li v-for="one in open" :key="one.key">
          <b>{{ job.design.modules[one.module]?.tag }}</b> {{ one.question }}
          <BButton variant="light" size="sm" @click="sure = new Set([...sure, one.key])">It is right</BButton>
        </li>
      </ul>
    </template>
  </section>
  <div v-if="rows.length > 0 && !session.benchMode" class="below">
    <section class="sheet-card" aria-label="Distribution">
      <div class="card-head">
        <h2>Spread of the batch</h2>
        <select v-model="plotted" class="form-select what" aria-label="Quantity shown">
          <option v-for="one in measures" :key="one.field" :value="one.field">
            {{ one.title }}, {{ one.unit }}
          </option>
        </select>
      </div>
      <SpreadPlot
        :title="plot.measure.title"
        :unit="plot.measure.unit"
        :scale="plot.measure.scale"
        :points="plot.points"
        :scores="plot.scores"
        :picked="picked"
        @pick="pick"
      />
    </section>
    <ModuleCard v-if="picked !== null" :module="picked" :row="shown.rows[picked] ?? {}" />
  </div>
</template>

<style scoped>
.scroller :deep(td:has(.off)),
.scroller :deep(td:has(em)) {
  white-space: normal;
  line-height: 1.15;
  font-size: 0.82rem;
}

.off {
  color: var(--tv-stop);
  font-weight: 600;
  margin-right: 0.4rem;
}

.scroller em {
  color: var(--tv-soft);
}

.scroller .choice-cell {
  width: 5.2rem;
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

.doubts {
  margin: 0.6rem 0 0;
  padding-left: 1.2rem;
  color: var(--tv-stop);
}

.below {
  display: grid;
  gap: 0.6rem;
  grid-template-columns: minmax(0, 1fr);
}
</style>
