<script setup lang="ts">
import { chooseSet, type Candidate } from '@torvek/core/balance';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import type { ThingRow } from './things';

/** The best set for the places from all that is here: what goes where, what it brings, who is spare and why not the others. */
const props = defineProps<{ rows: readonly ThingRow[] }>();
const job = useJob();
const session = useSession();
const named = computed(() => new Map(props.rows.map((row) => [row.id, row])));
const candidates = computed(() =>
  props.rows.map(({ id, name, item, place, values }): Candidate => ({
    id,
    name,
    state: item.state,
    part: item.part,
    // A place that is gone from the design holds nothing.
    place: place === null ? null : item.place,
    ...values,
  })),
);
const set = computed(() => chooseSet(job.design, candidates.value));
const moves = computed(() => set.value?.places.filter((one) => one.moves) ?? []);
const nameOf = (id: string | null) => (id === null ? 'none left' : (named.value.get(id)?.name ?? id));
const capacityOf = (id: string | null) => {
  const ah = named.value.get(id ?? '')?.values.capacityAh;
  return ah === undefined ? 'not measured' : `${formatNumber(ah, 4)} Ah`;
};
const strings = computed(() =>
  (set.value?.strings ?? []).map(({ id, smallestAh, unknown }) => ({
    id,
    tag: job.design.strings[id]?.tag ?? id,
    text:
      smallestAh === null
        ? 'nothing of it is measured'
        : `smallest ${formatNumber(smallestAh, 4)} Ah${unknown > 0 ? `, ${unknown} not measured` : ''}`,
    places: set.value!.places.filter(({ string }) => string === id),
  })),
);
/** Not chosen, by their reason. */
const rest = computed(() => {
  const byWhy = new Map<string, string[]>();
  for (const { id, why } of set.value?.rest ?? []) byWhy.set(why, [...(byWhy.get(why) ?? []), nameOf(id)]);
  return [...byWhy];
});
const gain = computed(() => {
  const { capacityAh, capacityNowAh } = set.value ?? { capacityAh: null, capacityNowAh: null };
  const text = (ah: number | null) => (ah === null ? 'not known' : `${formatNumber(ah, 4)} Ah`);
  return `Together ${text(capacityAh)}; as things sit now ${text(capacityNowAh)}.`;
});

const busy = ref(false);
const said = ref<string | null>(null);
/** What has to leave its place first, then what goes in: a thing is in one place at a time. */
async function fitAll(): Promise<void> {
  if (busy.value || set.value === null) return;
  busy.value = true;
  said.value = null;
  const stays = job.staysOpen();
  const list = moves.value;
  const count = candidates.value.length;
  try {
    for (const { thing } of list) {
      const row = named.value.get(thing!);
      if (row?.place == null) continue;
      stays();
      await job.record(
        {
          id: newId('entry'),
          kind: 'remove',
          item: thing,
          state: row.item.state,
          reason: 'Goes to another place of the best set.',
        },
        `${row.name} taken out`,
      );
    }
    for (const { place, thing } of list) {
      stays();
      await job.record(
        {
          id: newId('entry'),
          kind: 'fit',
          item: thing,
          place,
          reason: `Best set of ${count} by what was measured.`,
        },
        `${nameOf(thing)} fitted`,
      );
    }
    said.value = `${list.length} fitted.`;
  } catch (error) {
    said.value = `Not all was recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet-card" aria-label="Best set" data-choice-of-set>
    <div class="card-head">
      <h2>Best set for the places</h2>
      <span class="hint"
        >strings side by side add up, each has what its smallest has; what was not measured is unknown, not
        good</span
      >
    </div>
    <p v-if="set === null" class="panel-empty">
      Nothing to choose for: no string has places yet, or its places are of several kinds.
    </p>
    <template v-else>
      <p>
        {{ gain }}
        {{
          moves.length === 0
            ? 'Everything sits where it is chosen for.'
            : `${moves.length} of ${set.places.length} places get another thing.`
        }}
      </p>
      <div class="strings">
        <table v-for="string in strings" :key="string.id" class="grid-table">
          <caption>
            <b>{{ string.tag }}</b>,
            {{
              string.text
            }}
          </caption>
          <tbody>
            <tr v-for="one in string.places" :key="one.place" :class="{ moves: one.moves }">
              <td>{{ job.design.modules[one.place]?.tag }}</td>
              <td>{{ nameOf(one.thing) }}{{ one.moves ? ', new here' : '' }}</td>
              <td class="num">{{ one.thing === null ? '' : capacityOf(one.thing) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-if="session.mayRecord && moves.length > 0" class="acts">
        <BButton size="sm" variant="primary" :disabled="busy" @click="fitAll">{{
          busy ? 'Recording …' : `Record ${moves.length} as fitted`
        }}</BButton>
        <span class="soft"
          >Record it when they are in their places; taking modules out opens their joints.</span
        >
      </div>
      <p v-if="said" role="status">{{ said }}</p>
      <template v-if="set.rest.length > 0">
        <h3>Not chosen</h3>
        <ul>
          <li v-for="[why, names] in rest" :key="why" :title="names.join(', ')">
            <b>{{ names.length > 3 ? `${names.length} things, ${names[0]} first` : names.join(', ') }}</b>
            {{ why }}
          </li>
        </ul>
      </template>
    </template>
  </section>
</template>

<style scoped>
.strings {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
  gap: 1rem;
}

caption {
  caption-side: top;
  padding: 0.2rem 0;
  color: var(--tv-ink);
}

.moves td {
  font-weight: 600;
}

.acts {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-top: 0.6rem;
}

h3 {
  font-size: 1rem;
  margin: 0.8rem 0 0.2rem;
}

ul {
  margin: 0;
  padding-left: 1.2rem;
}
</style>
