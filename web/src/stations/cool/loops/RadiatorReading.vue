<script setup lang="ts">
import { coreBandWPerK, fluidTableOf, thermometerOffK, uaFromReading } from '@torvek/core/cooling';
import type { Id } from '@torvek/core/document';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive } from 'vue';
import { useJob } from '../../../stores/job';

/** What a radiator really exchanges, by what is read at it while the loop works: it counts instead of sheet and size. */
const props = defineProps<{ pieceId: Id }>();
const job = useJob();
const piece = computed(() => job.design.plumbing?.[props.pieceId]);
const asked = [
  ['flowLPerMin', 'Flow', 'L/min'],
  ['inC', 'Coolant in', '°C'],
  ['outC', 'Coolant out', '°C'],
  ['airInC', 'Air before it', '°C'],
] as const;
const texts = reactive<Record<string, string>>({});
const airKgPerS = computed(() => {
  const fan = job.design.parts[piece.value?.fan ?? ''];
  return piece.value?.airKgPerS ?? (fan?.kind === 'fan' ? fan.data.airKgPerS : undefined);
});
const band = computed(() => {
  const { radiator, uaWPerK } = piece.value ?? {};
  return piece.value === undefined || radiator !== undefined || uaWPerK !== undefined
    ? null
    : coreBandWPerK(piece.value, airKgPerS.value ?? null);
});
const found = computed(() => {
  if (asked.some(([name]) => (texts[name] ?? '').trim() === '')) return null;
  const read = asked.map(([name, label, unit]) => ({ label, one: parseQuantity(texts[name]!, unit) }));
  const bad = read.find(({ one }) => !one.ok);
  if (bad !== undefined) return { ok: false as const, message: `${bad.label}: is no number` };
  if (airKgPerS.value === undefined)
    return { ok: false as const, message: 'the air through it is not given' };
  const [flowLPerMin, inC, outC, airInC] = read.map(({ one }) => (one.ok ? one.value : 0)) as [
    number,
    number,
    number,
    number,
  ];
  const part = job.design.parts[job.design.loops?.[piece.value?.loop ?? '']?.coolant ?? ''];
  return uaFromReading(
    { flowLPerMin, inC, outC, airInC, airKgPerS: airKgPerS.value },
    fluidTableOf(part?.kind === 'coolant' ? part.data : undefined),
  );
});
const n = (value: number) => (Number.isFinite(value) ? formatNumber(value) : 'no end');
function take(uaWPerK: number): void {
  job.set(
    `plumbing.${props.pieceId}.uaWPerK`,
    Number(uaWPerK.toPrecision(4)),
    `${piece.value?.tag ?? ''}: heat exchanged, as measured`,
  );
}
</script>

<template>
  <details class="reading" data-radiator-reading>
    <summary>
      Measured at work<span v-if="band !== null" class="soft"
        >; by its core {{ n(band[0]) }} to {{ n(band[1]) }} W/K, judged by the least</span
      >
    </summary>
    <div class="asked">
      <label v-for="[name, label, unit] in asked" :key="name"
        >{{ label }} <span class="soft">{{ unit }}</span><input
          v-model="texts[name]"
          class="form-control"
          inputmode="decimal"
          maxlength="20"
          autocomplete="off"
      /></label>
    </div>
    <p v-if="found !== null && !found.ok" class="problem" role="alert">Not computed: {{ found.message }}.</p>
    <p v-else-if="found !== null && found.ok" class="told" role="status">
      {{ n(found.heatW) }} W out of the coolant: <b>{{ n(found.uaWPerK) }} W/K</b>, or anything from
      {{ n(found.betweenWPerK[0]) }} to {{ n(found.betweenWPerK[1]) }} when both thermometers are
      {{ thermometerOffK }} K wrong.
      <BButton size="sm" variant="primary" :disabled="!job.editable" @click="take(found.uaWPerK)"
        >Take it</BButton
      >
    </p>
  </details>
</template>

<style scoped>
.reading {
  font-size: 0.9rem;
  margin: 0.3rem 0;
}

.asked {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 7rem));
  gap: 0.3rem 0.6rem;
  margin-top: 0.2rem;
}

.asked input {
  text-align: right;
}

.told {
  margin: 0.4rem 0 0;
}

.problem {
  color: var(--tv-stop);
  margin: 0.4rem 0 0;
}
</style>
