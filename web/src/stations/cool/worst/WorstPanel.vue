<script setup lang="ts">
import { cellLimits } from '@torvek/core/charging';
import { schoolsOf } from '@torvek/core/cooling';
import { packLayout } from '@torvek/core/pack';
import { figureId } from '@torvek/core/figure';
import { coolingSchools } from '@torvek/core/document';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import { useJob } from '../../../stores/job';
import { useUnits } from '../../../stores/units';
import { caseTitles, useLoops } from '../use-loops';
import AirBoxes from './AirBoxes.vue';

/** The worst that is asked: what each load reaches then, and one loop for all against loops of their own. */
const job = useJob();
const units = useUnits();
const { ids, loops, answerOf } = useLoops();
const hill = (name: 'powerW' | 'currentA' | 'packHeatW') => figureId('cooling.hill', 'vehicle', name);
const charge = (at: 'fast' | 'home', name: 'minutes' | 'packHeatW') => figureId('cooling.charge', at, name);
const c = (value: number | null) => {
  if (value === null) return '—';
  const { number, unit } = units.show(value, '°C', 3);
  return `${number} ${unit}`;
};
const rows = computed(() =>
  ids.value.flatMap((loop) => {
    const answer = answerOf(loop);
    if (answer === null) return [];
    return answer.cases.flatMap(({ at, piecesC, gaps }) => {
      const loads = answer.elements.flatMap(({ id }) => {
        const one = piecesC?.[id];
        return one !== undefined && one !== null && one.heatW > 0
          ? [{ id, tag: job.design.plumbing?.[id]?.tag ?? id, ...one }]
          : [];
      });
      const plates = loads.filter(({ id }) => job.design.plumbing?.[id]?.kind === 'plate');
      if (plates.length > 2) {
        const hottest = plates.reduce((top, one) => ((one.surfaceC ?? 0) > (top.surfaceC ?? 0) ? one : top));
        const together = {
          ...hottest,
          tag: `${plates.length} plates; the hottest: ${hottest.tag}`,
          heatW: plates.reduce((sum, one) => sum + one.heatW, 0),
        };
        loads.splice(0, loads.length, together, ...loads.filter((one) => !plates.includes(one)));
      }
      return [{ loop: loops.value[loop]!.tag, at, loads, known: gaps.length === 0 && piecesC !== null }];
    });
  }),
);
const limits = computed(() =>
  cellLimits(job.design.cooling, packLayout(job.design).layout?.part.data.chemistry),
);
const schools = computed(() => schoolsOf(job.design, answerOf, job.figure.bind(job)));
const has = (id: string) => job.figure(id as never) !== undefined;
</script>

<template>
  <section class="sheet-card" aria-labelledby="worst-title" data-worst>
    <div class="card-head">
      <h2 id="worst-title">Worst case</h2>
      <span class="hint">what is asked of cooling at the most; each figure follows from it</span>
    </div>
    <div class="two">
      <ChoiceField
        path="cooling.school"
        label="School"
        :options="coolingSchools.map((value) => ({ value, text: value }))"
        none="not decided"
      />
      <NumberField path="cooling.hotC" />
      <NumberField path="cooling.hillGradeFraction" label="Grade of the long hill" />
      <NumberField path="cooling.hillSpeedKmH" label="Speed on it" />
      <NumberField path="cooling.fastChargeW" />
      <NumberField path="cooling.chargeW" />
      <NumberField path="cooling.cellMaxC" :fallback="limits.maxC" />
    </div>
    <div v-if="has(hill('powerW'))" class="figures">
      <FigureValue :id="hill('powerW')" label="Power on the hill" show-label />
      <FigureValue :id="hill('currentA')" label="Current on the hill" show-label />
      <FigureValue :id="hill('packHeatW')" label="Heat of the pack, hill" show-label />
      <FigureValue
        v-if="has(charge('fast', 'packHeatW'))"
        :id="charge('fast', 'packHeatW')"
        label="Heat of the pack, fast charge"
        show-label
      />
      <FigureValue
        v-if="has(charge('fast', 'minutes'))"
        :id="charge('fast', 'minutes')"
        label="Fast charge, 10 to 80 %"
        show-label
      />
      <FigureValue
        v-if="has(charge('home', 'minutes'))"
        :id="charge('home', 'minutes')"
        label="Charge at home"
        show-label
      />
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      No loop that can be computed yet. Without liquid, air through boxes is below, and Over time shows how
      warm the pack gets.
    </p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th scope="col">loop</th>
          <th scope="col">case</th>
          <th scope="col">load</th>
          <th scope="col" class="num">heat, W</th>
          <th scope="col" class="num">coolant in</th>
          <th scope="col" class="num">out</th>
          <th scope="col" class="num">its surface</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="row in rows" :key="`${row.loop} ${row.at}`">
          <tr v-if="!row.known || row.loads.length === 0">
            <th scope="row">{{ row.loop }}</th>
            <td>{{ caseTitles[row.at] }}</td>
            <td colspan="5" class="soft">
              {{ row.known ? 'nothing gives off heat in it' : 'not computed: see the findings' }}
            </td>
          </tr>
          <tr v-for="(load, i) in row.loads" v-else :key="load.id">
            <th scope="row">{{ i === 0 ? row.loop : '' }}</th>
            <td>{{ i === 0 ? caseTitles[row.at] : '' }}</td>
            <td>{{ load.tag }}</td>
            <td class="num">{{ Math.round(load.heatW) }}</td>
            <td class="num">{{ c(load.inC) }}</td>
            <td class="num">{{ c(load.outC) }}</td>
            <td class="num">{{ c(load.surfaceC) }}</td>
          </tr>
        </template>
      </tbody>
    </table>
  </section>
  <AirBoxes />
  <section v-if="schools !== null" class="sheet-card" aria-labelledby="schools-title" data-schools>
    <div class="card-head">
      <h2 id="schools-title">One loop, or loops of their own</h2>
      <span class="hint">the same loads, pumps and radiators, on the long hill of the hottest day</span>
    </div>
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">school</th>
          <th scope="col" class="num">coolant at the cells</th>
          <th scope="col" class="num">cells may get</th>
          <th scope="col" class="num">hottest coolant</th>
          <th scope="col">so</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in schools" :key="row.school" :data-school="row.school">
          <th scope="row">{{ row.school }}</th>
          <td class="num">{{ c(row.cellsC) }}</td>
          <td class="num">{{ c(row.limitC) }}</td>
          <td class="num">{{ c(row.hottestC) }}</td>
          <td>{{ row.verdict }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      One loop: all loads one after the other, cells first, behind all radiators together, with the flow of
      the pack’s pump. It is computed from the same figures, as a first answer; draw it as a loop for the last
      word.
    </p>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}

.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.5rem 0;
}
</style>
