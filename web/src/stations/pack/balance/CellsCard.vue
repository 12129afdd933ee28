<script setup lang="ts">
import { moduleOfCell } from '@torvek/core/balance';
import { doubtAbout } from '@torvek/core/commissioning';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { ownSheet, typedInBrowser } from '../../../parts/grid/own-sheet';
import { useInstruments } from '../../../stores/instruments';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import type { CellLog, LogSetting } from './cell-log';
import LogForm from './LogForm.vue';
import type { Attempt } from '../../../parts/use-attempt';
import type { Balance, BalanceRow } from './use-balance';
import { halfWidthMv, phaseText, verdictText } from './words';

/** Every cell with what it reads: typed down the column or out of a file, looked at before it is recorded. */
const props = defineProps<{ balance: Balance; recording: Attempt; nowMs: number; picked: string | null }>();
const emit = defineEmits<{ pick: [cell: string] }>();
const job = useJob();
const session = useSession();
const register = useInstruments();
const { rows, schedule, zone } = props.balance;
const { busy, said, attempt } = props.recording;

/** Which cells the table shows. */
const filters = ['all', 'due to be read', 'at rest', 'outside', 'on', 'waiting'] as const;
const filter = ref<(typeof filters)[number]>('all');
const dueToRead = computed(
  () =>
    new Set(
      schedule.value.tasks
        .filter(({ kind, fromMs }) => kind === 'read' && fromMs <= props.nowMs + 30 * 60_000)
        .map(({ cell }) => cell),
    ),
);
const asked = ref<Set<string> | null>(null);
const shownRows = computed(() =>
  rows.value.filter((row) => {
    if (typed.value[row.id] !== undefined) return true;
    if (filter.value === 'due to be read') return (asked.value ?? dueToRead.value).has(row.id);
    if (filter.value === 'at rest') return row.phase === 'resting';
    if (filter.value === 'outside')
      return row.phase === 'resting' && /too (high|low)/.test(row.outlook.verdict);
    if (filter.value === 'on') return row.phase === 'on';
    return filter.value === 'all' || row.phase === 'waiting';
  }),
);

/** Typed and not recorded: it lies in the browser until it is. */
const { typed, back } = typedInBrowser<Record<string, number>>(
  `torvek.cells.${session.person?.id ?? ''}.${job.id}`,
  {},
);
const sheetData = computed(() => ({
  volts: Object.fromEntries(rows.value.map(({ id }) => [id, typed.value[id]])),
}));
const sheet = ownSheet(
  () => sheetData.value,
  () => session.mayRecord,
  ({ volts }) =>
    back.take(
      Object.fromEntries(
        Object.entries(volts).filter((pair): pair is [string, number] => pair[1] !== undefined),
      ),
    ),
  back.undo,
);
const settles = ({ phase, outlook }: BalanceRow) => {
  if (phase !== 'resting' || outlook.settledV === null) return '';
  const half = halfWidthMv(outlook);
  return `${outlook.settledV.toFixed(4)}${half === null || outlook.by === 'rested out' ? '' : ` ± ${formatNumber(half, 2)} mV`}`;
};
const columns: GridColumn<BalanceRow>[] = [
  { id: 'tag', title: 'cell', kind: 'fixed', label: 'Cell', text: ({ tag }) => tag, width: '6rem' },
  {
    id: 'reading',
    title: 'reads now',
    kind: 'number',
    unit: 'V',
    label: 'Reading',
    path: ({ id }) => `volts.${id}`,
    width: '7rem',
  },
  {
    id: 'last',
    title: 'last, V',
    kind: 'fixed',
    label: 'Last reading',
    text: ({ last }) => (last === null ? '' : last.voltageV.toFixed(4)),
    width: '5.5rem',
  },
  {
    id: 'phase',
    title: 'state',
    kind: 'slot',
    label: 'State',
    width: '12rem',
  },
  {
    id: 'settles',
    title: 'settles at, V',
    kind: 'fixed',
    label: 'Settles at',
    text: settles,
    width: '10rem',
  },
  { id: 'verdict', title: 'verdict', kind: 'slot', label: 'Verdict' },
];

const tagIds = computed(() => new Map(rows.value.map(({ tag, id }) => [tag.toLowerCase(), id])));
const rowOf = (id: string) => rows.value.find((row) => row.id === id);
const doubts = computed(() =>
  Object.entries(typed.value).flatMap(([id, value]) => {
    const row = rowOf(id);
    if (row === undefined) return [];
    const { minV, maxV } = row.data.cell;
    const range = { kind: 'range' as const, min: Math.min(minV, 1) * 0.6, max: maxV * 1.1, unit: 'V' };
    const question =
      doubtAbout(range, value) ??
      (value < range.min || value > range.max
        ? `${formatNumber(value, 4)} V is far outside what a cell can have. Is the value right as it stands?`
        : null);
    return question === null
      ? []
      : [{ key: `${id}=${value}`, tag: row.tag, question, possible: Math.abs(value) <= 10 }];
  }),
);
const sure = ref<Set<string>>(new Set());
const open = computed(() => doubts.value.filter(({ key, possible }) => !possible || !sure.value.has(key)));

const meters = computed(() => register.ofKind('meter'));
const meter = ref('');
const instrument = () => {
  const chosen = meter.value || meters.value[0]?.id;
  return chosen === undefined
    ? { kind: 'meter', name: 'meter, not registered', standIn: false }
    : { id: chosen };
};

const recordTyped = () =>
  attempt(async () => {
    const list = Object.entries(typed.value).filter(([id]) => rowOf(id) !== undefined);
    await job.record(
      {
        id: newId('entry'),
        kind: 'cell-voltages',
        entered: 'typed',
        instrument: instrument(),
        cells: list.map(([cell, value]) => ({ cell, samples: [[0, value]] })),
      },
      `Voltages of ${list.length} cells`,
    );
    back.forget();
    typed.value = {};
    asked.value = null;
    return `${list.length} ${list.length === 1 ? 'reading' : 'readings'} recorded.`;
  });

function askFor(cells: string[]): void {
  asked.value = new Set(cells);
  filter.value = 'due to be read';
  void nextTick(() => {
    const grid = document.querySelector<HTMLElement>('[data-balance-cells] [role=grid]');
    grid?.scrollIntoView({ block: 'center' });
    grid?.focus({ preventScroll: true });
  });
}

defineExpose({ askFor });

const file = ref<HTMLInputElement | null>(null);
/** A file that is looked at before it is recorded. */
const opened = ref<{ name: string; text: string } | null>(null);
const logSetting: LogSetting = {
  idOf: (tag) => tagIds.value.get(tag.toLowerCase()),
  nth: (index, of) => rows.value.filter(({ id }) => of === null || moduleOfCell(id) === of)[index]?.id,
  nowMs: Date.now(),
  localMs: (year, month, day, hour, minute, second) =>
    new Date(year, month - 1, day, hour, minute, second).getTime(),
};
/** Modules that a list may count by themselves: of one cell each there is nothing to count. */
const countedModules = computed(() => {
  const tags = new Map(
    rows.value.map(({ id }) => [moduleOfCell(id), job.design.modules[moduleOfCell(id)]?.tag]),
  );
  return tags.size === rows.value.length ? [] : [...tags].map(([id, tag]) => ({ id, tag: tag ?? id }));
});
async function openFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const [chosen] = input.files ?? [];
  input.value = '';
  if (chosen === undefined) return;
  const text = await chosen.text();
  logSetting.nowMs = Date.now();
  opened.value = { name: chosen.name, text };
}
const recordLog = (log: CellLog) =>
  attempt(async () => {
    const { name } = opened.value!;
    const first = Math.min(...log.cells.map(({ samples }) => samples[0]![0]));
    await job.record(
      {
        id: newId('entry'),
        kind: 'cell-voltages',
        entered: 'logged',
        takenAt: new Date(first).toISOString(),
        instrument: instrument(),
        cells: log.cells.map(({ id, samples }) => ({
          cell: id,
          samples: samples.map(([at, volts]) => [(at - first) / 3.6e6, volts]),
        })),
        remark: `From ${name}${log.thinnedFrom === null ? '' : `, up to ${log.thinnedFrom} readings a cell averaged to 300`}`,
      },
      `Voltages of ${log.cells.length} cells`,
    );
    opened.value = null;
    return `${log.count} readings of ${log.cells.length} cells recorded from ${name}.`;
  });
</script>

<template>
  <LogForm
    v-if="opened !== null"
    :key="opened.name + opened.text.length"
    :name="opened.name"
    :text="opened.text"
    :setting="logSetting"
    :modules="countedModules"
    :zone="zone"
    :busy="busy"
    @record="recordLog"
    @cancel="opened = null"
  />
  <section class="sheet-card" aria-label="Cells" data-balance-cells>
    <div class="card-head">
      <h2>Cells</h2>
      <select v-model="filter" class="form-select which" aria-label="Cells shown" @change="asked = null">
        <option v-for="one in filters" :key="one" :value="one">{{ one }}</option>
      </select>
      <span class="hint">{{ shownRows.length }} of {{ rows.length }}</span>
    </div>
    <EditGrid
      label="Cells"
      :rows="shownRows"
      :columns="columns"
      :sheet="sheet"
      :picked="picked"
      @pick="emit('pick', $event)"
    >
      <template #phase="{ row }">{{ phaseText(row, nowMs) }}</template>
      <template #verdict="{ row }"
        ><span
          :class="{
            bad: /too (high|low)/.test(row.outlook.verdict),
            good: row.outlook.verdict === 'will settle inside',
          }"
          >{{ verdictText(row, row.outlook) }}</span
        ></template
      >
    </EditGrid>
    <div v-if="session.mayRecord" class="acts">
      <label
        >meter
        <select v-model="meter" class="form-select" aria-label="Meter">
          <option value="">{{ meters[0]?.name ?? 'not registered' }}</option>
          <option v-for="one in meters.slice(1)" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </label>
      <BButton
        variant="primary"
        size="sm"
        :disabled="Object.keys(typed).length === 0 || open.length > 0 || busy"
        @click="recordTyped"
        >Record {{ Object.keys(typed).length }}</BButton
      >
      <BButton v-if="Object.keys(typed).length > 0 && !busy" variant="light" size="sm" @click="typed = {}"
        >Take what is typed back</BButton
      >
      <input
        ref="file"
        hidden
        type="file"
        accept=".csv,text/csv,text/plain"
        aria-label="File of readings"
        @change="openFile"
      />
      <BButton size="sm" variant="light" :disabled="busy" @click="file?.click()"
        >Readings from a file</BButton
      >
      <span v-if="said" role="status" :class="{ bad: said.startsWith('Not') }">{{ said }}</span>
    </div>
    <ul v-if="open.length > 0" class="doubts" role="alert">
      <li v-for="one in open" :key="one.key">
        <b>{{ one.tag }}</b> {{ one.question }}
        <BButton v-if="one.possible" variant="light" size="sm" @click="sure = new Set([...sure, one.key])"
          >It is right</BButton
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.which {
  width: 11rem;
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
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

.acts select {
  width: 13rem;
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
}

.bad {
  color: var(--tv-stop);
}

.good {
  color: var(--tv-pass);
}

.doubts {
  margin: 0.6rem 0 0;
  padding-left: 1.2rem;
  color: var(--tv-stop);
}
</style>
