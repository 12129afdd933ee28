<script setup lang="ts">
import { highPoints, postureOf, testOf } from '@torvek/core/cooling';
import { figureId, type FigureName } from '@torvek/core/figure';
import { coolantNoticed, flowNoticed, type Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import { useJob } from '../../../stores/job';
import { useLoops } from '../use-loops';
import { leakRows } from './leaks';
import { dayOf } from '../../../parts/dates';

/** What a loop holds, how it is filled and bled by its heights, and its leak tests with their corrected drop. */
const job = useJob();
const { loops, ids, loopId, loop, pick } = useLoops();
const fig = (name: FigureName<'cooling.fill'>) => figureId('cooling.fill', loopId.value, name);
const options = (all: readonly string[]) => all.map((value) => ({ value, text: value }));
const joins = computed(() =>
  Object.entries(job.design.joins ?? {}).filter(([, join]) => join.loop === loopId.value),
);
const ways = computed(() =>
  Object.values(job.design.plumbing ?? {}).flatMap(({ loop: own, from, to }) =>
    own === loopId.value && from !== undefined && to !== undefined ? [{ from, to }] : [],
  ),
);
/** Heights as the vehicle stands while it is filled. */
const posture = computed(() => postureOf(loop.value ?? { tag: '' }, Object.fromEntries(joins.value)));
const highs = computed(() => highPoints(posture.value.heights, ways.value));
/** From the lowest to the highest: what is filled first, where air is let out. */
const order = computed(() => {
  const high = new Map(highs.value.map((level) => [level[0]!, level]));
  return joins.value
    .flatMap(([id, { tag, bleed }]) => {
      const zM = posture.value.heights.get(id);
      return zM === undefined ? [] : [{ id, tag, bleed, zM }];
    })
    .sort((a, b) => a.zM - b.zM)
    .map(({ id, tag, zM, bleed }) => {
      const level = high.get(id);
      const isBled = bleed === true || id === loop.value?.tank;
      const what =
        id === loop.value?.tank
          ? 'tank: filled here'
          : bleed === true
            ? 'let air out here'
            : level === undefined
              ? ''
              : level.some((one) => job.design.joins?.[one]?.bleed === true || one === loop.value?.tank)
                ? ''
                : 'air stays here: no bleed';
      return { id, tag, zM, what, isBled, trapped: what.startsWith('air stays') };
    });
});
const top = computed(() => Math.max(0.01, ...order.value.map(({ zM }) => zM)));
/** The ground, or what lies below the one under the front axle. */
const foot = computed(() => Math.min(0, ...order.value.map(({ zM }) => zM)));
const test = computed(() => (loop.value === undefined ? null : testOf(loop.value)));
const leaks = computed(() => leakRows(job.design, job.procedure, job.assessment.steps, loopId.value as Id));
const n = (value: number) => formatNumber(value, 3);
const day = (instant: string) => dayOf(instant, job.design.settings.zone);
</script>

<template>
  <section class="sheet-card" aria-labelledby="fill-title" data-fill>
    <div class="card-head">
      <h2 id="fill-title">Fill and leak</h2>
      <div class="chips" role="group" aria-label="Loops">
        <button
          v-for="id in ids"
          :key="id"
          type="button"
          class="btn btn-sm"
          :class="id === loopId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="id === loopId"
          @click="pick(id)"
        >
          {{ loops[id]?.tag }}
        </button>
      </div>
    </div>
    <p v-if="!loop" class="panel-empty">No coolant loop yet: make one under Loops.</p>
    <template v-else>
      <div class="figures">
        <FigureValue :id="fig('volumeL')" label="Holds" show-label />
        <FigureValue :id="fig('expansionL')" label="Expands by" show-label />
        <FigureValue :id="fig('neededTankL')" label="Tank needed" show-label />
      </div>
      <div class="two">
        <ChoiceField
          :path="`loops.${loopId}.tank`"
          label="Tank"
          :options="joins.map(([value, { tag }]) => ({ value, text: tag }))"
          none="none"
        />
        <ChoiceField
          :path="`loops.${loopId}.lostFlow`"
          label="Lost flow is noticed by"
          :options="options(flowNoticed)"
          none="not given"
        />
        <ChoiceField
          :path="`loops.${loopId}.lostCoolant`"
          label="Lost coolant is noticed by"
          :options="options(coolantNoticed)"
          none="not given"
        />
        <NumberField :path="`loops.${loopId}.tankL`" />
        <NumberField :path="`loops.${loopId}.volumeL`" />
        <NumberField :path="`loops.${loopId}.tankReserveFraction`" />
        <NumberField :path="`loops.${loopId}.fillNoseUpDeg`" />
        <NumberField :path="`loops.${loopId}.fillLeftUpDeg`" />
        <NumberField :path="`loops.${loopId}.testKPa`" />
        <NumberField :path="`loops.${loopId}.testMinutes`" />
        <NumberField :path="`loops.${loopId}.testDropKPa`" />
      </div>
    </template>
  </section>
  <section v-if="loop" class="sheet-card" aria-labelledby="order-title" data-order>
    <div class="card-head">
      <h3 id="order-title">From the lowest to the highest</h3>
      <span class="hint"
        >filled slowly at the tank{{ posture.words === null ? '' : `, with ${posture.words}` }}; air goes up
        and is let out in this order</span
      >
    </div>
    <p v-if="order.length === 0" class="panel-empty">
      {{
        posture.words === null
          ? 'No join has a height yet: they stand under Loops, Joins and heights.'
          : 'No join has a place and a height yet: they stand under Loops, Joins and heights.'
      }}
    </p>
    <table v-else class="grid-table heights">
      <tbody>
        <tr v-for="row in order" :key="row.id" :class="{ trapped: row.trapped }">
          <th scope="row">{{ row.tag }}</th>
          <td class="num">{{ n(row.zM) }} m</td>
          <td class="scale">
            <span
              class="mark"
              :class="{ out: row.isBled }"
              :style="{ marginLeft: `${(88 * (row.zM - foot)) / (top - foot)}%` }"
            />
          </td>
          <td>{{ row.trapped ? `◆ ${row.what}` : row.what }}</td>
        </tr>
      </tbody>
    </table>
  </section>
  <section v-if="loop" class="sheet-card" aria-labelledby="leak-title" data-leaks>
    <div class="card-head">
      <h3 id="leak-title">Leak tests</h3>
      <span v-if="test" class="hint"
        >plate on the bench, box assembled, loop in the vehicle: {{ n(test.testKPa) }} kPa,
        {{ n(test.testMinutes) }} min</span
      >
    </div>
    <p v-if="leaks.length === 0" class="panel-empty">Nothing to test yet.</p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th scope="col">test</th>
          <th scope="col">state</th>
          <th scope="col" class="num">gauge fell by</th>
          <th scope="col" class="num">corrected</th>
          <th scope="col">when, by whom</th>
          <th scope="col"><span class="visually-hidden">record</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in leaks" :key="row.step">
          <th scope="row">{{ row.title }}</th>
          <td>{{ row.state }}</td>
          <td class="num">{{ row.rawKPa === null ? '' : `${n(row.rawKPa)} kPa` }}</td>
          <td class="num">
            <b>{{ row.correctedKPa === null ? '' : `${n(row.correctedKPa)} kPa` }}</b>
          </td>
          <td>{{ row.at === null ? '' : `${day(row.at)}, ${row.by}` }}</td>
          <td>
            <RouterLink
              :to="{ name: 'prove', params: { job: job.id }, query: { step: row.step } }"
              :aria-label="`${row.at === null ? 'record' : 'again'}: ${row.title}`"
              >{{ row.at === null ? 'record' : 'again' }}</RouterLink
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      Pressure falls with temperature and rises with a falling barometer: a drop counts once corrected for
      both. Never more than the weakest part’s maker allows.
    </p>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.4rem 0;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}

.heights .scale {
  width: 34%;
  background: linear-gradient(to right, transparent, var(--tv-recess));
}

.mark {
  display: block;
  width: 0.7rem;
  height: 0.7rem;
  border-radius: 50%;
  background: var(--tv-coolant);
}

.mark.out {
  background: var(--tv-sheet);
  border: 2px solid var(--tv-coolant);
}

.trapped td:last-child {
  color: var(--tv-mend);
  font-weight: 600;
}
</style>
