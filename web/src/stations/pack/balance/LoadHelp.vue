<script setup lang="ts">
import { chooseLoad, drawDown, leastPilots, recipeOf, type Pilot } from '@torvek/core/balance';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useJob } from '../../../stores/job';
import type { Balance } from './use-balance';
import { someTags } from './words';

/** The load resistor with its heat and hours, and the recipe from pilots. */
const props = defineProps<{ balance: Balance }>();
const job = useJob();
const { plan, rows, toleranceV } = props.balance;
const wantedH = ref(4);
const data = computed(() => rows.value[0]?.data ?? null);
/** Cells that wait: what the highest of them has, or half full by the table. */
const fromV = computed(() => {
  const waiting = rows.value.filter(({ phase, last }) => phase === 'waiting' && last !== null);
  if (waiting.length > 0)
    return { volts: Math.max(...waiting.map(({ last }) => last!.voltageV)), from: 'the highest reading' };
  const measured = job.assessment.steps.flatMap(({ step, entry }) =>
    step.template === 'intake-voltage' && entry?.body.measured.kind === 'value'
      ? [entry.body.measured.value / (data.value?.cellsInSeries ?? 1)]
      : [],
  );
  return measured.length > 0 ? { volts: Math.max(...measured), from: 'the highest at intake' } : null;
});
const base = computed(() => {
  const { cutOffV } = plan.value;
  if (data.value === null || cutOffV === undefined || fromV.value === null) return null;
  const { cell, cellsInParallel } = data.value;
  return {
    ocvTable: cell.ocvTable,
    capacityAh: cell.capacityAh * cellsInParallel,
    resistanceOhm: cell.resistanceOhm / cellsInParallel,
    fromV: fromV.value.volts,
    cutOffV,
  };
});
const current = computed(() =>
  base.value === null || plan.value.loadOhm === undefined || !(plan.value.loadOhm > 0)
    ? null
    : drawDown({ ...base.value, loadOhm: plan.value.loadOhm }),
);
const choices = computed(() => {
  if (base.value === null || !(wantedH.value > 0)) return [];
  const all = chooseLoad(base.value, data.value!.continuousA, wantedH.value);
  const fitting = all.filter(({ fits }) => fits);
  return (fitting.length > 0 ? fitting : all).slice(0, 4);
});
const hoursText = (hours: number) =>
  hours < 1 ? `${formatNumber(hours * 60, 2)} min` : `${formatNumber(hours, 2)} h`;

/** Every cell that was drawn once and whose end is known is a pilot for those behind it. */
const pilots = computed((): Pilot[] =>
  rows.value.flatMap(({ id, stretches, phase, outlook }) => {
    const last = stretches.at(-1);
    if (phase !== 'resting' || last === undefined || last.toMs === null || last.gear !== 'load') return [];
    if (outlook.settledV === null || outlook.verdict === 'too early to tell') return [];
    const cutOffV = cutOffs.value.get(`${id}:${last.fromMs}`) ?? plan.value.cutOffV;
    return cutOffV === undefined
      ? []
      : [{ id, cutOffV, hours: (last.toMs - last.fromMs) / 3.6e6, settledV: outlook.settledV }];
  }),
);
/** The cut-off that each load had, by the record. */
const cutOffs = computed(() => {
  const found = new Map<string, number>();
  for (const { body, takenAt } of job.entries) {
    if (body.kind !== 'balance' || body.act !== 'on') continue;
    const value = body.recipe.find(({ label }) => label === 'cut-off')?.value;
    if (value != null) for (const cell of body.cells) found.set(`${cell}:${Date.parse(takenAt)}`, value);
  }
  return found;
});
const recipe = computed(() => {
  const { targetV } = plan.value;
  if (targetV === undefined || data.value === null) return null;
  return recipeOf(pilots.value, targetV, toleranceV.value, data.value.cell.minV);
});
const tagOf = (id: string) => rows.value.find((row) => row.id === id)?.tag ?? id;
</script>

<template>
  <div class="help">
    <section aria-label="Load resistor">
      <h3>Load resistor</h3>
      <p v-if="base === null" class="soft">
        Not computed, because
        {{ plan.cutOffV === undefined ? 'the cut-off is not given' : 'no cell has been measured' }}.
      </p>
      <template v-else>
        <p v-if="current !== null" class="line" data-load>
          {{ formatQuantity(plan.loadOhm!, 'Ω') }} draw <b>{{ formatNumber(current.startA) }} A</b> and make
          <b>{{ formatNumber(current.startW) }} W</b> of heat at first; the load first cuts off after
          <b>{{ hoursText(current.hours) }}</b>, with {{ formatNumber(current.ah) }} Ah and
          {{ formatNumber(current.heatWh) }} Wh out of the cell.
        </p>
        <label class="ask"
          >Within
          <input
            v-model.number="wantedH"
            class="form-control"
            inputmode="decimal"
            aria-label="Hours wanted"
          />
          h, from {{ formatNumber(fromV!.volts, 4) }} V ({{ fromV!.from }}):</label
        >
        <table class="grid-table" aria-label="Load resistors">
          <thead>
            <tr>
              <th class="num">resistor</th>
              <th class="num">at first, A</th>
              <th class="num">heat, W</th>
              <th class="num">until it cuts off</th>
              <th class="num">rating, W</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in choices" :key="one.loadOhm">
              <td class="num">{{ formatQuantity(one.loadOhm, 'Ω') }}</td>
              <td class="num">{{ formatNumber(one.startA) }}</td>
              <td class="num">{{ formatNumber(one.startW) }}</td>
              <td class="num">{{ hoursText(one.hours) }}</td>
              <td class="num">{{ one.ratedW ?? '—' }}</td>
              <td>
                <BButton
                  v-if="one.fits"
                  size="sm"
                  variant="light"
                  :disabled="!job.editable || one.loadOhm === plan.loadOhm"
                  @click="
                    job.set('pack.balance.loadOhm', one.loadOhm, `Load: ${formatQuantity(one.loadOhm, 'Ω')}`)
                  "
                  >{{ one.loadOhm === plan.loadOhm ? 'chosen' : 'take' }}</BButton
                >
                <span v-else class="soft">{{ one.reasons.join(', ') }}</span>
              </td>
            </tr>
          </tbody>
        </table>
        <p class="soft">
          Half of a resistor’s rating is used, on its heat sink. Recovering and drawing again is not in the
          hours: pilots show how long it takes.
        </p>
      </template>
    </section>
    <section aria-label="Recipe from pilots">
      <h3>Recipe from pilots</h3>
      <p v-if="recipe === null" class="soft">Not computed, because the target is not given.</p>
      <p v-else-if="!recipe.ok" class="soft">
        Not computed, because {{ recipe.because }}. Draw {{ leastPilots }} cells first, alike, and let them
        rest.
      </p>
      <template v-else>
        <p class="line" data-recipe>
          {{ recipe.recipe.pilots }} cells, each {{ formatNumber(recipe.recipe.hours, 2) }} h under load,
          crept back by <b>{{ formatNumber(recipe.recipe.reboundV * 1000) }} mV</b> (the middle of them). To
          settle at {{ formatNumber(plan.targetV!, 4) }} V the load should cut off at
          <b>{{ formatNumber(recipe.recipe.cutOffV, 4) }} V</b>:
          {{ formatNumber(recipe.recipe.insideFraction * 100, 2) }} % of them would land inside.
        </p>
        <p v-for="doubt in recipe.doubts" :key="doubt" class="bad">{{ doubt }}.</p>
        <p v-if="recipe.recipe.landing.some(({ inside }) => !inside)" class="soft">
          Outside by it:
          {{ someTags(recipe.recipe.landing.filter(({ inside }) => !inside).map(({ id }) => tagOf(id))) }}.
        </p>
        <BButton
          size="sm"
          variant="light"
          :disabled="!job.editable || Math.abs(recipe.recipe.cutOffV - (plan.cutOffV ?? 0)) < 0.0005"
          @click="
            job.set(
              'pack.balance.cutOffV',
              Math.round(recipe.recipe.cutOffV * 1000) / 1000,
              `Load cuts off at ${formatNumber(recipe.recipe.cutOffV, 4)} V`,
            )
          "
          >Take this cut-off</BButton
        >
      </template>
    </section>
  </div>
</template>

<style scoped>
.help {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr);
  gap: 1.6rem;
  margin-top: 0.8rem;
}

h3 {
  font-size: 1rem;
  margin: 0 0 0.3rem;
}

.line {
  margin: 0 0 0.4rem;
}

.ask {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}

.ask .form-control {
  width: 4rem;
  height: 1.8rem;
  text-align: right;
}

.bad {
  color: var(--tv-stop);
  margin: 0 0 0.3rem;
}

@media (max-width: 1000px) {
  .help {
    grid-template-columns: 1fr;
  }
}
</style>
