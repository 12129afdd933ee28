<script setup lang="ts">
import { bleedOf } from '@torvek/core/document';
import { computed } from 'vue';
import FlagField from '../../../parts/FlagField.vue';
import NumberField from '../../../parts/NumberField.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import type { Balance } from './use-balance';

/** What was decided about balancing: the fields that the chosen way asks for. */
defineProps<{ balance: Balance }>();
const job = useJob();
/** What the boards of Sense bleed by their part, where nothing else is set. */
const byBoards = computed(() => {
  const bleed = bleedOf(job.design);
  return bleed === null || bleed.typed ? undefined : bleed.currentA;
});
const at = (field: string) => `pack.balance.${field}`;
</script>

<template>
  <div class="plan-fields">
    <fieldset>
      <legend>level</legend>
      <NumberField :path="at('targetV')" />
      <NumberField :path="at('toleranceV')" label="give or take" />
      <NumberField :path="at('restHours')" />
      <NumberField :path="at('bleedCurrentA')" :fallback="byBoards" />
      <NumberField
        v-if="balance.school.value !== 'bottom'"
        :path="at('bleedDutyFraction')"
        label="of the time"
      />
    </fieldset>
    <fieldset v-if="balance.school.value === 'bottom'">
      <legend>load</legend>
      <NumberField :path="at('loadOhm')" />
      <NumberField :path="at('cutOffV')" />
      <NumberField :path="at('engageV')" />
      <NumberField :path="at('drawHours')" />
      <FlagField :path="at('unattended')" label="May run with nobody there" />
    </fieldset>
    <fieldset v-else-if="balance.school.value === 'bench'">
      <legend>bars</legend>
      <NumberField :path="at('leadOhm')" />
      <NumberField :path="at('leadLimitA')" />
    </fieldset>
    <fieldset>
      <legend>bench and people</legend>
      <template v-if="balance.school.value === 'bottom'">
        <NumberField :path="at('benches')" />
        <NumberField :path="at('people')" />
        <NumberField :path="at('handMinutes')" />
      </template>
      <TextField :path="at('startsAt')" label="First day" placeholder="YYYY-MM-DD" />
      <NumberField :path="at('dayFromH')" />
      <NumberField :path="at('dayToH')" label="to" />
      <FlagField :path="at('weekends')" label="Also on weekends" />
    </fieldset>
  </div>
</template>

<style scoped>
.plan-fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 0.4rem 1.6rem;
}

fieldset {
  display: grid;
  gap: 0.2rem;
  align-content: start;
}

legend {
  float: none;
  margin: 0;
  font-size: 0.85rem;
  color: var(--tv-soft);
}
</style>
