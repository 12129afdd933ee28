<script setup lang="ts">
import { controllerLoads, fedV, lowVoltageSystem } from '@torvek/core/low-voltage';
import { loadDefaults, lowVoltageDefaults } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';

/** What draws in each mode, load by load, against what the converter gives. */
const job = useJob();
const width = 860;
const left = 84;
const modes = [
  { id: 'driving', title: 'driving', has: ['driving', 'always'] },
  { id: 'charging', title: 'charging', has: ['charging', 'always'] },
  { id: 'parked', title: 'parked', has: ['always'] },
] as const;
const system = computed(() =>
  lowVoltageSystem({
    lowVoltage: job.design.lowVoltage ?? {},
    parts: job.design.parts,
    settings: job.design.settings,
  }),
);
/** A load that does not say what it draws, or when, leaves every sum open. */
const known = computed(() =>
  Object.values(job.design.loads ?? {}).every(
    ({ powerW, when }) => powerW !== undefined && when !== undefined,
  ),
);
const givesA = computed(() =>
  system.value.converterA === null
    ? null
    : system.value.converterA *
      (job.design.lowVoltage?.deratingFraction ?? lowVoltageDefaults.deratingFraction),
);
const rows = computed(() =>
  modes.map(({ id, title, has }, row) => {
    let sum = 0;
    const own = controllerLoads(job.design)
      .filter(({ when }) => (has as readonly string[]).includes(when))
      .map(({ id: load, tag, currentA: amps }) => ({ load, tag, amps, essential: true }));
    const pieces = Object.entries(job.design.loads ?? {})
      .filter(([, { when }]) => when !== undefined && (has as readonly string[]).includes(when))
      .map(([load, { tag, powerW = 0, dutyFraction = loadDefaults.dutyFraction, essential }]) => ({
        load,
        tag,
        amps: (powerW * dutyFraction) / fedV(system.value),
        essential: essential !== false,
      }))
      .concat(own)
      .sort((a, b) => b.amps - a.amps)
      .map((one) => {
        const at = sum;
        sum += one.amps;
        return { ...one, at };
      });
    return { id, title, y: 24 + row * 34, pieces, sum, known: known.value };
  }),
);
const most = computed(() => Math.max(1, ...rows.value.map(({ sum }) => sum), givesA.value ?? 0) * 1.02);
const x = (amps: number) => left + (amps / most.value) * (width - left - 96);
/** Letters that a bar has room for. */
const fits = ({ at, amps }: { at: number; amps: number }) => Math.floor((x(at + amps) - x(at) - 9) / 6.4);
const n = (value: number) => formatNumber(value, 3);
const summary = computed(
  () =>
    rows.value
      .map(({ title, sum, known: all }) => `${title} ${all ? `${n(sum)} A` : 'not computed'}`)
      .join(', ') + (givesA.value === null ? '' : `; the converter counts for ${n(givesA.value)} A`),
);
</script>

<template>
  <svg class="modes" :viewBox="`0 0 ${width} 132`" role="img" :aria-label="summary" data-modes>
    <g v-for="row in rows" :key="row.id">
      <text :x="left - 10" :y="row.y + 15" class="name">{{ row.title }}</text>
      <g v-for="piece in row.pieces" :key="piece.load">
        <rect
          :x="x(piece.at)"
          :y="row.y"
          :width="Math.max(0, x(piece.at + piece.amps) - x(piece.at) - 1)"
          height="22"
          :class="piece.essential ? 'must' : 'may'"
        >
          <title>
            {{ piece.tag }}: {{ n(piece.amps) }} A{{ piece.essential ? '' : ', can be left out' }}
          </title>
        </rect>
        <text
          v-if="fits(piece) >= 6"
          :x="x(piece.at) + 5"
          :y="row.y + 15"
          :class="piece.essential ? 'on' : 'off'"
        >
          {{ piece.tag.length > fits(piece) ? `${piece.tag.slice(0, fits(piece) - 1)}…` : piece.tag }}
        </text>
      </g>
      <text :x="x(row.sum) + 6" :y="row.y + 15" class="sum">
        {{ row.known ? `${n(row.sum)} A` : 'not computed: a load is not given' }}
      </text>
    </g>
    <template v-if="givesA !== null">
      <line :x1="x(givesA)" :x2="x(givesA)" y1="14" y2="124" class="gives" />
      <text :x="x(givesA) - 5" y="11" class="gives-text">converter, as counted on: {{ n(givesA) }} A</text>
    </template>
  </svg>
</template>

<style scoped>
.modes {
  width: 100%;
  max-height: 180px;
  font-size: 12.5px;
}

text {
  fill: var(--tv-ink);
}

.name,
.gives-text {
  text-anchor: end;
}

.sum {
  font-weight: 700;
}

.must {
  fill: var(--tv-lowvolt);
}

.may {
  fill: var(--tv-recess);
  stroke: var(--tv-lowvolt);
}

.on {
  fill: var(--tv-sheet);
}

.gives {
  stroke: var(--tv-ink);
  stroke-width: 2;
  stroke-dasharray: 5 3;
}
</style>
