<script setup lang="ts">
import { jointBatches, jointStates, type JointState } from '@torvek/core/joints';
import type { JointWork } from '@torvek/core/record';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed, ref } from 'vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';
import PrecautionsBox from '../prove/PrecautionsBox.vue';
import WalkBar from './WalkBar.vue';
import { useWalk } from './use-walk';

/** The joints of one kind: torqued, then a drop at a known current; what lies far above the rest, and its heat. */
const props = defineProps<{ kind: string }>();
const job = useJob();
const item = computed(() => job.design.joints?.[props.kind]);
const batch = computed(() =>
  jointBatches(jointStates(job.design, job.present)).find(({ kind }) => kind === props.kind),
);
interface Row extends JointState {
  name: string;
  outlier: boolean;
}
const rows = computed<Row[]>(() =>
  (batch.value?.states ?? []).map((state, i) => ({
    ...state,
    name: state.tag,
    outlier: batch.value!.outliers[i]!,
  })),
);
const work = ref<JointWork>('drop');
const walk = useWalk(
  computed(() => work.value),
  rows,
  (id) => {
    if (work.value === 'torque') return item.value?.torqueNm ?? null;
    const { median } = batch.value?.scores ?? {};
    const known = rows.value.find((row) => row.id === id)?.drop?.ohm ?? median ?? null;
    return known === null || walk.currentA.value === null ? null : known * walk.currentA.value;
  },
);
const owner = ({ carries }: Row) =>
  'circuit' in carries ? carries.circuit : 'bar' in carries ? carries.bar : carries.string;
const through = (row: Row, name: 'rmsA' | 'peakA') =>
  job.figure(`joints.current:${owner(row)}:${name}`)?.value ?? null;
const heat = (row: Row, name: 'rmsA' | 'peakA') => {
  const amps = through(row, name);
  return amps === null || row.drop === null ? '' : formatQuantity(amps ** 2 * row.drop.ohm, 'W');
};
const day = (ms: number) => new Date(ms).toISOString().slice(0, 10);
const columns = computed<GridColumn<Row>[]>(() => [
  { id: 'tag', title: 'joint', kind: 'slot', label: 'Joint', width: '11rem' },
  work.value === 'torque'
    ? {
        id: 'typed',
        title: 'torqued now',
        kind: 'number',
        unit: 'N·m',
        label: 'Torqued with',
        path: ({ id }) => `torque.${id}`,
        width: '7.6rem',
      }
    : {
        id: 'typed',
        title: 'drop now',
        kind: 'number',
        unit: 'mV',
        scale: 0.001,
        label: 'Drop',
        path: ({ id }) => `drop.${id}`,
        width: '7.6rem',
      },
  {
    id: 'torque',
    title: 'torqued, N·m',
    kind: 'fixed',
    label: 'Torqued',
    text: ({ torque }) => (torque === null ? '' : `${formatNumber(torque.torqueNm)}, ${day(torque.atMs)}`),
    width: '9.4rem',
  },
  {
    id: 'ohm',
    title: 'resistance',
    kind: 'slot',
    label: 'Resistance',
    width: '6.4rem',
  },
  {
    id: 'times',
    title: '× middle',
    kind: 'fixed',
    label: 'Over the middle of its like',
    text: ({ drop }) => {
      const median = batch.value?.scores.median ?? null;
      return drop === null || median === null || median === 0 ? '' : formatNumber(drop.ohm / median, 2);
    },
    width: '4.6rem',
  },
  {
    id: 'heat',
    title: 'heat at the load, peak',
    kind: 'fixed',
    label: 'Heat at the load’s rms, at its peak',
    text: (row) => (row.drop === null ? '' : `${heat(row, 'rmsA')}, ${heat(row, 'peakA')}`),
    width: '10.4rem',
  },
  {
    id: 'due',
    title: 'again by',
    kind: 'fixed',
    label: 'To be torqued again by',
    text: ({ dueMs, torque }) => (dueMs !== null ? day(dueMs) : (torque?.times ?? 0) > 1 ? 'done' : ''),
  },
]);
const read = computed(() => rows.value.filter(({ drop }) => drop !== null));
const micro = (ohm: number) => ohm * 1e6;
const summary = computed(() => {
  const { scores, outliers = [] } = batch.value ?? {};
  if (scores?.median == null) return 'No drop is recorded of these joints yet.';
  const count = outliers.filter(Boolean).length;
  const far =
    scores.bounds === null
      ? 'too few to say which differ'
      : count === 0
        ? 'none lies far above the rest'
        : `${count} ${count === 1 ? 'lies' : 'lie'} far above the rest`;
  return `${read.value.length} of ${rows.value.length} joints are read; the middle is ${formatQuantity(scores.median, 'Ω')}, ${far}.`;
});
const options = computed(() => {
  const points = rows.value;
  const { scores } = batch.value ?? {};
  const limit = item.value?.limitOhm;
  return () => {
    const highest = Math.max(
      ...points.map(({ drop }) => micro(drop?.ohm ?? 0)),
      limit === undefined ? 0 : micro(limit),
      micro(scores?.median ?? 0) * 2,
    );
    const [ink, stop, hv] = [token('ink'), token('stop'), token('hv')];
    return {
      grid: { left: 52, right: 24, top: 30, bottom: 42 },
      tooltip: {
        trigger: 'item',
        renderMode: 'richText',
        formatter: ({ dataIndex }: { dataIndex: number }) => {
          const row = points[dataIndex];
          return row === undefined
            ? ''
            : `${row.tag}\n${row.drop === null ? '' : formatQuantity(row.drop.ohm, 'Ω')}`;
        },
      },
      xAxis: axis('x', {
        name: 'joints in the order of the walk',
        min: 0.5,
        max: points.length + 0.5,
        format: (v) => (Number.isInteger(v) ? String(v) : ''),
      }),
      yAxis: axis('y', { name: 'resistance, µΩ', min: 0, max: Math.ceil((highest * 1.15) / 10) * 10 }),
      series: [
        {
          id: 'joints',
          name: 'joints',
          type: 'scatter',
          data: points.map(({ drop, outlier, tag }, i) => ({
            name: tag,
            value: [i + 1, drop === null ? null : micro(drop.ohm)],
            symbol: outlier ? 'diamond' : 'circle',
            symbolSize: outlier ? 13 : 7,
            itemStyle: { color: outlier ? stop : hv },
            label: { show: outlier, formatter: tag, position: 'left', color: stop, fontSize: 12 },
          })),
          markLine: {
            precision: 12,
            symbol: 'none',
            silent: true,
            data: [
              ...(scores?.median == null
                ? []
                : [limitLine({ y: micro(scores.median) }, 'middle', ink, 'insideStartTop')]),
              ...(scores?.bounds == null
                ? []
                : [
                    limitLine(
                      { y: micro(scores.bounds[1]) },
                      'far above the rest',
                      token('mend'),
                      'insideEndTop',
                    ),
                  ]),
              ...(limit === undefined
                ? []
                : [
                    limitLine(
                      { y: micro(limit) },
                      `limit ${formatQuantity(limit, 'Ω')}`,
                      stop,
                      'insideEndTop',
                    ),
                  ]),
            ],
          },
        },
      ],
    };
  };
});
const table = computed(() => ({
  columns: ['joint', 'resistance, µΩ', '× middle'],
  rows: read.value.map(({ tag, drop }) => [
    tag,
    formatNumber(micro(drop!.ohm)),
    batch.value?.scores.median ? formatNumber(drop!.ohm / batch.value.scores.median, 2) : '',
  ]),
}));
const works = [
  { id: 'drop', text: 'Drops at a known current' },
  { id: 'torque', text: 'Torques' },
] as const;
</script>

<template>
  <section v-if="item !== undefined" class="sheet-card" aria-labelledby="walk-title" data-joint-walk>
    <div class="card-head">
      <h2 id="walk-title">Walk: {{ item.tag }}</h2>
      <select v-model="work" class="form-select which" aria-label="What the walk is for">
        <option v-for="one in works" :key="one.id" :value="one.id">{{ one.text }}</option>
      </select>
      <span class="hint">typed values wait here until they are recorded as one entry</span>
    </div>
    <p v-if="rows.length === 0" class="panel-empty">No joint of the design is of this kind yet.</p>
    <template v-else>
      <PrecautionsBox :hazard="item.on === 'modules' ? 'isolated' : 'part'" />
      <p class="soft how">
        A drop is read with the mains open and locked off, from a bench supply through the joint, the meter’s
        tips on the two conductors and not on the bolt. Posts of modules stay live: insulated tools, gloves,
        one hand.
      </p>
      <PlotView v-if="read.length > 0" :options="options" :summary="summary" :height="220" :table="table" />
      <EditGrid label="Joints" :rows="rows" :columns="columns" :sheet="walk.sheet">
        <template #tag="{ row }">{{ row.tag }}</template>
        <template #ohm="{ row }">
          <span :class="{ bad: row.outlier }">
            {{ row.drop === null ? '' : formatQuantity(row.drop.ohm, 'Ω') }}{{ row.outlier ? ' ◆' : '' }}
            <small v-if="row.dropStale" class="soft">before the torque</small>
          </span>
        </template>
      </EditGrid>
      <WalkBar :walk="walk" :work="work" />
    </template>
  </section>
</template>

<style scoped>
.which {
  width: 16rem;
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
}

.how {
  font-size: 0.88rem;
  margin: 0.3rem 0 0.6rem;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
