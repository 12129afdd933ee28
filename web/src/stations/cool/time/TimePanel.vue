<script setup lang="ts">
import type { LoopAnswer, PackOverTime } from '@torvek/core/cooling';
import { figureId, type FigureName } from '@torvek/core/figure';
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
const fig = (name: FigureName<'cooling.pack'>) => figureId('cooling.pack', 'pack', name);
const over = computed(
  () => (job.evaluation.runs['cooling.pack:pack']?.result as PackOverTime | undefined) ?? null,
);
const day = computed(() => (over.value === null ? null : dayOf(over.value)));
/** Hottest first. */
const plates = computed(() =>
  Object.keys(job.design.loops ?? {})
    .flatMap((loop) => {
      const answer = job.evaluation.runs[`cooling.loop:${loop}`]?.result as LoopAnswer | undefined;
      return answer?.day?.plates ?? [];
    })
    .map((plate) => ({ ...plate, tag: job.design.plumbing?.[plate.id]?.tag ?? plate.id }))
    .sort((a, b) => Math.max(b.driveMaxC, b.chargeMaxC ?? 0) - Math.max(a.driveMaxC, a.chargeMaxC ?? 0)),
);
const hasCharge = computed(() => plates.value.some(({ chargeMaxC }) => chargeMaxC !== null));
const limitC = computed(() => over.value?.limitC ?? Infinity);
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
    type: 'solid' | 'dashed' | 'dotted',
    shift = 0,
  ) => ({
    id: name,
    name,
    type: 'line',
    showSymbol: false,
    data: shown(points),
    lineStyle: { color: colour, width: 2, type },
    itemStyle: { color: colour },
    endLabel: { show: true, formatter: name, color: colour, distance: 4, offset: [0, shift] },
  });
  // Two lines that end at one height have their names one above the other.
  const settledC = now.settled?.points.at(-1)?.[1] ?? null;
  const apart = settledC === null ? 0 : settledC > now.cooled.at(-1)![1] ? -7 : 7;
  const at = (hours: number | null, what: string) =>
    hours === null
      ? []
      : [
          {
            xAxis: hours,
            lineStyle: { color: token('soft'), type: 'dotted' },
            label: { formatter: what, position: 'end', align: 'left', distance: 3, color: token('soft') },
          },
        ];
  return {
    grid: { left: 50, right: 118, top: 26, bottom: 42 },
    xAxis: { type: 'value', name: 'hours', nameLocation: 'middle', nameGap: 26, min: 0, max: now.endH },
    // Room for what stands at the end of a line below what stands above the plot.
    yAxis: { type: 'value', name: unit.value, scale: true, boundaryGap: ['4%', '12%'] },
    series: [
      {
        ...line(
          over.value!.coolingWPerK === null ? 'pack' : 'with cooling',
          now.cooled,
          token('coolant'),
          'solid',
          -apart,
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
            ...at(now.chargeFromH, 'fast charge'),
            ...at(now.nightFromH, 'night'),
          ],
        },
      },
      ...(now.settled === null
        ? []
        : [line(`day ${now.settled.day}`, now.settled.points, token('coolant'), 'dotted', apart)]),
      ...(over.value!.coolingWPerK === null ? [] : [line('without', now.uncooled, token('mend'), 'dashed')]),
    ],
  };
};
const summary = computed(() => {
  const now = day.value;
  if (now === null) return '';
  const say = (value: number) => `${c(value).number} ${c(value).unit}`;
  const most = (name: FigureName<'cooling.pack'>) => job.figure(fig(name))?.value ?? null;
  const [driveC, chargeC] = [most('driveMaxC'), most('chargeMaxC')];
  return `Over ${formatNumber(now.driveH, 2)} h of driving the pack reaches ${say(driveC ?? now.driveMaxC)}${
    chargeC === null ? '' : `, over the fast charge after it ${say(chargeC)}`
  }; cells may get ${say(now.limitC)}.${
    now.settled === null
      ? ''
      : now.settled.settles
        ? ` From day ${now.settled.day} on all days are alike.`
        : ` After ${now.settled.day} days mornings still change.`
  }`;
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
        >the drive cycle of Brief again and again on the hottest day, a fast charge, and the night</span
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
      <FigureValue :id="fig('morningC')" label="The next morning" show-label />
      <FigureValue :id="fig('settledMaxC')" label="At most, day after day" show-label />
    </div>
    <table v-if="plates.length > 0" class="grid-table plates" data-plates>
      <thead>
        <tr>
          <th scope="col">plate</th>
          <th scope="col" class="num">carries, W/K</th>
          <th scope="col" class="num">coolant comes with, {{ unit }}</th>
          <th scope="col" class="num">drives of the day, {{ unit }}</th>
          <th v-if="hasCharge" scope="col" class="num">fast charge, {{ unit }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="plate in plates" :key="plate.id">
          <th scope="row">{{ plate.tag }}</th>
          <td class="num">{{ formatNumber(plate.coolingWPerK) }}</td>
          <td class="num">{{ c(plate.coolantC).number }}</td>
          <td class="num" :class="{ bad: plate.driveMaxC > limitC }">{{ c(plate.driveMaxC).number }}</td>
          <td v-if="hasCharge" class="num" :class="{ bad: (plate.chargeMaxC ?? 0) > limitC }">
            {{ plate.chargeMaxC === null ? '' : c(plate.chargeMaxC).number }}
          </td>
        </tr>
      </tbody>
    </table>
    <div class="two">
      <NumberField path="cooling.repeats" />
      <NumberField path="cooling.startC" />
      <NumberField path="cooling.onAboveC" />
      <NumberField path="cooling.offBelowC" label="Cooling off below" />
      <NumberField path="cooling.cellHeatJPerKgK" />
      <NumberField path="cooling.hotC" />
      <NumberField path="cooling.nightC" />
      <NumberField path="cooling.nightH" />
    </div>
    <p class="soft">
      {{
        plates.length === 0
          ? 'One lump for all modules.'
          : 'The line is the pack as a whole; what it reaches at most is told of its hottest plate, which the pump follows.'
      }}
      In the night nothing but the walls cools it; a charge at home warms it. Days go on until mornings are
      alike, two weeks at the most.
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

.plates {
  margin: 0.4rem 0 0.6rem;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}
</style>
