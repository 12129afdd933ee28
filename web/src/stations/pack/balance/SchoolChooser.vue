<script setup lang="ts">
import { schools } from '@torvek/core/balance';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';
import type { Balance } from './use-balance';
import { weekdayOf } from '../../../parts/dates';

/** Where the cells are brought level, with what each way costs here. */
const props = defineProps<{ balance: Balance }>();
const job = useJob();
const { bleeding, joining, schedule, school, zone, rows } = props.balance;

/** What each way comes to with this pack, or what it lacks. */
const facts = computed(() => {
  const bleed = bleeding.value;
  const join = joining.value;
  const most = bleed === null ? 0 : Math.max(...bleed.hoursPerCell.map(({ ah }) => ah));
  return {
    top:
      bleed === null
        ? 'Not computed yet: it needs a bleed current and a reading of the cells.'
        : `${formatNumber(most)} Ah at the most, ${formatNumber(bleed.totalHours)} h of bleeding.`,
    bottom:
      school.value === 'bottom' && schedule.value.endMs !== null
        ? `${rows.value.length} cells, the last rest over ${weekdayOf(schedule.value.endMs, zone.value)}.`
        : 'Rounds, benches and days follow from the plan below.',
    bench:
      join.result === null
        ? `Not computed, because ${join.because}.`
        : `${formatNumber(join.result.worstA)} A at the most when joined${join.result.withinLimits ? '' : ', over a limit'}; ${join.result.hours === null ? 'not level within a year' : `level after ${formatNumber(join.result.hours, 2)} h`}.`,
  };
});
</script>

<template>
  <div class="schools" role="radiogroup" aria-label="Where cells are brought level">
    <label
      v-for="one in schools"
      :key="one.id"
      class="school"
      :class="{ here: school === one.id, locked: !job.editable }"
      data-path="pack.balance.school"
    >
      <span class="head">
        <input
          type="radio"
          name="balance-school"
          class="form-check-input"
          :value="one.id"
          :checked="school === one.id"
          :disabled="!job.editable"
          @change="job.set('pack.balance.school', one.id, `Balancing: ${one.title.toLowerCase()}`)"
        />
        <b>{{ one.title }}</b>
      </span>
      <span class="how">{{ one.how }}</span>
      <span class="trade"><b>+</b> {{ one.gains }}</span>
      <span class="trade"><b>–</b> {{ one.costs }}</span>
      <span class="fact">{{ facts[one.id] }}</span>
    </label>
  </div>
</template>

<style scoped>
.schools {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.6rem;
}

.school {
  display: grid;
  grid-template-rows: auto auto auto auto 1fr;
  gap: 0.2rem;
  padding: 0.5rem 0.7rem;
  background: var(--tv-recess);
  border-left: 3px solid transparent;
  border-radius: 2px;
  cursor: pointer;
  font-size: 0.88rem;
}

.school.here {
  background: var(--tv-pick);
  border-left-color: var(--tv-act);
}

.locked {
  cursor: default;
}

.head {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 1rem;
}

.head .form-check-input {
  margin: 0;
}

.trade {
  display: grid;
  grid-template-columns: 0.9rem 1fr;
  color: var(--tv-soft);
}

.fact {
  font-weight: 600;
  align-self: end;
}

@media (max-width: 800px) {
  .schools {
    grid-template-columns: 1fr;
  }
}
</style>
