<script setup lang="ts">
import { useUnits } from '../stores/units';

/** The units this person reads and types in. */
const units = useUnits();
</script>

<template>
  <fieldset class="units">
    <legend>Units on this screen</legend>
    <label
      >Lengths<select v-model="units.choice.length" class="form-select">
        <option value="metric">mm, m</option>
        <option value="inch">inch, foot</option>
      </select></label
    >
    <label
      >Conductor areas<select v-model="units.choice.area" class="form-select">
        <option value="mm²">mm²</option>
        <option value="AWG">mm² and AWG</option>
      </select></label
    >
    <label
      >Temperatures<select v-model="units.choice.temperature" class="form-select">
        <option value="°C">°C</option>
        <option value="°F">°F</option>
      </select></label
    >
    <label
      >Pressures<select v-model="units.choice.pressure" class="form-select">
        <option value="bar">bar</option>
        <option value="kPa">kPa</option>
        <option value="psi">psi</option>
      </select></label
    >
    <p class="soft">
      Fields, tables and figures follow; a unit typed with a number always counts. Findings, working, plots
      and the record keep the units of the design.
    </p>
  </fieldset>
</template>

<style scoped>
.units {
  margin-top: 0.9rem;
  padding-top: 0.7rem;
  border-top: 1px solid var(--tv-line);
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem 0.6rem;
}

legend {
  font-size: 0.92rem;
  font-weight: 600;
  float: none;
  margin: 0;
  padding-top: 0.7rem;
}

label {
  font-size: 0.85rem;
}

.units p {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 0.82rem;
}
</style>
