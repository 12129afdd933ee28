<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import {
  carryTimeS,
  clearingTimeS,
  meltTimeS,
  rankFuses,
  upstreamOf,
  type FuseInput,
  type FusePlace,
  type FuseResult,
} from '@torvek/core/fuse';
import { logSpaced } from '@torvek/core/math';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, token } from '../../parts/plot/echarts';
import { spreadLabels } from '../../parts/plot/spread';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import LoadProfile from './LoadProfile.vue';
import RankedTable from './RankedTable.vue';
import { useCircuit } from './use-circuit';

/** Coordination: the fuse’s melting band and clearing, contacts, what lies upstream, load points, cable damage and the fault range, current against time. */
const job = useJob();
const shelf = useLibrary();
const { circuitId, circuit, at } = useCircuit();
const run = computed(
  () =>
    job.evaluation.runs[`fuse.main:${circuitId.value}`] as
      { input: FuseInput; result: FuseResult } | undefined,
);
const ranked = computed(() => {
  const place = job.evaluation.runs[`fuse.choice:${circuitId.value}`]?.input as FusePlace | undefined;
  const part = job.design.parts[chosen.value ?? ''];
  return place === undefined
    ? []
    : rankFuses(place, part?.kind === 'fuse' ? part : null, shelf.library.of('fuse'));
});
const chosen = computed(() => circuit.value?.fuse);
const poles = [
  { value: 'plus', text: 'positive' },
  { value: 'minus', text: 'negative' },
  { value: 'both', text: 'both' },
];
const slowestShownS = 10_000;
const fastestShownS = 0.001;

const keepOver = (currents: readonly number[], make: (currentA: number) => number | null) =>
  currents.flatMap((currentA): [number, number][] => {
    const timeS = make(currentA);
    return timeS === null || timeS > slowestShownS || timeS < fastestShownS ? [] : [[currentA, timeS]];
  });
/** For how long the contacts in its path carry a current. */
function contactCurve(top: number): [number, number][] {
  const part = job.design.parts[circuit.value?.contactor ?? ''];
  const curve = part?.kind === 'contactor' ? part.data.shortTime : undefined;
  if (curve === undefined || top <= curve[0]![0]) return [];
  return keepOver(logSpaced(curve[0]![0] * 1.001, top, 60), (currentA) => carryTimeS(curve, currentA));
}
/** Upstream fuses; strings that are alike are one line. */
const upstream = computed(() => {
  if (circuit.value?.role !== 'branch') return [];
  const seen = new Set<string>();
  return upstreamOf(job.design, circuitId.value).filter(({ data, share }) => {
    const key = `${data.ratedA}|${data.curve.join()}|${share}`;
    return seen.has(key) ? false : seen.add(key);
  });
});

const lines = computed(() => {
  if (run.value === undefined) return null;
  const { input } = run.value;
  const [firstA] = input.curve[0]!;
  const tolerance = input.currentToleranceFraction;
  const top = Math.max(input.faultMaxA, input.curve.at(-1)![0]) * 1.2;
  const currents = logSpaced(firstA * (1 - tolerance) * 1.001, top, 90);
  const keep = (make: (currentA: number) => number | null) => keepOver(currents, make);
  const limit = input.cable === undefined ? null : (input.cable.k * input.cable.areaMm2) ** 2;
  const damage =
    limit === null
      ? []
      : logSpaced(Math.sqrt(limit / 5), top * 3, 40).map((currentA): [number, number] => [
          currentA,
          limit / currentA ** 2,
        ]);
  return {
    fastest: keep((currentA) => meltTimeS(input.curve, currentA / (1 - tolerance))),
    slowest: keep((currentA) => meltTimeS(input.curve, currentA / (1 + tolerance))),
    clearing: keep((currentA) => clearingTimeS(input, currentA)),
    damage: damage.filter(([currentA, timeS]) => currentA <= top && timeS >= fastestShownS),
    contacts: contactCurve(top),
    upstream: upstream.value.map(({ label, share, data }) => ({
      label,
      data: keepOver(logSpaced(data.curve[0]![0] / share, top, 60), (currentA) =>
        meltTimeS(data.curve, (currentA * share) / (1 - data.currentToleranceFraction)),
      ),
    })),
    load: input.loadProfile
      .filter(([, currentA]) => currentA !== 0)
      .map(([durationS, currentA]): [number, number] => [Math.abs(currentA), durationS]),
    top,
    low: Math.min(
      input.ratedA * 0.1,
      ...input.loadProfile.map(([, currentA]) => Math.abs(currentA) || Infinity),
    ),
  };
});
const summary = computed(() => {
  if (run.value === undefined) return 'The fuse: not computed yet.';
  const { input, result } = run.value;
  const worn =
    result.wearPerPeriod > 0
      ? 'load points reach into the melting band'
      : 'the load stays left of the melting band';
  const cable =
    result.protectsCable === true
      ? 'the cable is covered over the whole fault range'
      : 'the cable is not covered everywhere';
  return `Faults run from ${formatNumber(input.faultMinA)} to ${formatNumber(input.faultMaxA)} A; ${worn}, ${cable}.`;
});
/** The next of 1, 2, 5 × a power of ten below a value. */
function niceBelow(value: number): number {
  const decade = 10 ** Math.floor(Math.log10(value));
  return decade * (value >= 5 * decade ? 5 : value >= 2 * decade ? 2 : 1);
}

const plotPx = 238;
/** Offsets that keep the labels at the ends of lines apart. */
function spread(ends: { id: string; timeS: number }[]): Map<string, number> {
  const decades = Math.log10(slowestShownS / fastestShownS);
  return spreadLabels(
    ends.map(({ id, timeS }) => ({ id, yPx: (Math.log10(slowestShownS / timeS) / decades) * plotPx })),
    plotPx + 2,
  );
}

const short = (value: number) => (value >= 1000 ? `${formatNumber(value / 1000)}k` : formatNumber(value));
const options = computed(() => {
  const shown = lines.value;
  const now = run.value;
  return () => {
    if (shown === null || now === undefined) return {};
    const { input } = now;
    const ink = token('ink');
    const ends = [
      ['slowest', shown.slowest] as const,
      ['clearing', shown.clearing] as const,
      ['contacts', shown.contacts] as const,
      ...shown.upstream.map(({ data }, i) => [`upstream-${i}`, data] as const),
      ['damage', shown.damage] as const,
    ].flatMap(([id, data]) => (data.length === 0 ? [] : [{ id, timeS: data.at(-1)![1] }]));
    const offsets = spread(ends);
    const line = (
      id: string,
      name: string,
      data: [number, number][],
      color: string,
      width: number,
      type: 'solid' | 'dashed' | 'dotted',
    ) => ({
      id,
      name,
      type: 'line',
      data,
      showSymbol: false,
      lineStyle: { color, width, type },
      itemStyle: { color },
      endLabel: { show: true, formatter: name, color, fontSize: 12, offset: [4, offsets.get(id) ?? 0] },
    });
    const label = (text: string) => ({ name: text });
    return {
      grid: { left: 58, right: 92, top: 30, bottom: 42 },
      tooltip: {
        trigger: 'item',
        renderMode: 'richText',
        backgroundColor: token('sheet'),
        borderColor: token('line'),
        textStyle: { color: ink },
        formatter: ({ seriesName, value }: { seriesName: string; value: [number, number] }) =>
          `${seriesName}\n${formatQuantity(value[0], 'A')} for ${formatQuantity(value[1], 's')}`,
      },
      xAxis: axis('x', {
        name: 'current, A',
        log: true,
        min: niceBelow(shown.low),
        max: shown.top,
        format: short,
      }),
      yAxis: axis('y', { name: 'time, s', log: true, min: fastestShownS, max: slowestShownS, format: short }),
      series: [
        {
          ...line('fastest', 'fastest melting', shown.fastest, token('act'), 1.2, 'dotted'),
          endLabel: { show: false },
          markArea: {
            silent: true,
            itemStyle: { color: token('stop'), opacity: 0.08 },
            label: { color: token('soft'), position: 'insideTop', fontSize: 12 },
            data: [[{ ...label('fault range'), xAxis: input.faultMinA }, { xAxis: input.faultMaxA }]],
          },
          ...(input.minBreakingA > 0 && {
            markLine: {
              precision: 12,
              symbol: 'none',
              silent: true,
              data: [
                {
                  xAxis: input.minBreakingA,
                  lineStyle: { color: token('stop'), type: 'dashed' },
                  label: {
                    formatter: 'breaks from here',
                    color: token('stop'),
                    fontSize: 12,
                    position: 'insideEndTop',
                  },
                },
              ],
            },
          }),
        },
        line('slowest', 'melting band', shown.slowest, token('act'), 1.2, 'dotted'),
        line('clearing', 'total clearing', shown.clearing, token('act'), 2.5, 'solid'),
        ...(shown.contacts.length > 0
          ? [line('contacts', 'contacts carry', shown.contacts, token('note'), 1.8, 'dashed')]
          : []),
        ...shown.upstream.map(({ label: name, data }, i) =>
          line(`upstream-${i}`, name.replace(/^the /, ''), data, token('signal'), 1.4, 'dashed'),
        ),
        line('damage', 'cable limit', shown.damage, token('hv'), 2, 'dashed'),
        {
          id: 'load',
          name: 'load',
          type: 'scatter',
          data: shown.load,
          symbol: 'rect',
          symbolSize: 9,
          itemStyle: { color: ink },
          labelLayout: { moveOverlap: 'shiftY' },
          label: {
            show: true,
            position: 'left',
            formatter: ({ value }: { value: [number, number] }) => `${formatNumber(value[0])} A`,
            color: ink,
            fontSize: 12,
          },
        },
      ],
    };
  };
});
const table = computed(() => {
  const input = run.value?.input;
  return {
    columns: [
      'current, A',
      'fastest melting, s',
      'slowest melting, s',
      'total clearing, s',
      'cable limit, s',
    ],
    rows:
      input === undefined
        ? []
        : logSpaced(input.curve[0]![0] * 1.2, input.faultMaxA, 16).map((currentA) => {
            const say = (value: number | null) => (value === null ? 'never' : formatNumber(value));
            const tolerance = input.currentToleranceFraction;
            const limit =
              input.cable === undefined ? null : (input.cable.k * input.cable.areaMm2) ** 2 / currentA ** 2;
            return [
              formatNumber(currentA),
              say(meltTimeS(input.curve, currentA / (1 - tolerance))),
              say(meltTimeS(input.curve, currentA / (1 + tolerance))),
              say(clearingTimeS(input, currentA)),
              limit === null ? '—' : formatNumber(limit),
            ];
          }),
  };
});
const figure = (name: FigureName<'fuse.main'>) => figureId('fuse.main', circuitId.value, name);
</script>

<template>
  <section class="sheet-card" aria-labelledby="fuse-title">
    <div class="card-head">
      <h2 id="fuse-title">Fuse of {{ circuit?.tag }}</h2>
      <span class="hint"
        >largest fault: full, warm, at the pack; smallest: low charge, cold, far end of the cable</span
      >
    </div>
    <div class="panel-split">
      <div id="fuse-plot">
        <PlotView
          v-if="run !== undefined"
          :options="options"
          :summary="summary"
          :height="310"
          :table="table"
        />
        <p v-else class="panel-empty">
          The curves are drawn as soon as the pack, the cable with its length, the load profile and a fuse are
          given.
        </p>
        <div class="figure-row">
          <FigureValue :id="`fuse.fault:${circuitId}/largest:prospectiveA`" show-label />
          <FigureValue :id="`fuse.fault:${circuitId}/smallest:prospectiveA`" show-label />
          <FigureValue :id="figure('clearAtMinS')" show-label />
          <FigureValue :id="figure('meltAtMaxS')" show-label />
          <FigureValue :id="figure('rmsFraction')" show-label />
          <FigureValue :id="figure('wearPerPeriod')" show-label />
        </div>
      </div>
      <div>
        <LoadProfile />
        <NumberField :path="`${at}.maxClearS`" />
        <NumberField :path="`${at}.fuseAmbientC`" />
        <ChoiceField
          :path="`${at}.fusePole`"
          label="Pole of the fuse"
          :options="poles"
          none="positive, default"
        />
        <template v-if="circuit?.role === 'branch'">
          <NumberField :path="`${at}.tapLengthM`" />
          <NumberField :path="`${at}.tapAreaMm2`" label="Area of that wire" />
        </template>
        <NumberField path="pack.coldResistanceFactor" />
        <NumberField path="pack.warmResistanceFactor" />
      </div>
    </div>
    <RankedTable kind="fuse" title="Fuses, ranked" plural="fuses" :ranked="ranked" :chosen="chosen" />
  </section>
</template>
