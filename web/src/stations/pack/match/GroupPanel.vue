<script setup lang="ts">
import { groupModules, type GroupModule, type GroupWay } from '@torvek/core/balance';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useJob } from '../../../stores/job';
import { recordedSheet } from '../intake/sheet';

/** Measured modules sorted into groups so that the pack loses least. */
const job = useJob();
const way = ref<GroupWay>('series');
const strings = computed(() => Object.entries(job.design.strings));
const wanted = ref<number | ''>('');
/** Modules in a group: as the strings are now, unless it was typed. */
const size = computed(() => {
  const typed = Number(wanted.value);
  if (wanted.value !== '' && Number.isInteger(typed) && typed >= 1) return typed;
  return way.value === 'series' ? (strings.value[0]?.[1].modules.length ?? 0) : 2;
});
const measured = computed(() => {
  const { rows } = recordedSheet(job.design, job.assessment.steps, job.present);
  const strung = strings.value.flatMap(([, { modules }]) => modules);
  const order = [...new Set([...strung, ...Object.keys(rows)])];
  const missing: string[] = [];
  const modules = order.flatMap((id): GroupModule[] => {
    const row = rows[id];
    if (row?.capacityAh === undefined) {
      missing.push(job.design.modules[id]?.tag ?? id);
      return [];
    }
    return [
      {
        id,
        capacityAh: row.capacityAh,
        ...(row.resistanceOhm !== undefined && { resistanceOhm: row.resistanceOhm }),
      },
    ];
  });
  return { modules, missing };
});
const grouping = computed(() =>
  size.value < 1 || measured.value.modules.length < size.value
    ? null
    : groupModules(measured.value.modules, size.value, way.value),
);
const tag = (id: string) => job.design.modules[id]?.tag ?? id;
const gain = computed(() =>
  grouping.value === null ? 0 : grouping.value.packAh - grouping.value.asTheyComeAh,
);
const kinds = computed(() => new Set(Object.values(job.design.modules).map(({ part }) => part)).size);
/** Groups in series can become the strings when there are as many of them, as long, of one kind of module. */
const takeable = computed(
  () =>
    way.value === 'series' &&
    grouping.value !== null &&
    kinds.value === 1 &&
    measured.value.missing.length === 0 &&
    grouping.value.left.length === 0 &&
    grouping.value.groups.length === strings.value.length &&
    strings.value.every(([, { modules }]) => modules.length === size.value),
);
function take(): void {
  const groups = grouping.value?.groups ?? [];
  job.change('Strings by measured capacity', (draft) => {
    strings.value.forEach(([id], i) => {
      draft.strings[id]!.modules = [...groups[i]!.ids];
    });
  });
}
</script>

<template>
  <section class="sheet-card group" aria-label="Group" data-group>
    <div class="card-head">
      <h2>Group</h2>
      <span class="hint">modules of measured capacity sorted so that the pack loses least</span>
    </div>
    <div class="asks">
      <label
        >joined
        <select v-model="way" class="form-select" aria-label="How groups are joined">
          <option value="series">in series: strings of like modules</option>
          <option value="parallel">side by side: steps of like sums</option>
        </select>
      </label>
      <label
        >modules in a group
        <input
          v-model="wanted"
          class="form-control"
          inputmode="numeric"
          aria-label="Modules in a group"
          :placeholder="String(size)"
        />
      </label>
    </div>
    <p v-if="measured.modules.length === 0" class="soft">
      Not computed, because no capacity has been recorded at intake.
    </p>
    <p v-else-if="grouping === null" class="soft">
      Not computed, because {{ measured.modules.length }} measured
      {{ measured.modules.length === 1 ? 'module makes' : 'modules make' }} no group of {{ size }}.
    </p>
    <template v-else>
      <p data-gain>
        <b>{{ formatNumber(grouping.packAh, 4) }} Ah</b> as grouped,
        {{ formatNumber(grouping.asTheyComeAh, 4) }} Ah as they come{{
          gain > 0.05 ? `: ${formatNumber(gain, 2)} Ah gained` : ': nothing to be gained by sorting'
        }}.
      </p>
      <table class="grid-table">
        <thead>
          <tr>
            <th>{{ way === 'series' ? 'string' : 'step' }}</th>
            <th class="num">Ah</th>
            <th class="num">resistance, mΩ</th>
            <th v-if="way === 'parallel'" class="num">most loaded, over an even share</th>
            <th>modules</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(group, i) in grouping.groups" :key="i">
            <td>{{ way === 'series' ? (strings[i]?.[1].tag ?? i + 1) : i + 1 }}</td>
            <td class="num">{{ formatNumber(group.capacityAh, 4) }}</td>
            <td class="num">
              {{ group.resistanceOhm === null ? '—' : formatNumber(group.resistanceOhm * 1000) }}
            </td>
            <td v-if="way === 'parallel'" class="num">
              {{ group.shareOver === null ? '—' : `+${formatNumber(group.shareOver * 100, 2)} %` }}
            </td>
            <td class="tags">{{ group.ids.map(tag).join(', ') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="grouping.left.length > 0" class="soft">
        Left over, the weakest: {{ grouping.left.map(tag).join(', ') }}.
      </p>
      <p v-if="measured.missing.length > 0" class="soft">
        Not measured: {{ measured.missing.slice(0, 8).join(', ')
        }}{{ measured.missing.length > 8 ? ` and ${measured.missing.length - 8} more` : '' }}.
      </p>
      <BButton v-if="takeable" size="sm" variant="light" :disabled="!job.editable" @click="take"
        >Take as the strings</BButton
      >
    </template>
  </section>
</template>

<style scoped>
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  margin-bottom: 0.5rem;
}

.asks label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

.asks .form-control {
  width: 4rem;
  text-align: right;
}

.tags {
  white-space: normal;
}
</style>
