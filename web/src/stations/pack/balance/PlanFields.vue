<script setup lang="ts">
import { planDefaults } from '@torvek/core/balance';
import FlagField from '../../../parts/FlagField.vue';
import NumberField from '../../../parts/NumberField.vue';
import TextField from '../../../parts/TextField.vue';
import type { Balance } from './use-balance';

/** What was decided about balancing: the fields that the chosen way asks for. */
defineProps<{ balance: Balance }>();
const at = (field: string) => `pack.balance.${field}`;
</script>

<template>
  <div class="plan-fields">
    <fieldset>
      <legend>level</legend>
      <NumberField :path="at('targetV')" label="Cells level at" unit="V" />
      <NumberField
        :path="at('toleranceV')"
        label="give or take"
        unit="mV"
        :scale="0.001"
        :fallback="planDefaults.toleranceV * 1000"
      />
      <NumberField
        :path="at('restHours')"
        label="A rest is over after"
        unit="h"
        :fallback="planDefaults.restHours"
      />
      <NumberField :path="at('bleedCurrentA')" label="Monitor bleeds" unit="A" />
      <NumberField
        v-if="balance.school.value !== 'bottom'"
        :path="at('bleedDutyFraction')"
        label="of the time"
        unit="%"
        :scale="0.01"
        :fallback="100"
      />
    </fieldset>
    <fieldset v-if="balance.school.value === 'bottom'">
      <legend>load</legend>
      <NumberField :path="at('loadOhm')" label="Resistor" unit="mΩ" :scale="0.001" />
      <NumberField :path="at('cutOffV')" label="Cuts off at" unit="V" />
      <NumberField :path="at('engageV')" label="On again at" unit="V" />
      <NumberField :path="at('drawHours')" label="On each cell" unit="h" />
      <FlagField :path="at('unattended')" label="May run with nobody there" />
    </fieldset>
    <fieldset v-else-if="balance.school.value === 'bench'">
      <legend>bars</legend>
      <NumberField :path="at('leadOhm')" label="Lead of a module" unit="mΩ" :scale="0.001" />
      <NumberField :path="at('leadLimitA')" label="It may carry" unit="A" />
    </fieldset>
    <fieldset>
      <legend>bench and people</legend>
      <template v-if="balance.school.value === 'bottom'">
        <NumberField :path="at('benches')" label="Benches" :fallback="planDefaults.benches" />
        <NumberField :path="at('people')" label="People" :fallback="planDefaults.people" />
        <NumberField
          :path="at('handMinutes')"
          label="On or off takes"
          unit="min"
          :fallback="planDefaults.handMinutes"
        />
      </template>
      <TextField :path="at('startsAt')" label="First day" placeholder="YYYY-MM-DD" />
      <NumberField :path="at('dayFromH')" label="The day from" unit="h" :fallback="planDefaults.dayFromH" />
      <NumberField :path="at('dayToH')" label="to" unit="h" :fallback="planDefaults.dayToH" />
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
