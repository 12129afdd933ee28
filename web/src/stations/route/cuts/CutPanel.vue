<script setup lang="ts">
import { partKey } from '@torvek/core/parts';
import { formatNumber, formatQuantity, parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import LabelButton from '../../../parts/LabelButton.vue';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { useSession } from '../../../stores/session';
import { saveCsv } from '../../../parts/save-csv';
import { cutTable } from '../tables';
import { useCuts } from './use-cuts';
import { cutRows, plansOf, reelsOf, runLabels, type CutRow } from './cuts';

/** What is cut from which reel; what waits until its ends are fixed; and what was cut. */
const job = useJob();
const session = useSession();
const shelf = useLibrary();
const rows = computed(() => cutRows(job.design, job.entries));
const reels = computed(() => reelsOf(job.entries));
const labels = computed(() => runLabels(job.name, job.design));
const alsoOpen = ref(false);
const due = computed(() => rows.value.filter(({ now }) => now || alsoOpen.value));
const plans = computed(() => plansOf(due.value, reels.value));
const widthOf = (lengthM: number, reel: string) => {
  const long = Math.max(...reels.value.map((one) => one.leftM), 0.001);
  return { width: `${(lengthM / long) * 100}%`, title: reel };
};

const { typed, of, type, said, busy, send } = useCuts();
const reel = ref({ part: '', name: '', length: '' });
const cables = computed(() => [...shelf.library.of('cable'), ...shelf.library.of('hose')]);
async function record({ run, tag, count }: CutRow): Promise<void> {
  const { length, reel: from } = of(run);
  const read = parseQuantity(length, 'm');
  if (!read.ok || read.value <= 0) {
    said.value = `Length of ${tag}: a number above 0, in m.`;
    return;
  }
  const body = {
    kind: 'cable-cut',
    place: `runs.${run}.cutLengthM`,
    lengthM: read.value,
    ...(from !== '' && { reel: from, count }),
  };
  if (await send(body, `${tag} cut`)) {
    const { [run]: _done, ...rest } = typed.value;
    typed.value = rest;
  }
}
async function arrive(): Promise<void> {
  const read = parseQuantity(reel.value.length, 'm');
  if (reel.value.part === '') said.value = 'Cable of the reel: which one it is.';
  else if (!read.ok || read.value <= 0) said.value = 'Length of the reel: a number above 0, in m.';
  else {
    const item = {
      part: reel.value.part,
      lengthM: read.value,
      ...(reel.value.name.trim() !== '' && { serial: reel.value.name.trim() }),
    };
    if (
      await send({ kind: 'arrival', items: [item] }, `Reel ${reel.value.name.trim() || 'of cable'} arrived`)
    )
      reel.value = { part: reel.value.part, name: '', length: '' };
  }
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="cuts-title" data-cuts>
    <div class="card-head">
      <h2 id="cuts-title">Cut list</h2>
      <span class="hint">cut now what can no longer move; the rest is measured in place</span>
      <LabelButton v-if="rows.length > 0" class="labels" what="cables" :labels="labels" />
      <BButton
        v-if="rows.length > 0"
        class="csv"
        size="sm"
        variant="light"
        @click="saveCsv(job.name, 'cuts', cutTable(rows))"
        >CSV</BButton
      >
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      Nothing to cut yet: runs that carry circuits with a chosen cable, or hoses, appear here.
    </p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th scope="col">run</th>
          <th scope="col">cable</th>
          <th scope="col" class="num">pieces</th>
          <th scope="col" class="num">each, m</th>
          <th scope="col">when</th>
          <th scope="col" class="num">cut, m</th>
          <th v-if="session.mayRecord" scope="col">as cut, m</th>
          <th v-if="session.mayRecord" scope="col">from reel</th>
          <th v-if="session.mayRecord" scope="col"><span class="visually-hidden">record</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="`${row.run} ${row.part}`">
          <th scope="row">{{ row.tag }}</th>
          <td class="part" :title="row.partLabel">{{ row.partLabel }}</td>
          <td class="num">{{ row.count }}</td>
          <td class="num">
            <b>{{ row.lengthM === null ? 'not computed' : formatNumber(row.lengthM, 4) }}</b>
          </td>
          <td class="when" :class="{ wait: !row.now }">{{ row.now ? 'cut now' : 'in place' }}</td>
          <td class="num">{{ row.cutM === null ? '' : formatNumber(row.cutM, 4) }}</td>
          <template v-if="session.mayRecord">
            <td>
              <input
                class="form-control number"
                inputmode="decimal"
                :value="of(row.run).length"
                :placeholder="row.lengthM === null ? '' : formatNumber(row.lengthM, 4)"
                :aria-label="`As cut, ${row.tag}`"
                @input="type(row.run, 'length', $event)"
                @keydown.enter.prevent="record(row)"
              />
            </td>
            <td>
              <select
                class="form-select"
                :value="of(row.run).reel"
                :aria-label="`Reel for ${row.tag}`"
                @change="type(row.run, 'reel', $event)"
              >
                <option value="">not said</option>
                <option
                  v-for="one in reels.filter(({ part }) => part === row.part)"
                  :key="one.id"
                  :value="one.id"
                >
                  {{ one.name }}, {{ formatNumber(one.leftM) }} m
                </option>
              </select>
            </td>
            <td>
              <BButton
                size="sm"
                variant="primary"
                :disabled="busy || of(row.run).length.trim() === ''"
                :aria-label="`Record the cut of ${row.tag}`"
                @click="record(row)"
                >Record</BButton
              >
            </td>
          </template>
        </tr>
      </tbody>
    </table>
    <p v-if="said" role="status">{{ said }}</p>
  </section>
  <section class="sheet-card" aria-labelledby="reels-title" data-reels>
    <div class="card-head">
      <h2 id="reels-title">Reels</h2>
      <span class="hint">the most cuts on the fewest reels, the longest left-overs kept whole</span>
      <label v-if="rows.some(({ now }) => !now)" class="also"
        ><input v-model="alsoOpen" type="checkbox" class="form-check-input" /> also what is still measured in
        place</label
      >
    </div>
    <template v-for="plan in plans" :key="plan.part">
      <h3>{{ plan.label }}</h3>
      <ul class="reels">
        <li v-for="one in reels.filter(({ part }) => part === plan.part)" :key="one.id">
          <span class="name">{{ one.name }}</span>
          <span class="bar" :style="widthOf(one.leftM, one.name)">
            <template
              v-for="cut in plan.plan.assignments.find(({ reelId }) => reelId === one.id)?.cutIds ?? []"
              :key="cut"
            >
              <span
                class="cut"
                :style="{
                  width: `${((plan.cuts.find(({ id }) => id === cut)?.lengthM ?? 0) / Math.max(one.leftM, 0.001)) * 100}%`,
                }"
                :title="`${plan.cuts.find(({ id }) => id === cut)?.name}: ${formatQuantity(plan.cuts.find(({ id }) => id === cut)?.lengthM ?? 0, 'm')}`"
                >{{ plan.cuts.find(({ id }) => id === cut)?.name }}</span
              >
            </template>
          </span>
          <span class="soft"
            >{{
              formatNumber(plan.plan.assignments.find(({ reelId }) => reelId === one.id)?.leftM ?? one.leftM)
            }}
            m left of {{ formatNumber(one.leftM) }} m</span
          >
        </li>
      </ul>
      <p v-if="plan.plan.unplaced.length > 0" class="bad" role="alert">
        On no reel:
        {{
          plan.plan.unplaced
            .map((id) => plan.cuts.find((cut) => cut.id === id))
            .map((cut) => `${cut?.name}, ${formatQuantity(cut?.lengthM ?? 0, 'm')}`)
            .join('; ')
        }}.
      </p>
      <p v-if="!plan.exact" class="soft">So many cuts are laid well, not the best for certain.</p>
    </template>
    <p v-if="plans.length === 0" class="soft">
      {{ rows.length === 0 ? 'Nothing to lay on reels.' : 'Nothing is to be cut now.' }}
      {{
        reels.length > 0
          ? `In stock: ${reels.map(({ name, leftM }) => `${name} ${formatNumber(leftM)} m`).join(', ')}.`
          : ''
      }}
    </p>
    <form v-if="session.mayRecord" class="arrive" @submit.prevent="arrive">
      <b>A reel arrives</b>
      <select v-model="reel.part" class="form-select" aria-label="Cable of the reel">
        <option value="">which cable …</option>
        <option v-for="one in cables" :key="partKey(one)" :value="partKey(one)">{{ one.label }}</option>
      </select>
      <input
        v-model="reel.name"
        class="form-control"
        maxlength="80"
        placeholder="its name or number"
        aria-label="Name of the reel"
      />
      <label
        ><input
          v-model="reel.length"
          class="form-control number"
          inputmode="decimal"
          aria-label="Length of the reel"
        />
        m</label
      >
      <BButton size="sm" variant="light" type="submit" :disabled="busy">Record</BButton>
    </form>
  </section>
</template>

<style scoped>
.part {
  max-width: 7.2rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.grid-table .form-select {
  min-width: 8.5rem;
}

.number {
  width: 4.6rem;
  text-align: right;
}

.labels {
  margin-left: auto;
}

.when {
  white-space: nowrap;
}

.wait {
  color: var(--tv-mend);
}

h3 {
  font-size: 0.95rem;
  margin: 0.5rem 0 0.2rem;
}

.reels {
  list-style: none;
  padding: 0;
  margin: 0;
}

.reels li {
  display: grid;
  grid-template-columns: 7rem minmax(0, 1fr) 11rem;
  gap: 0.6rem;
  align-items: center;
  padding: 0.15rem 0;
}

.bar {
  display: flex;
  height: 1.5rem;
  background: var(--tv-recess);
  border: 1px solid var(--tv-line);
}

.cut {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  font-size: 0.75rem;
  line-height: 1.15rem;
  padding: 0 0.25rem;
  color: var(--tv-ink);
  background: var(--tv-sheet);
  border-top: 3px solid var(--tv-hv);
  border-right: 2px solid var(--tv-hv);
}

.also {
  margin-left: auto;
  font-size: 0.9rem;
}

.arrive {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.7rem;
}

.arrive .form-select,
.arrive > .form-control {
  width: auto;
}

.arrive label {
  display: flex;
  gap: 0.3rem;
  align-items: center;
}

.bad {
  color: var(--tv-stop);
}

p {
  margin: 0.3rem 0 0;
}
</style>
