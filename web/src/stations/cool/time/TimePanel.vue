<script setup lang="ts">
import type { PackOverTime } from '@torvek/core/cooling';
import { figureId } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import { token } from '../../../parts/plot/echarts';
import PlotView from '../../../parts/plot/PlotView.vue';
import { useJob } from '../../../stores/job';
import { useUnits } from '../../../stores/units';
import { dayOf } from './day';

/** The pack over a day: drives one after the other and a fast charge after them, with cooling and without. */
const job = useJob();
const units = useUnits();
const fig = (name: 'driveMaxC' | 'driveEndC' | 'chargeMaxC' | 'uncooledMaxC') =>
  figureId('cooling.pack', 'pack', name);
const over = computed(
  () => (job.evaluation.runs['cooling.pack:pack']?.result as PackOverTime | undefined) ?? null,
);
const day = computed(() => (over.value === null ? null : dayOf(over.value)));
const c = (value: number) => units.show(value, '°C', 3);
/** Finer than it is said, so that a slow rise is drawn as one. */
const fine = (value: number) => Number(units.show(value, '°C', 6).number.replaceAll(' ', ''));
const shown = (points: readonly (readonly [number, number])[]) =>
  points.map(([hours, value]) => [hours, fine(value)]);
const unit = computed(() => c(20).unit);
const options = () => {
  const now = day.value;
  if (now === null) return {};
  const line = (
    name: string,
    points: readonly (readonly [number, number])[],
    colour: string,
    type: 'solid' | 'dashed',
  ) => ({
    id: name,
    name,
    type: 'line',
    showSymbol: false,
    data: shown(points),
    lineStyle: { color: colour, width: 2, type },
    itemStyle: { color: colour },
    endLabel: { show: true, formatter: name, color: colour, distance: 4 },
  });
  return {
    grid: { left: 50, right: 118, top: 26, bottom: 42 },
    xAxis: { type: 'value', name: 'hours', nameLocation: 'middle', nameGap: 26, min: 0, max: now.endH },
    yAxis: { type: 'value', name: unit.value, scale: true },
    series: [
      {
        ...line(
          over.value!.coolingWPerK === null ? 'pack' : 'with cooling',
          now.cooled,
          token('coolant'),
          'solid',
        ),
        markLine: {
          symbol: 'none',
          silent: true,
          data: [
            {
              yAxis: Number(c(now.limitC).number),
              lineStyle: { color: token('stop'), type: 'dashed' },
              label: {
                formatter: `cells at most ${c(now.limitC).number}`,
                position: 'insideStartTop',
                color: token('stop'),
              },
            },
            ...(now.chargeFromH === null
              ? []
              : [
                  {
                    xAxis: now.chargeFromH,
                    lineStyle: { color: token('soft'), type: 'dotted' },
                    label: {
                      formatter: 'fast charge',
                      position: 'insideEndTop',
                      color: token('soft'),
                      rotate: 0,
                    },
                  },
                ]),
          ],
        },
      },
      ...(over.value!.coolingWPerK === null ? [] : [line('without', now.uncooled, token('mend'), 'dashed')]),
    ],
  };
};
const summary = computed(() => {
  const now = day.value;
  if (now === null) return '';
  const say = (value: number) => `${c(value).number} ${c(value).unit}`;
  return `Over ${formatNumber(now.driveH, 2)} h of driving the pack reaches ${say(now.driveMaxC)}${
    now.chargeMaxC === null ? '' : `, over the fast charge after it ${say(now.chargeMaxC)}`
  }; cells may get ${say(now.limitC)}.`;
});
const table = computed(() => ({
  columns: ['hours', `pack, ${unit.value}`],
  rows:
    day.value === null
      ? []
      : shown(day.value.cooled.filter((_, i, all) => i % Math.ceil(all.length / 60) === 0)).map((row) => [
          ...row,
        ]),
}));
</script>

<template>
  <section class="sheet-card" aria-labelledby="time-title" data-time>
    <div class="card-head">
      <h2 id="time-title">Over time</h2>
      <span class="hint"
        >the drive cycle of Brief again and again on the hottest day, then a fast charge</span
      >
    </div>
    <PlotView v-if="day !== null" :options="options" :summary="summary" :height="280" :table="table" />
    <p v-else class="panel-empty">
      Not computed yet: it takes a drive cycle (Brief), the pack, and the walls of its boxes (Cold).
    </p>
    <div class="figures">
      <FigureValue :id="fig('driveMaxC')" label="At most, driving" show-label />
      <FigureValue :id="fig('driveEndC')" label="After the drives" show-label />
      <FigureValue
        v-if="job.figure(fig('chargeMaxC'))"
        :id="fig('chargeMaxC')"
        label="At most, fast charge"
        show-label
      />
      <FigureValue :id="fig('uncooledMaxC')" label="At most without cooling" show-label />
    </div>
    <div class="two">
      <NumberField path="cooling.repeats" />
      <NumberField path="cooling.startC" />
      <NumberField path="cooling.onAboveC" />
      <NumberField path="cooling.offBelowC" label="Cooling off below" />
      <NumberField path="cooling.cellHeatJPerKgK" />
      <NumberField path="cooling.hotC" />
    </div>
    <p class="soft">
      One lump for all modules: a module on a starved plate gets hotter than this. See Worst case for each
      plate.
    </p>
  </section>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.5rem 0;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}
</style>
