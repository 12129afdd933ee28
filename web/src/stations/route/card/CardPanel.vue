<script setup lang="ts">
import { gapText } from '@torvek/core/figure';
import { tubesOf, type TubeAnswer } from '@torvek/core/routing';
import { bendCard, type BendCardInput } from '@torvek/core/routing';
import { waysAlong } from '@torvek/core/document';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import NumberField from '../../../parts/NumberField.vue';
import { figureId } from '@torvek/core/figure';
import { useJob } from '../../../stores/job';
import { saveCsv } from '../../../parts/save-csv';
import { bendRows } from '../tables';
import AsBentPanel from './AsBentPanel.vue';
import PullCard from './PullCard.vue';
import { printCard, printTemplates } from './print-card';
import { turnText } from './tube-drawing';
import TubeView from './TubeView.vue';

/** What to do at the bender for each conduit, and how its cables are pulled in. */
const job = useJob();
const tubes = computed(() =>
  Object.entries(job.design.runs ?? {}).flatMap(([id, run]) =>
    tubesOf(waysAlong(run.points ?? [])).map((_tube, i) => ({
      key: `${id}/${i + 1}`,
      run: id,
      name: `${run.tag}, conduit ${i + 1}`,
    })),
  ),
);
const chosen = ref('');
const tube = computed(() => tubes.value.find(({ key }) => key === chosen.value) ?? tubes.value[0]);
const answered = computed(() => job.evaluation.runs[`routing.tube:${tube.value?.key ?? ''}`]);
const answer = computed(() => answered.value?.result as TubeAnswer | undefined);
const mirror = ref(false);
const start = ref('');
const end = ref('');
const step = ref<number | null>(null);
watch(tube, () => (step.value = null));
const millimetres = (text: string) => {
  if (text.trim() === '') return 0;
  const read = parseQuantity(text, 'mm');
  return read.ok && read.value >= 0 && read.value <= 10_000 ? read.value : null;
};
const wrong = computed(() => millimetres(start.value) === null || millimetres(end.value) === null);
/** The card of the run, its twin, or with allowances: the same calculator. */
const asked = computed((): BendCardInput | null => {
  const input = (answered.value?.input as { card: BendCardInput | null } | undefined)?.card;
  if (input == null || wrong.value) return null;
  const parsed = bendCard.parse({
    ...input,
    mirror: mirror.value,
    startAllowanceMm: millimetres(start.value) ?? 0,
    endAllowanceMm: millimetres(end.value) ?? 0,
  });
  return parsed.ok ? parsed.input : null;
});
const card = computed(() => (asked.value === null ? null : bendCard.calculate(asked.value).result));
const gaps = computed(() => {
  const key = tube.value?.key ?? '';
  const figure = job.figure(figureId('routing.tube', key, 'tubeCutMm'));
  return figure?.value === null ? figure.gaps.map(gapText).join('; ') : '';
});
const made = computed(() => step.value ?? card.value?.bends.length ?? 0);
const busy = ref(false);
const said = ref<string | null>(null);
async function print(what: 'card' | 'templates'): Promise<void> {
  if (card.value === null || tube.value === undefined || asked.value === null) return;
  busy.value = true;
  said.value = null;
  try {
    await (what === 'card'
      ? printCard(job.name, tube.value.name, mirror.value, card.value, millimetres(start.value) ?? 0)
      : printTemplates(job.name, tube.value.name, mirror.value, card.value, asked.value.tubeOuterMm));
  } catch (error) {
    said.value = `Not made: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="card-title" data-card>
    <div class="card-head">
      <h2 id="card-title">Bend card</h2>
      <select
        v-if="tubes.length > 0"
        class="form-select tubes"
        aria-label="Conduit"
        :value="tube?.key"
        @change="chosen = ($event.target as HTMLSelectElement).value"
      >
        <option v-for="one in tubes" :key="one.key" :value="one.key">{{ one.name }}</option>
      </select>
      <label v-if="card" class="form-check"
        ><input v-model="mirror" type="checkbox" class="form-check-input" /> mirrored twin</label
      >
      <BButton v-if="card" class="print" size="sm" variant="light" :disabled="busy" @click="print('card')"
        >Card as PDF</BButton
      >
      <BButton
        v-if="card && card.bends.length > 0"
        size="sm"
        variant="light"
        :disabled="busy"
        @click="print('templates')"
        >Templates, full size</BButton
      >
      <BButton
        v-if="card && tube"
        size="sm"
        variant="light"
        @click="saveCsv(job.name, 'bends', bendRows(`${tube.name}${mirror ? ', mirrored' : ''}`, card))"
        >CSV</BButton
      >
    </div>
    <p v-if="tube === undefined" class="panel-empty">
      No conduit yet: in Runs, a point whose next leg lies “in conduit” begins one.
    </p>
    <div v-if="tube !== undefined" class="allows">
      <label class="allow"
        >before the first end
        <input
          v-model="start"
          class="form-control"
          inputmode="decimal"
          aria-label="Allowance at the start"
          placeholder="0"
        />
        mm</label
      >
      <label class="allow"
        >after the last
        <input
          v-model="end"
          class="form-control"
          inputmode="decimal"
          aria-label="Allowance at the end"
          placeholder="0"
        />
        mm</label
      >
    </div>
    <p v-if="tube !== undefined && card === null" class="soft">
      {{
        wrong
          ? 'An allowance cannot be read: mm, 0 or more.'
          : `Not computed, because ${gaps || 'the bends leave no room between them'}.`
      }}
    </p>
    <template v-else-if="card !== null && tube !== undefined">
      <TubeView :card="card" :done="made" :start-mm="millimetres(start) ?? 0" />
      <div class="split">
        <table class="grid-table">
          <thead>
            <tr>
              <th scope="col">bend</th>
              <th scope="col" class="num">mark at, mm</th>
              <th scope="col" class="num">set to, °</th>
              <th scope="col" class="num">comes out at, °</th>
              <th scope="col">turn the tube first</th>
              <th scope="col" class="num">ends, mm</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="bend in card.bends" :key="bend.number" :class="{ picked: made === bend.number }">
              <th scope="row">
                <button type="button" class="visually-plain link" @click="step = bend.number">
                  {{ bend.number }}
                </button>
              </th>
              <td class="num">
                <b>{{ formatNumber(bend.startMarkMm, 5) }}</b>
              </td>
              <td class="num">
                <b>{{ formatNumber(bend.setAngleDeg, 4) }}</b>
              </td>
              <td class="num">{{ formatNumber(bend.angleDeg, 4) }}</td>
              <td>{{ bend.number === 1 ? 'as it lies' : turnText(bend.rotationDeg) }}</td>
              <td class="num">{{ formatNumber(bend.endMarkMm, 5) }}</td>
            </tr>
          </tbody>
        </table>
        <div>
          <p class="cut">
            Cut <b>{{ formatNumber(card.cutLengthMm, 5) }} mm</b>, last straight
            {{ formatNumber(card.lastStraightMm, 4) }} mm.
          </p>
          <p :class="{ bad: card.kink !== 'low' }">
            Radius {{ formatNumber(card.radiusOverDiameter) }} × diameter:
            {{ card.kink === 'low' ? 'kinks are unlikely' : card.kink }}.
          </p>
          <NumberField :path="`runs.${tube.run}.springbackFraction`" />
        </div>
      </div>
      <ul class="watch">
        <li>
          Fed start first; clockwise looking the way the tube moves. Marks are measured along the straight
          tube from its start, all drawn before the first bend.
        </li>
        <li>
          Bend a scrap first: what it springs back goes into the field above. Ends square, deburred and
          cleaned before anything is pulled through.
        </li>
        <li v-if="card.kink !== 'low'">
          Galvanised tube gives off zinc fume when heated: strip it, outdoors, with a respirator. Dry sand
          only: damp sand bursts the tube.
        </li>
      </ul>
    </template>
    <AsBentPanel
      v-if="card !== null && asked !== null && tube !== undefined && card.bends.length > 0"
      :key="tube.key"
      :tube="tube.key"
      :run-id="tube.run"
      :input="asked"
      :card="card"
      :mirror="mirror"
    />
    <p v-if="said" class="bad" role="alert">{{ said }}</p>
  </section>
  <PullCard v-if="tube" :tube="tube.key" :run-id="tube.run" :answer="answer ?? null" />
</template>

<style scoped>
.tubes {
  width: auto;
}

.print {
  margin-left: auto;
}

.split {
  display: grid;
  grid-template-columns: minmax(0, 2.6fr) minmax(13rem, 1fr);
  gap: 1rem;
  margin-top: 0.5rem;
}

.link {
  font-weight: 600;
  color: var(--tv-act);
  text-decoration: underline;
  min-width: 1.6rem;
}

.allows {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
  margin-bottom: 0.3rem;
}

.allow {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  font-size: 0.9rem;
}

.allow .form-control {
  width: 5rem;
  text-align: right;
}

.watch {
  font-size: 0.9rem;
  padding-left: 1.2rem;
  margin: 0.6rem 0 0;
}

.bad {
  color: var(--tv-stop);
}

p {
  margin: 0.3rem 0;
}
</style>
