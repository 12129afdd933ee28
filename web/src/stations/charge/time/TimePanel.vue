<script setup lang="ts">
import { figureId, type FigureId } from '@torvek/core/figure';
import type { Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref } from 'vue';
import { token } from '../../../parts/plot/echarts';
import PlotView from '../../../parts/plot/PlotView.vue';
import { useJob } from '../../../stores/job';
import { useSlate } from '../../../stores/slate';
import { useSupplies } from '../use-supplies';
import { alike, plotted, pointsOf, said, type Plotted, type TimeCurve } from './times';

/** How long a charge takes at each supply: side by side, over time or over charge, and in the coldest night. */
const job = useJob();
const slate = useSlate();
const { supplies, ids, mainsAnswer, stationAnswer } = useSupplies('all');
const what = ref<Plotted>('power');
const over = ref<'time' | 'charge'>('time');
const isStation = (id: Id) => supplies.value[id]?.kind === 'station';
const curves = computed(() =>
  ids.value.flatMap((id): TimeCurve[] => {
    const curve = (isStation(id) ? stationAnswer(id)?.curve : mainsAnswer(id)?.curve) ?? null;
    return curve === null ? [] : [{ id, tag: supplies.value[id]!.tag, curve: curve.curve }];
  }),
);
const value = (id: FigureId) => job.figure(id)?.value ?? null;
const rows = computed(() =>
  ids.value.map((id) => {
    const of = (name: 'minutes' | 'energyToPackKWh' | 'peakA') =>
      isStation(id) ? figureId('charge.station', id, name) : figureId('charge.supply', id, name);
    const answer = isStation(id) ? stationAnswer(id)?.curve : mainsAnswer(id)?.curve;
    return {
      id,
      tag: supplies.value[id]!.tag,
      minutes: of('minutes'),
      energy: of('energyToPackKWh'),
      peak: of('peakA'),
      winter: figureId('charge.winter', id, 'minutes'),
      warm: figureId('charge.winter', id, 'warmMinutes'),
      mains: isStation(id) ? null : figureId('charge.supply', id, 'energyMainsKWh'),
      taper: answer?.startTaperSoc ?? null,
    };
  }),
);
const hasWinter = computed(() => rows.value.some(({ winter }) => job.figure(winter) !== undefined));
const units: Record<Plotted, string> = { power: 'kW', current: 'A', voltage: 'V', charge: '%' };
const titles: Record<Plotted, string> = {
  power: 'Power',
  current: 'Current',
  voltage: 'Voltage',
  charge: 'State of charge',
};
/** Told apart by dash as well as by shade; the names stand at the lines. */
const styles = ['solid', 'dashed', 'dotted', [10, 3, 2, 3], [2, 6], [14, 4]] as const;
const options = () => {
  const colours = [token('act'), token('ink'), token('soft'), token('hv'), token('mend'), token('pass')];
  const isCharge = over.value === 'charge';
  return {
    grid: { left: 54, right: 150, top: 30, bottom: 42 },
    xAxis: {
      type: 'value',
      name: isCharge ? 'state of charge, %' : 'hours',
      nameLocation: 'middle',
      nameGap: 26,
      ...(isCharge && { min: 0, max: 100 }),
    },
    yAxis: {
      type: 'value',
      name: `${titles[what.value].toLowerCase()}, ${units[what.value]}`,
      scale: what.value === 'voltage',
    },
    series: alike(curves.value).map((one, i) => ({
      id: one.id,
      name: one.tag,
      type: 'line',
      showSymbol: false,
      data: pointsOf(one, what.value, over.value),
      lineStyle: { color: colours[i % colours.length], width: 2, type: styles[i % styles.length] },
      itemStyle: { color: colours[i % colours.length] },
      endLabel: {
        show: true,
        formatter: one.tag,
        color: colours[i % colours.length],
        distance: 4,
        width: 140,
        overflow: 'break',
        lineHeight: 15,
      },
      labelLayout: { moveOverlap: 'shiftY' },
    })),
  };
};
const summary = computed(() => {
  const known = rows.value.filter(({ minutes }) => value(minutes) !== null);
  if (known.length === 0) return 'No charge is computed yet.';
  const sorted = [...known].sort((a, b) => value(a.minutes)! - value(b.minutes)!);
  const first = sorted[0]!;
  const last = sorted.at(-1)!;
  return known.length === 1
    ? `${first.tag} takes ${said(value(first.minutes))}.`
    : `${first.tag} is the fastest with ${said(value(first.minutes))}; ${last.tag} takes ${said(value(last.minutes))}.`;
});
const table = computed(() => ({
  columns: [
    'supply',
    over.value === 'time' ? 'hours' : 'state, %',
    `${titles[what.value]}, ${units[what.value]}`,
  ],
  rows: curves.value.flatMap((one) => {
    const all = pointsOf(one, what.value, over.value);
    return all
      .filter((_, i) => i % Math.ceil(all.length / 20) === 0 || i === all.length - 1)
      .map(([x, y]) => [one.tag, formatNumber(x, 3), formatNumber(y, 3)]);
  }),
}));
const n = (number: number | null) => (number === null ? '—' : formatNumber(number, 3));
</script>

<template>
  <section class="sheet-card" aria-labelledby="time-title" data-time>
    <div class="card-head">
      <h2 id="time-title">How long it takes</h2>
      <div class="chips" role="group" aria-label="Shown">
        <button
          v-for="one in plotted"
          :key="one"
          type="button"
          class="btn btn-sm"
          :class="one === what ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one === what"
          @click="what = one"
        >
          {{ titles[one] }}
        </button>
      </div>
      <div class="chips" role="group" aria-label="Over">
        <button
          v-for="one in ['time', 'charge'] as const"
          :key="one"
          type="button"
          class="btn btn-sm"
          :class="one === over ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one === over"
          @click="over = one"
        >
          over {{ one }}
        </button>
      </div>
    </div>
    <p v-if="ids.length === 0" class="panel-empty">
      No supply yet: begin with AC. Each gets a line here, side by side with the others.
    </p>
    <template v-else>
      <PlotView v-if="curves.length > 0" :options="options" :summary="summary" :height="290" :table="table" />
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col">supply</th>
            <th scope="col" class="num">time</th>
            <th v-if="hasWinter" scope="col" class="num">coldest night</th>
            <th v-if="hasWinter" scope="col" class="num">of it warming</th>
            <th scope="col" class="num">peak</th>
            <th scope="col" class="num">into the pack</th>
            <th scope="col" class="num">from the mains</th>
            <th scope="col" class="num">voltage held</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" :data-supply="row.id">
            <th scope="row">{{ row.tag }}</th>
            <td class="num">
              <button
                type="button"
                class="visually-plain"
                :title="`${row.tag}: show the working`"
                @click="slate.showWorking(row.minutes)"
              >
                {{ said(value(row.minutes)) }}
              </button>
            </td>
            <td v-if="hasWinter" class="num">{{ said(value(row.winter)) }}</td>
            <td v-if="hasWinter" class="num">{{ said(value(row.warm)) }}</td>
            <td class="num">{{ n(value(row.peak)) }} A</td>
            <td class="num">{{ n(value(row.energy)) }} kWh</td>
            <td class="num">{{ row.mains === null ? '—' : `${n(value(row.mains))} kWh` }}</td>
            <td class="num">{{ row.taper === null ? 'never' : `from ${n(row.taper * 100)} %` }}</td>
          </tr>
        </tbody>
      </table>
      <p class="soft">
        Coldest night: warmed first until cells may be charged (Cool, Cold), by heaters that share what the
        supply gives, then held to what they take at that temperature all the way, for they warm little by
        themselves; a heater that goes on makes it shorter.
      </p>
    </template>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}
</style>
