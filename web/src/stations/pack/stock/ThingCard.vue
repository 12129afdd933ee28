<script setup lang="ts">
import { partPlaces } from '@torvek/core/document';
import { entryOutcome, entryTitle, isModule, itemStates, stockOf, type ItemState } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import SendAway from './SendAway.vue';
import { nameOfThing, type PartRow } from './things';
import { momentOf } from '../../../parts/dates';

/** One thing: fitted, swapped, taken out, judged; and what the record tells of it. */
const props = defineProps<{ row: PartRow; empty: readonly string[] }>();
const job = useJob();
const session = useSession();
const here = computed(() => props.row.item.sentTo === null);
const fitted = computed(() => here.value && props.row.place !== null);
const usable = computed(() => !['rejected', 'retired'].includes(props.row.item.state));
/** Places with what sits in them: fitting into one that is taken is a swap. */
const places = computed(() => {
  const { items, inPlace } = stockOf(job.entries);
  const { sort, part } = props.row.item;
  const those: { id: string; tag: string; as: string | null }[] = isModule(props.row.item)
    ? Object.entries(job.design.modules).map(([id, one]) => ({ id, tag: one.tag, as: one.part }))
    : partPlaces(job.design)
        .filter(({ kind }) => kind === sort)
        .map(({ path, name, part: as }) => ({ id: path, tag: name, as }))
        // Places for which this very part is designed come first.
        .sort((a, b) => Number(b.as === part) - Number(a.as === part));
  return those.map(({ id, tag, as }) => {
    const there = items.get(inPlace.get(id) ?? '');
    return {
      id,
      text: there === undefined ? `${tag}, empty` : `${tag}, instead of ${nameOfThing(there, job.design)}`,
      taken: there !== undefined,
      other: !isModule(props.row.item) && part !== null && as !== null && as !== part,
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
const chosen = computed(() => places.value.find(({ id }) => id === place.value) ?? null);
const fit = () =>
  send(
    { kind: isModule(props.row.item) ? 'fit' : 'part-fitted', place: place.value },
    `${props.row.name} fitted`,
  );
const sendTo = (to: { id: string; name: string }) =>
  send({ kind: 'sent', to: to.id }, `${props.row.name} sent to ${to.name}`);
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
        >{{ isModule(row.item) ? '' : `${row.what}, `
        }}{{
          !here ? `sent to ${row.item.sentTo}` : row.place === null ? 'on the shelf' : `in ${row.place}`
        }}, {{ row.item.state }}{{ row.item.reason ? `: ${row.item.reason}` : '' }}</span
      >
    </div>
    <div class="split">
      <form v-if="session.mayRecord && here" class="acts" @submit.prevent>
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
          <BButton
            size="sm"
            variant="primary"
            :disabled="place === '' || busy || !usable || (chosen?.other && reason.trim() === '')"
            @click="fit"
            >{{ chosen?.taken ? 'Swap' : 'Fit' }}</BButton
          >
        </div>
        <p v-if="!fitted && places.length === 0" class="soft">
          The design has no place for a {{ row.what }}.
        </p>
        <p v-else-if="chosen?.other" class="soft">
          Another part than designed: say why. It is judged as built in Prove.
        </p>
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
        <SendAway v-if="!fitted" :busy="busy" @send="sendTo" />
        <p v-if="!usable && !fitted" class="soft">
          What is {{ row.item.state }} is not fitted: judge it anew first.
        </p>
        <p v-if="fitted && isModule(row.item)" class="soft">
          Taking a module out opens its joints: they are torqued and measured again. Links out first, covers
          over what stays; the precautions of the step hold.
        </p>
        <p v-else-if="fitted" class="soft">
          What was proved of its place is due again once it is out. De-energised and locked off first; the
          precautions of the step hold.
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
        <template v-if="row.item.from">
          <p class="from">From {{ row.item.from.jobName }}, quoted:</p>
          <ol class="told" aria-label="Quoted entries">
            <li v-for="of in row.item.from.entries.toReversed()" :key="of.sha256">
              <span class="soft"
                >{{ of.seq }}, {{ when(of.takenAt) }}, {{ of.by }},
                <code :title="of.sha256">{{ of.sha256.slice(0, 8) }}</code></span
              >
              {{ of.title }}
            </li>
          </ol>
        </template>
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

.from {
  margin-top: 0.6rem;
}

.bad {
  color: var(--tv-stop);
  margin: 0;
}

p {
  margin: 0;
}
</style>
