<script setup lang="ts">
import { parseQuantity } from '@torvek/core/quantity';
import { computed, ref, watch } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import Icon from '../../parts/Icon.vue';
import { useJob } from '../../stores/job';
import { useCircuit } from './use-circuit';

/** One period of the load: seconds and amperes, repeating. */
const job = useJob();
const { circuitId, circuit } = useCircuit();
const path = computed(() => `circuits.${circuitId.value}.loadProfile`);
const stored = computed(() => circuit.value?.loadProfile ?? []);
const rows = ref<[string, string][]>([]);
const problem = ref<string | null>(null);
watch(
  [stored, path] as const,
  ([profile, now], [, before]) => {
    // Steps that are wrong stay while they are of the same circuit.
    if (now !== before) problem.value = null;
    if (problem.value === null)
      rows.value = profile.map(([duration, current]) => [String(duration), String(current)]);
  },
  { immediate: true },
);

function commit(): void {
  const filled = rows.value.filter(([duration, current]) => duration.trim() !== '' || current.trim() !== '');
  const profile: [number, number][] = [];
  for (const [i, [duration, current]] of filled.entries()) {
    const seconds = parseQuantity(duration, 's');
    const amperes = parseQuantity(current, 'A');
    if (
      !seconds.ok ||
      !amperes.ok ||
      seconds.value <= 0 ||
      Math.abs(amperes.value) > 1e9 ||
      seconds.value > 1e9
    ) {
      problem.value = `Row ${i + 1}: seconds above 0, and amperes (negative when charging).`;
      return;
    }
    profile.push([seconds.value, amperes.value]);
  }
  problem.value = null;
  if (JSON.stringify(profile) === JSON.stringify(stored.value)) return;
  job.set(path.value, profile.length === 0 ? undefined : profile, 'Load profile');
}

function add(): void {
  rows.value = [...rows.value, ['', '']];
}

function remove(index: number): void {
  rows.value = rows.value.filter((_, i) => i !== index);
  commit();
}
</script>

<template>
  <div :data-path="path" class="profile">
    <div class="steps">
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col" class="num">for, s</th>
            <th scope="col" class="num">load, A</th>
            <th scope="col">
              <button
                type="button"
                class="btn btn-quiet btn-sm"
                aria-label="Add a step of the load"
                @click="add"
              >
                <Icon name="plus" :size="12" />
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in rows" :key="i">
            <td class="num">
              <input
                v-model="row[0]"
                class="form-control"
                inputmode="decimal"
                :aria-label="`Seconds of load step ${i + 1}`"
                @change="commit"
              />
            </td>
            <td class="num">
              <input
                v-model="row[1]"
                class="form-control"
                inputmode="decimal"
                :aria-label="`Amperes of load step ${i + 1}`"
                @change="commit"
              />
            </td>
            <td>
              <button
                type="button"
                class="btn btn-quiet btn-sm"
                :aria-label="`Remove load step ${i + 1}`"
                @click="remove(i)"
              >
                <Icon name="trash" :size="12" />
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <div class="sums">
      <FigureValue :id="`network.load:${circuitId}:rmsA`" show-label />
      <FigureValue :id="`network.load:${circuitId}:peakA`" show-label />
    </div>
  </div>
</template>

<style scoped>
.steps {
  max-height: 16rem;
  overflow-y: auto;
}

.profile {
  margin-bottom: 0.4rem;
}

.form-control {
  text-align: right;
  height: 1.7rem;
  border-color: transparent;
  background: transparent;
}

.form-control:focus,
.form-control:hover {
  border-color: var(--tv-line);
}

th:last-child,
td:last-child {
  width: 2.2rem;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.82rem;
  margin: 0.2rem 0;
}

.sums {
  display: flex;
  gap: 1.4rem;
  margin-top: 0.4rem;
}
</style>
