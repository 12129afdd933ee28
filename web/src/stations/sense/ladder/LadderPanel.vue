<script setup lang="ts">
import { faultText } from '@torvek/core/commissioning';
import type { Id } from '@torvek/core/document';
import { packLayout } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { useJob } from '../../../stores/job';
import { useMap } from '../use-map';
import { rungs, typedTaps, verdictOf } from './picture';

/** Readings of a plug while the meter is at hand: the picture grows with each, and a miswire is told by name. */
const job = useJob();
const route = useRoute();
const router = useRouter();
const { strings, stringId, result, wires, boardTag, moduleTag, pick } = useMap();
const boards = computed(() => result.value?.boards ?? []);
const boardId = computed(() => {
  const asked = typeof route.query.board === 'string' ? route.query.board : '';
  return boards.value.some(({ id }) => id === asked) ? asked : (boards.value[0]?.id ?? '');
});
const board = computed(() => boards.value.find(({ id }) => id === boardId.value));
const choose = (id: Id) => void router.replace({ query: { ...route.query, board: id } });
const cell = computed(() => packLayout(job.design).layout?.part.data.cell);
const shape = computed(() =>
  board.value === undefined || cell.value === undefined
    ? null
    : {
        cells: board.value.cells.length,
        tied: board.value.tiedChannels.length,
        minV: cell.value.minV,
        maxV: cell.value.maxV,
      },
);
const text = ref('');
watch(boardId, () => (text.value = ''));
const typed = computed(() => typedTaps(text.value));
const ladder = computed(() => (shape.value === null ? [] : rungs(typed.value.taps, shape.value)));
const verdict = computed(() => (shape.value === null ? null : verdictOf(typed.value.taps, shape.value)));
const tooMany = computed(() => typed.value.taps.length - ladder.value.length);
const pinOf = (pin: number) => wires.value.find((one) => one.board === boardId.value && one.pin === pin);
const where = (pin: number) => {
  const wire = pinOf(pin);
  if (wire === undefined) return '';
  return wire.what === 'tie' ? 'tied to the top' : `${moduleTag(wire.module)}, tap ${wire.tap}`;
};
const n = (value: number) => formatNumber(value, 4);
const words = { waits: 'not read', good: 'a cell', tie: 'as the top', wrong: 'no cell' };
const step = computed(() => `sense-ladder:${boardId.value}`);
</script>

<template>
  <section class="sheet-card" aria-labelledby="ladder-title" data-sense-ladder>
    <div class="card-head">
      <h2 id="ladder-title">Ladder of a plug</h2>
      <div class="chips" role="group" aria-label="Strings">
        <button
          v-for="one in strings"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === stringId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === stringId"
          @click="pick(one.id)"
        >
          {{ one.tag }}
        </button>
      </div>
      <div class="chips" role="group" aria-label="Boards">
        <button
          v-for="one in boards"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === boardId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === boardId"
          @click="choose(one.id)"
        >
          {{ boardTag(one.id) }}
        </button>
      </div>
    </div>
    <p v-if="shape === null" class="panel-empty">
      No board yet: see Map. Each plug is read pin by pin against its reference before it goes in.
    </p>
    <template v-else>
      <p class="precaution">
        Taps are live whatever is switched off, and the cells behind them feed a slipped probe without limit:
        shrouded probes, no jewellery, covers over all else; above the touch limit rated gloves and a second
        person. The segment’s links are closed; never read across an open one. Makers’ documents and local
        rules come first.
      </p>
      <div class="two-parts">
        <div>
          <label for="taps">Pin 2 to {{ ladder.length + 1 }} against pin 1, V, one a line</label>
          <textarea
            id="taps"
            v-model="text"
            class="form-control"
            :rows="Math.min(16, ladder.length + 1)"
            inputmode="decimal"
            spellcheck="false"
            data-taps
          />
          <p v-if="typed.problem" class="problem" role="alert">{{ typed.problem }}</p>
          <p v-else-if="tooMany > 0" class="problem" role="alert">
            {{ tooMany }} readings too many for {{ shape.cells }} cells and {{ shape.tied }} ties.
          </p>
          <p v-else-if="typed.taps.length < ladder.length" class="soft">
            Next: pin {{ typed.taps.length + 2 }}, {{ where(typed.taps.length + 2) }}.
          </p>
          <div
            v-if="verdict"
            class="verdict"
            :class="{ stop: verdict.doNotConnect }"
            role="status"
            data-verdict
          >
            <p v-if="verdict.ok">
              <b>Every step is a cell{{ shape.tied > 0 ? ', every tie as the top' : '' }}.</b>
            </p>
            <template v-else>
              <p v-if="verdict.doNotConnect"><b>Do not connect.</b></p>
              <p v-for="fault in verdict.faults" :key="`${fault.kind} ${fault.taps.join(' ')}`">
                {{ faultText(fault) }}
              </p>
            </template>
          </div>
          <p>
            <RouterLink :to="{ name: 'prove', params: { job: job.id }, query: { step } }"
              >Record it in Prove</RouterLink
            >
            <span class="soft">, with instrument and person.</span>
          </p>
        </div>
        <table class="grid-table" data-rungs>
          <thead>
            <tr>
              <th scope="col">pin</th>
              <th scope="col">from</th>
              <th scope="col" class="num">V</th>
              <th scope="col" class="num">step, V</th>
              <th scope="col">so</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="rung in [...ladder].reverse()"
              :key="rung.pin"
              :class="rung.state"
              :data-pin="rung.pin"
            >
              <th scope="row">{{ rung.pin }}</th>
              <td>{{ where(rung.pin) }}</td>
              <td class="num">{{ rung.voltV === null ? '' : n(rung.voltV) }}</td>
              <td class="num">{{ rung.stepV === null ? '' : n(rung.stepV) }}</td>
              <td><span class="mark" />{{ words[rung.state] }}</td>
            </tr>
            <tr>
              <th scope="row">1</th>
              <td>{{ where(1) }}</td>
              <td class="num">0</td>
              <td />
              <td>reference</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.precaution {
  padding-left: 0.6rem;
  border-left: 3px solid var(--tv-hv);
}

.two-parts {
  display: grid;
  grid-template-columns: minmax(0, 18rem) minmax(0, 1fr);
  gap: 1.4rem;
  align-items: start;
}

.verdict {
  margin-top: 0.5rem;
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--tv-pass);
  background: var(--tv-recess);
}

.verdict.stop {
  border-left-color: var(--tv-stop);
}

.verdict p {
  margin: 0;
}

.problem {
  color: var(--tv-stop);
}

.mark {
  display: inline-block;
  width: 0.7rem;
  height: 0.7rem;
  margin-right: 0.4rem;
  border: 2px solid var(--tv-soft);
}

.good .mark,
.tie .mark {
  background: var(--tv-pass);
  border-color: var(--tv-pass);
}

.wrong .mark {
  background: var(--tv-stop);
  border-color: var(--tv-stop);
  border-radius: 50%;
}

.wrong td {
  font-weight: 700;
}
</style>
