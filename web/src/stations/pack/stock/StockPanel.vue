<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { useSession } from '../../../stores/session';
import { measures } from '../intake/sheet';
import ArrivalForm from './ArrivalForm.vue';
import ChoicePanel from './ChoicePanel.vue';
import PartList from './PartList.vue';
import ThingCard from './ThingCard.vue';
import { emptyPlaces, partRows, sentRows, thingRows, type ThingRow } from './things';

/** Modules and parts as things: what arrived, where each is, what was measured of it; fitted, swapped, taken out, sent on, retired. */
const job = useJob();
const session = useSession();
const library = useLibrary();
const route = useRoute();
const router = useRouter();
const rows = computed(() => thingRows(job.design, job.entries));
const empty = computed(() => (rows.value.length === 0 ? [] : emptyPlaces(job.design, job.entries)));
const parts = computed(() => partRows(job.design, job.entries));
const gone = computed(() => sentRows(job.design, job.entries));
const lists = computed(() =>
  (
    [
      ['modules', 'modules', rows.value.length],
      ['parts', 'other parts', parts.value.length],
      ['sent', 'sent to other jobs', gone.value.length],
    ] as const
  ).filter(([id, , count]) => count > 0 || id === 'modules'),
);
const listed = computed(() => {
  const asked = lists.value.find(([id]) => id === route.query.list)?.[0];
  return asked ?? (rows.value.length === 0 && parts.value.length > 0 ? 'parts' : 'modules');
});
const list = (id: string) => void router.replace({ query: { panel: 'stock', list: id } });
const nothing = computed(() => rows.value.length + parts.value.length + gone.value.length === 0);
const arriving = ref(false);
const choosing = ref(false);
const shownState = ref<'all' | 'shelf' | 'fitted' | 'retired'>('all');
const groups: Record<typeof shownState.value, (row: ThingRow) => boolean> = {
  all: ({ item }) => item.state !== 'retired',
  shelf: ({ place, item }) => place === null && item.state !== 'retired',
  fitted: ({ place }) => place !== null,
  retired: ({ item }) => item.state === 'retired',
};
const words = { all: 'in use', shelf: 'on the shelf', fitted: 'fitted', retired: 'retired' } as const;
const counts = computed(
  () => new Map(Object.entries(groups).map(([id, is]) => [id, rows.value.filter(is).length])),
);
const shown = computed(() => rows.value.filter(groups[shownState.value]));
const picked = computed(
  () => [...rows.value, ...parts.value, ...gone.value].find(({ id }) => id === route.query.thing) ?? null,
);
const pick = (id: string | null) =>
  void router.replace({
    query: { panel: 'stock', list: listed.value, ...(id !== null && { thing: id }) },
  });
const value = (row: ThingRow, { field, scale }: (typeof measures)[number]) => {
  const known = row.values[field];
  if (known === undefined) return '';
  return `${row.values.over?.[field] === true ? '>' : ''}${formatNumber(known / scale, 4)}`;
};
/** The list has room for what a choice goes by; the rest stands in Intake. */
const columns = measures.filter(({ field }) => field !== 'restedV' && field !== 'sensorOhm');
const where = ({ place, placeGone, item }: ThingRow) =>
  place ?? (placeGone ? 'shelf, its place is gone' : item.state === 'retired' ? '' : 'shelf');
/** Readings alone judge nothing: somebody says that it is good. */
const stateOf = ({ item, values }: ThingRow) =>
  item.state === 'untested' && Object.keys(values).length > 0 ? 'measured' : item.state;
const kindOf = ({ item }: ThingRow) =>
  item.part === null
    ? 'as designed'
    : ((job.design.parts[item.part] ?? library.library.find(item.part))?.number ?? item.part);
</script>

<template>
  <section class="sheet-card" aria-labelledby="stock-title" data-stock>
    <div class="card-head">
      <h2 id="stock-title">Stock</h2>
      <span class="hint">what was measured of a thing goes where it goes; a place never inherits it</span>
      <BButton
        v-if="session.mayRecord"
        class="add"
        size="sm"
        variant="light"
        :aria-expanded="arriving"
        @click="arriving = !arriving"
        >{{ arriving ? 'Close' : 'A crate arrives …' }}</BButton
      >
    </div>
    <ArrivalForm v-if="arriving && session.mayRecord" @done="arriving = false" />
    <p v-if="nothing && !arriving" class="panel-empty">
      Nothing arrived yet, and nothing was measured. Let a crate arrive here, of modules or of other parts; or
      type readings in Intake, place by place: what is read there is of the thing that sits there.
    </p>
    <div v-if="!nothing && lists.length > 1" class="filter" role="group" aria-label="Kinds of things">
      <button
        v-for="[id, text, count] in lists"
        :key="id"
        type="button"
        class="btn btn-sm"
        :class="id === listed ? 'btn-primary' : 'btn-light'"
        :aria-pressed="id === listed"
        @click="list(id)"
      >
        {{ count }} {{ text }}
      </button>
    </div>
    <PartList
      v-if="listed !== 'modules'"
      :rows="listed === 'parts' ? parts : gone"
      :picked="picked?.id ?? null"
      @pick="pick"
    />
    <template v-else-if="rows.length > 0">
      <div class="filter" role="group" aria-label="Things shown">
        <button
          v-for="(text, id) in words"
          :key="id"
          type="button"
          class="btn btn-sm"
          :class="id === shownState ? 'btn-primary' : 'btn-light'"
          :aria-pressed="id === shownState"
          @click="shownState = id"
        >
          {{ counts.get(id) }} {{ text }}
        </button>
        <button
          type="button"
          class="btn btn-sm btn-light choose"
          :aria-expanded="choosing"
          @click="choosing = !choosing"
        >
          {{ choosing ? 'Close the choice' : 'Choose the best set …' }}
        </button>
        <span v-if="empty.length > 0" class="soft"
          >{{ empty.length }} {{ empty.length === 1 ? 'place is' : 'places are' }} empty</span
        >
      </div>
      <div class="scroller">
        <table class="grid-table">
          <thead>
            <tr>
              <th scope="col">serial</th>
              <th scope="col">kind</th>
              <th scope="col">where</th>
              <th v-for="one in columns" :key="one.field" scope="col" class="num">
                {{ one.title }}, {{ one.unit }}
              </th>
              <th scope="col">state</th>
              <th scope="col">donor</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="row in shown"
              :key="row.id"
              :class="{ picked: row.id === picked?.id }"
              :data-thing="row.id"
            >
              <td>
                <button
                  type="button"
                  class="visually-plain link"
                  @click="pick(row.id === picked?.id ? null : row.id)"
                >
                  {{ row.name }}
                </button>
              </td>
              <td>{{ kindOf(row) }}</td>
              <td>{{ where(row) }}</td>
              <td v-for="one in columns" :key="one.field" class="num">
                <span
                  v-if="row.quoted.includes(one.field)"
                  class="soft"
                  :title="`measured in ${row.item.from?.jobName}`"
                  >{{ value(row, one) }}*</span
                ><template v-else>{{ value(row, one) }}</template>
              </td>
              <td :class="row.item.state">{{ stateOf(row) }}</td>
              <td class="donor" :title="row.item.donor ?? undefined">{{ row.item.donor }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="shown.some(({ quoted }) => quoted.length > 0)" class="soft">
          * measured in another job, quoted: what is due here is measured here.
        </p>
        <p v-if="shown.length === 0" class="soft">None {{ words[shownState] }}.</p>
      </div>
    </template>
  </section>
  <ChoicePanel v-if="choosing && listed === 'modules' && rows.length > 0" :rows="rows" />
  <ThingCard v-if="picked !== null" :key="picked.id" :row="picked" :empty="empty" />
</template>

<style scoped>
.add {
  margin-left: auto;
}

.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  margin-bottom: 0.5rem;
}

.choose {
  margin-left: 1rem;
}

.scroller {
  max-height: 26rem;
  overflow: auto;
}

thead th {
  position: sticky;
  top: 0;
  background: var(--tv-sheet);
}

.scroller td {
  white-space: nowrap;
}

.donor {
  max-width: 9rem;
  overflow: hidden;
  text-overflow: ellipsis;
}

.link {
  text-decoration: underline;
  font-weight: 600;
  color: var(--tv-act);
}

.suspect,
.rejected {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
