<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import ChoiceField from '../../../parts/ChoiceField.vue';
import NumberField from '../../../parts/NumberField.vue';
import { saveCsv, saveJson } from '../../../parts/save-csv';
import { useJob } from '../../../stores/job';
import { limitJson, limitRows, limitTable } from './limits';

/** What the monitor is set to: voltages of a cell, and currents by temperature. */
const job = useJob();
const rows = computed(() => limitRows(job.design));
const n = (value: number | null) => (value === null ? 'not given' : formatNumber(value, 3));
const most = computed(() => Math.max(1, ...(rows.value ?? []).map(({ chargeA }) => chargeA ?? 0)));
</script>

<template>
  <section class="sheet-card" aria-labelledby="limits-title" data-limits>
    <div class="card-head">
      <h2 id="limits-title">Limits for the unit that is fitted</h2>
      <div v-if="rows" class="chips">
        <BButton size="sm" variant="light" @click="saveCsv(job.name, 'limits', limitTable(rows))"
          >CSV</BButton
        >
        <BButton
          size="sm"
          variant="light"
          @click="saveJson(job.name, 'limits', limitJson(job.name, job.design, rows))"
          >JSON</BButton
        >
      </div>
    </div>
    <div class="fields">
      <NumberField path="limits.cutHighV" label="Cuts above" />
      <NumberField path="limits.warnHighV" label="Warns above" />
      <NumberField path="limits.balanceFromV" label="Balances from" />
      <NumberField path="limits.spreadMv" />
      <NumberField path="limits.warnLowV" label="Warns below" />
      <NumberField path="limits.cutLowV" label="Cuts below" />
      <ChoiceField
        path="limits.chargeByTemperature"
        label="Holds the charge by temperature"
        :options="[
          { value: true, text: 'yes' },
          { value: false, text: 'no' },
        ]"
        none="not said"
      />
    </div>
    <p>
      Against all other devices they stand in the
      <RouterLink :to="{ name: 'charge', params: { job: job.id }, query: { panel: 'ladder' } }"
        >cut-off ladder</RouterLink
      >.
    </p>
    <table v-if="rows" class="grid-table">
      <thead>
        <tr>
          <th scope="col" class="num">cells at, °C</th>
          <th scope="col" class="num">charge at most, A</th>
          <th scope="col" />
          <th scope="col" class="num">discharge at most, A</th>
          <th scope="col">by</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.temperatureC" :data-temperature="row.temperatureC">
          <th scope="row" class="num">{{ row.temperatureC }}</th>
          <td class="num">{{ n(row.chargeA) }}</td>
          <td><span class="bar" :style="{ width: `${(160 * (row.chargeA ?? 0)) / most}px` }" /></td>
          <td class="num">{{ n(row.dischargeA) }}</td>
          <td class="soft">{{ row.by }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="panel-empty">It takes the modules of the pack.</p>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  gap: 0.3rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}

.bar {
  display: inline-block;
  height: 0.7rem;
  background: var(--tv-act);
}
</style>
