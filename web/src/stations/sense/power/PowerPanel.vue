<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import NumberField from '../../../parts/NumberField.vue';
import { useJob } from '../../../stores/job';
import FirstSpin from './FirstSpin.vue';
import PlugOrder from './PlugOrder.vue';
import RestartHunt from './RestartHunt.vue';

/** First power-up: plugs in their order, each board found, each channel, sensor and limit; and what makes a unit restart. */
const job = useJob();
const gates = ['sense', 'power-up'];
const steps = computed(() => job.assessment.steps.filter(({ step }) => gates.includes(step.gate)));
const boards = computed(() => {
  const rows = new Map<string, { tag: string; by: Record<string, (typeof steps.value)[number]> }>();
  for (const status of steps.value) {
    const [template = ''] = status.step.id.split(':');
    for (const { id, tag } of status.step.subjects.slice(0, 1)) {
      const row = rows.get(id) ?? { tag, by: {} };
      row.by[template] = status;
      rows.set(id, row);
    }
  }
  return [...rows].map(([id, row]) => ({ id, ...row }));
});
const columns = [
  { id: 'sense-continuity', title: 'wires' },
  { id: 'sense-thermistors', title: 'sensors at plug' },
  { id: 'sense-ladder', title: 'ladder' },
  { id: 'unit-plugged', title: 'after plug' },
  { id: 'unit-found', title: 'found' },
  { id: 'unit-channels', title: 'channels' },
  { id: 'unit-sensors', title: 'sensors at rest' },
  { id: 'unit-warmed', title: 'sensors warmed' },
  { id: 'unit-loop', title: 'output closed' },
  { id: 'unit-trips', title: 'limits crossed' },
];
const words = { due: 'due', passed: 'passed', failed: 'failed', stale: 'again' } as const;
</script>

<template>
  <div class="power">
    <section class="sheet-card" aria-labelledby="power-title" data-power>
      <div class="card-head">
        <h2 id="power-title">First power-up, board by board</h2>
        <span class="hint">each cell leads to its step in Prove</span>
      </div>
      <p v-if="boards.length === 0" class="panel-empty">
        No board reads a cell yet: see Map. Boards of donors that stay in their modules are read through their
        own messages.
      </p>
      <table v-else class="grid-table boards">
        <thead>
          <tr>
            <th scope="col">string or board</th>
            <th v-for="column in columns" :key="column.id" scope="col">{{ column.title }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in boards" :key="row.id" :data-row="row.id">
            <th scope="row">{{ row.tag }}</th>
            <td v-for="column in columns" :key="column.id">
              <RouterLink
                v-if="row.by[column.id]"
                class="state"
                :class="row.by[column.id]!.state"
                :aria-label="`${row.by[column.id]!.step.expected === null ? 'gap' : words[row.by[column.id]!.state]}: ${row.by[column.id]!.step.title}`"
                :to="{ name: 'prove', params: { job: job.id }, query: { step: row.by[column.id]!.step.id } }"
                >{{
                  row.by[column.id]!.step.expected === null ? 'gap' : words[row.by[column.id]!.state]
                }}</RouterLink
              >
            </td>
          </tr>
        </tbody>
      </table>
      <div class="fields">
        <NumberField path="sensing.sensorOhm" />
        <NumberField path="sensing.channelMv" />
        <NumberField path="sensing.reactionS" />
      </div>
    </section>
    <PlugOrder />
    <FirstSpin />
    <RestartHunt />
  </div>
</template>

<style scoped>
.boards th {
  vertical-align: bottom;
  white-space: normal;
}

.boards th,
.boards td {
  padding-right: 0.2rem;
  padding-left: 0.2rem;
}

.power {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}

.state {
  display: inline-block;
  min-width: 4.2rem;
  min-height: 28px;
  padding: 0.1rem 0.4rem;
  border-left: 4px solid var(--tv-line);
}

.state.passed {
  border-left-color: var(--tv-pass);
}

.state.failed {
  border-left-color: var(--tv-stop);
  font-weight: 700;
}

.state.stale {
  border-left: 4px dashed var(--tv-mend);
}

.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  margin-top: 0.6rem;
}

.fields :deep(.number-field) {
  width: 22rem;
}
</style>
