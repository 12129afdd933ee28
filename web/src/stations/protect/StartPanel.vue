<script setup lang="ts">
import {
  completions,
  mainCircuit,
  startSchools,
  type Completion,
  type StartSchool,
} from '@torvek/core/document';
import { startSequence, timerAgainstVoltage, type StartSequence } from '@torvek/core/precharge';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import NumberField from '../../parts/NumberField.vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';
import { useInrushLoop, usePrecharge } from './use-precharge';

/** The start: both orders of closing with their events, and what a bare timer makes of a bus that is not as designed. */
const job = useJob();
const at = `circuits.${mainCircuit}`;
const run = usePrecharge(computed(() => mainCircuit));
const circuit = computed(() => job.design.circuits[mainCircuit]);
const contactor = computed(() => {
  const part = job.design.parts[circuit.value?.contactor ?? ''];
  return part?.kind === 'contactor' ? part.data : null;
});
const school = computed<StartSchool>(() => circuit.value?.startSchool ?? 'one-by-one');
const completion = computed<Completion>(() => circuit.value?.completion ?? 'voltage');
/** Where no timer is given: what a timer would be set to, a third beyond the designed time. */
const timerS = computed(() => {
  const given = circuit.value?.timerS;
  if (given !== undefined && given > 0) return given;
  const reached = run.value?.result.timeToThresholdS ?? null;
  return reached === null ? (run.value?.input.timeoutS ?? 1) : reached * 1.33;
});
const words: Record<StartSchool, string> = {
  'one-by-one': 'one by one',
  together: 'one main with the pre-charge',
};
const completionWords: Record<Completion, string> = {
  voltage: 'the bus voltage, with the time limit',
  timer: 'a bare timer',
};

/** The pre-charge contactor’s own times are not in the design: a small one is taken as the main’s. */
const sequences = computed<{ school: StartSchool; sequence: StartSequence }[]>(() => {
  if (run.value === undefined || contactor.value === null) return [];
  const { input, result } = run.value;
  const times = {
    mainCloseS: contactor.value.closeMs / 1000,
    mainOpenS: contactor.value.openMs / 1000,
    prechargeCloseS: contactor.value.closeMs / 1000,
    prechargeOpenS: contactor.value.openMs / 1000,
  };
  const riseS = completion.value === 'timer' ? timerS.value : result.timeToThresholdS;
  const limit = completion.value === 'timer' ? Infinity : input.timeoutS;
  return startSchools.map((one) => ({ school: one, sequence: startSequence(one, times, riseS, limit) }));
});
const spanS = computed(
  () => Math.max(...sequences.value.map(({ sequence }) => sequence.events.at(-1)!.atS), 0.01) * 1.12,
);
const lanes = ['negative main', 'pre-charge', 'positive main'] as const;
/** From closing to opening, or to the end of the picture. */
function bar({ events }: StartSequence, lane: (typeof lanes)[number]) {
  const closes = events.find((event) => event.switch === lane && event.does === 'closes');
  const opens = events.find((event) => event.switch === lane && event.does === 'opens');
  if (closes === undefined) return null;
  const from = (closes.atS / spanS.value) * 100;
  const to = ((opens?.atS ?? spanS.value) / spanS.value) * 100;
  // A bar that begins near the end has its label before it.
  const label = from < 75 ? { left: `${from}%` } : { right: `${100 - from}%` };
  return { style: { left: `${from}%`, width: `${to - from}%` }, label, late: from >= 75, closes: closes.atS };
}
const ms = (timeS: number) => formatQuantity(timeS, 's');

const loop = useInrushLoop(
  computed(() => mainCircuit),
  run,
);
const cases = computed(() =>
  run.value === undefined || loop.value === null
    ? []
    : timerAgainstVoltage(run.value.input, timerS.value, loop.value),
);
const endS = computed(() => {
  const latest = Math.max(timerS.value, ...cases.value.map(({ voltage }) => voltage.atS ?? 0));
  return latest * 1.5;
});
const dashes = {
  'as designed': 'solid',
  'more capacitance': 'dashed',
  'a load': 'dotted',
  'a short': 'dotted',
} as const;
const summary = computed(() => {
  const [designed, , loaded, short] = cases.value;
  if (designed === undefined || loaded === undefined || short === undefined) return 'Not computed yet.';
  return `A timer of ${ms(timerS.value)} closes at ${formatNumber(designed.timer.voltageV)} V as designed, but at ${formatNumber(loaded.timer.voltageV)} V with ${loaded.label} and on a short with ${formatQuantity(short.timer.inrushA, 'A')}; the voltage check gives both up.`;
});
const options = computed(() => {
  const [all, now, end, timer] = [cases.value, run.value, endS.value, timerS.value];
  return () => {
    if (now === undefined) return {};
    const { input } = now;
    const [hv, ink] = [token('hv'), token('ink')];
    return {
      grid: { left: 46, right: 150, top: 30, bottom: 42 },
      xAxis: axis('x', { name: 'time from the closed pre-charge contactor, s', min: 0, max: end }),
      yAxis: axis('y', { name: 'bus, V', min: 0, max: Math.ceil((input.packVoltageV * 1.08) / 20) * 20 }),
      series: all.map((one, i) => ({
        id: one.id,
        name: one.label,
        type: 'line',
        data: Array.from({ length: 81 }, (_, k): [number, number] => [
          (end * k) / 80,
          one.at((end * k) / 80),
        ]),
        showSymbol: false,
        lineStyle: { color: i === 0 ? hv : ink, width: i === 0 ? 2.5 : 1.6, type: dashes[one.id] },
        itemStyle: { color: i === 0 ? hv : ink },
        endLabel: {
          show: true,
          formatter: one.label,
          color: i === 0 ? hv : ink,
          fontSize: 12,
          offset: [4, i === 0 ? -8 : i === 1 ? 8 : 0],
        },
        tooltip: { valueFormatter: (value: unknown) => `${formatNumber(Number(value))} V` },
        ...(i === 0 && {
          markLine: {
            precision: 12,
            symbol: 'none',
            silent: true,
            data: [
              limitLine(
                { y: input.thresholdFraction * input.packVoltageV },
                `the check closes at ${formatNumber(input.thresholdFraction * 100)} %`,
                token('mend'),
                'insideStartTop',
              ),
              limitLine({ x: timer }, `timer ${ms(timer)}`, token('stop'), 'insideEndBottom'),
            ],
          },
        }),
      })),
    };
  };
});
const table = computed(() => ({
  columns: ['bus', 'at the timer, V', 'inrush by the timer, A', 'the check closes after, s'],
  rows: cases.value.map(({ label, timer, voltage }) => [
    label,
    formatNumber(timer.voltageV),
    formatNumber(timer.inrushA),
    voltage.atS === null ? 'gives up' : formatNumber(voltage.atS),
  ]),
}));
const makes = computed(() => contactor.value?.makeA ?? null);
</script>

<template>
  <section class="sheet-card" aria-labelledby="start-title">
    <div class="card-head">
      <h2 id="start-title">Start</h2>
      <span class="hint">the order of closing, and what closes the second main</span>
    </div>
    <div class="asks">
      <ChoiceField
        :path="`${at}.startSchool`"
        label="Order"
        above
        :options="startSchools.map((value) => ({ value, text: words[value] }))"
        none="one by one, default"
      />
      <ChoiceField
        :path="`${at}.completion`"
        label="The second main is closed by"
        above
        :options="completions.map((value) => ({ value, text: completionWords[value] }))"
        none="the bus voltage, default"
      />
      <NumberField :path="`${at}.timerS`" />
    </div>
    <p v-if="run === undefined || contactor === null || loop === null" class="panel-empty">
      The events are drawn as soon as the rise is computed, contactors and the cable are chosen.
    </p>
    <template v-else>
      <div class="schools">
        <figure
          v-for="{ school: one, sequence } in sequences"
          :key="one"
          class="school"
          :class="{ on: one === school }"
          :data-school="one"
        >
          <figcaption>
            <b>{{ words[one] }}</b>
            <span class="soft"
              >{{
                sequence.readyAtS === null
                  ? ' gives up at the limit'
                  : ` ready after ${ms(sequence.readyAtS)}`
              }}<template v-if="one === school">, chosen</template></span
            >
          </figcaption>
          <div v-for="lane in lanes" :key="lane" class="lane">
            <span class="who">{{ lane }}</span>
            <span class="track">
              <span v-if="bar(sequence, lane)" class="closed" :style="bar(sequence, lane)!.style"></span>
              <span
                v-if="bar(sequence, lane)"
                class="at"
                :class="{ late: bar(sequence, lane)!.late }"
                :style="bar(sequence, lane)!.label"
                >{{ ms(bar(sequence, lane)!.closes) }}</span
              >
            </span>
          </div>
          <div class="lane scale">
            <span></span
            ><span class="ends"
              ><span>0 s</span><span>{{ ms(spanS) }}</span></span
            >
          </div>
          <ul class="soft">
            <li v-for="text in sequence.weldTests" :key="text">Weld test {{ text }}.</li>
          </ul>
        </figure>
      </div>
      <PlotView :options="options" :summary="summary" :height="230" :table="table" />
      <table class="grid-table cases">
        <thead>
          <tr>
            <th scope="col">Bus</th>
            <th scope="col" class="num">timer closes at</th>
            <th scope="col" class="num">then flow</th>
            <th scope="col" class="num">the check closes after</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in cases" :key="one.id" :data-case="one.id">
            <td>{{ one.label }}</td>
            <td class="num">{{ formatNumber(one.timer.voltageV) }} V</td>
            <td class="num" :class="{ bad: makes !== null && one.timer.inrushA > makes }">
              {{ formatQuantity(one.timer.inrushA, 'A')
              }}<template v-if="makes !== null && one.timer.inrushA > makes">
                ◆ contacts make {{ formatNumber(makes) }} A</template
              >
            </td>
            <td class="num">{{ one.voltage.atS === null ? 'gives up' : ms(one.voltage.atS) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.asks {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.4rem 1rem;
  align-items: end;
}

.schools {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 1rem;
  margin: 0.8rem 0 0.4rem;
}

.school {
  margin: 0;
  padding: 0.5rem 0.6rem;
  border-left: 3px solid var(--tv-line);
}

.school.on {
  border-left-color: var(--tv-act);
  background: var(--tv-recess);
}

.lane {
  display: grid;
  grid-template-columns: 6.4rem minmax(0, 1fr);
  align-items: center;
}

.who {
  font-size: 0.88rem;
}

.track {
  position: relative;
  height: 1.35rem;
  border-bottom: 1px solid var(--tv-line);
}

.closed {
  position: absolute;
  inset-block: 0.15rem;
  background: var(--tv-hv-fill);
  min-width: 2px;
}

.at {
  position: absolute;
  padding-left: 0.3rem;
  font-size: 0.82rem;
  line-height: 1.35rem;
  color: #171d24;
  white-space: nowrap;
}

.at.late {
  padding: 0 0.3rem 0 0;
  color: inherit;
}

.ends {
  display: flex;
  justify-content: space-between;
  font-size: 0.8rem;
  color: var(--tv-soft);
}

ul {
  margin: 0.3rem 0 0;
  padding-left: 1rem;
  font-size: 0.85rem;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}

@media (max-width: 900px) {
  .schools,
  .asks {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
