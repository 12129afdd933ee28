<script setup lang="ts">
import { entryOutcome, entryTitle, itemStates, stockOf, type ItemState } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import { nameOfThing, type ThingRow } from './things';
import { momentOf } from '../../../parts/dates';

/** One thing: fitted, swapped, taken out, judged; and what the record tells of it. */
const props = defineProps<{ row: ThingRow; empty: readonly string[] }>();
const job = useJob();
const session = useSession();
const fitted = computed(() => props.row.place !== null);
const usable = computed(() => !['rejected', 'retired'].includes(props.row.item.state));
/** Places with what sits in them: fitting into one that is taken is a swap. */
const places = computed(() => {
  const { items, inPlace } = stockOf(job.entries);
  return Object.entries(job.design.modules).map(([id, { tag }]) => {
    const there = items.get(inPlace.get(id) ?? '');
    return {
      id,
      text: there === undefined ? `${tag}, empty` : `${tag}, instead of ${nameOfThing(there, job.design)}`,
      taken: there !== undefined,
    };
  });
});
const place = ref('');
const state = ref<ItemState | ''>('');
const reason = ref('');
const busy = ref(false);
const problem = ref<string | null>(null);
const told = computed(() => {
  const own = new Set(props.row.item.history);
  return job.entries.filter(({ seq }) => own.has(seq)).reverse();
});
const states = computed(() =>
  itemStates.filter((one) => one !== props.row.item.state && !(fitted.value && one === 'retired')),
);

async function send(body: { kind: string } & Record<string, unknown>, title: string): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  problem.value = null;
  try {
    await job.record(
      {
        id: newId('entry'),
        item: props.row.id,
        ...(reason.value.trim() !== '' && { reason: reason.value.trim() }),
        ...body,
      },
      title,
    );
    reason.value = '';
    place.value = '';
    state.value = '';
  } catch (error) {
    problem.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
const fit = () => send({ kind: 'fit', place: place.value }, `${props.row.name} fitted`);
const remove = () =>
  send({ kind: 'remove', state: state.value || props.row.item.state }, `${props.row.name} taken out`);
const judge = () => send({ kind: 'item-state', state: state.value }, `${props.row.name} is ${state.value}`);
const when = (instant: string) => momentOf(instant, job.design.settings.zone);
</script>

<template>
  <section class="sheet-card" :aria-label="`Thing ${row.name}`" data-thing-card>
    <div class="card-head">
      <h2>{{ row.name }}</h2>
      <span class="hint"
        >{{ row.place === null ? 'on the shelf' : `in ${row.place}` }}, {{ row.item.state
        }}{{ row.item.reason ? `: ${row.item.reason}` : '' }}</span
      >
    </div>
    <div class="split">
      <form v-if="session.mayRecord" class="acts" @submit.prevent>
        <label
          >Why
          <input
            v-model="reason"
            class="form-control"
            maxlength="2000"
            aria-label="Why"
            placeholder="stands in the record"
          />
        </label>
        <div v-if="!fitted" class="line">
          <select v-model="place" class="form-select" aria-label="Place" :disabled="!usable">
            <option value="">into which place …</option>
            <option v-for="one in places" :key="one.id" :value="one.id">{{ one.text }}</option>
          </select>
          <BButton size="sm" variant="primary" :disabled="place === '' || busy || !usable" @click="fit">{{
            places.find(({ id }) => id === place)?.taken ? 'Swap' : 'Fit'
          }}</BButton>
        </div>
        <div class="line">
          <select v-model="state" class="form-select" aria-label="State">
            <option value="">{{ row.item.state }}, as it is</option>
            <option v-for="one in states" :key="one" :value="one">{{ one }}</option>
          </select>
          <BButton size="sm" variant="light" :disabled="state === '' || busy" @click="judge"
            >Judge it so</BButton
          >
          <BButton v-if="fitted" size="sm" variant="light" :disabled="busy" @click="remove"
            >Take it out</BButton
          >
        </div>
        <p v-if="!usable && !fitted" class="soft">
          What is {{ row.item.state }} is not fitted: judge it anew first.
        </p>
        <p v-if="fitted" class="soft">
          Taking a module out opens its joints: they are torqued and measured again. Links out first, covers
          over what stays; the precautions of the step hold.
        </p>
        <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      </form>
      <div>
        <p v-if="row.item.donor || row.item.note || row.item.price !== null" class="facts">
          {{
            [
              row.item.donor ? `from ${row.item.donor}` : null,
              row.item.price !== null ? `price ${row.item.price}` : null,
              row.item.look,
              row.item.note,
            ]
              .filter((one) => one)
              .join(', ')
          }}
        </p>
        <ol class="told">
          <li v-for="entry in told" :key="entry.seq">
            <span class="soft">{{ entry.seq }}, {{ when(entry.takenAt) }}, {{ entry.by }}</span>
            {{ entryTitle(entry.body) }}<b v-if="entryOutcome(entry) !== ''">: {{ entryOutcome(entry) }}</b>
          </li>
        </ol>
        <p class="soft">Entries that still count, newest first; Book has all of them.</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
  gap: 1.2rem;
}

.acts {
  display: grid;
  gap: 0.6rem;
  align-content: start;
}

.line {
  display: flex;
  gap: 0.5rem;
}

.line .btn {
  white-space: nowrap;
}

label {
  font-size: 0.85rem;
  color: var(--tv-soft);
}

.told {
  list-style: none;
  padding: 0;
  margin: 0;
  max-height: 14rem;
  overflow-y: auto;
}

.told li {
  padding: 0.15rem 0;
  border-bottom: 1px solid var(--tv-line);
}

.bad {
  color: var(--tv-stop);
  margin: 0;
}

p {
  margin: 0;
}
</style>
