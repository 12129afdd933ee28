<script setup lang="ts">
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import type { PartRow } from './things';

/** Parts as things: contactors, fuses, chargers, with where each is. */
defineProps<{ rows: readonly PartRow[]; picked: string | null }>();
const emit = defineEmits<{ pick: [id: string | null] }>();
const job = useJob();
const shelf = useLibrary();
const kindOf = ({ part }: PartRow['item']) =>
  part === null ? '' : ((job.built.design.parts[part] ?? shelf.library.find(part))?.number ?? part);
const where = ({ place, placeGone, item }: PartRow) =>
  place ?? (placeGone ? 'shelf, its place is gone' : item.state === 'retired' ? '' : 'shelf');
</script>

<template>
  <div class="scroller">
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">serial</th>
          <th scope="col">what</th>
          <th scope="col">kind</th>
          <th scope="col">where</th>
          <th scope="col">state</th>
          <th scope="col">donor</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" :class="{ picked: row.id === picked }" :data-thing="row.id">
          <td>
            <button
              type="button"
              class="visually-plain link"
              @click="emit('pick', row.id === picked ? null : row.id)"
            >
              {{ row.name }}
            </button>
          </td>
          <td>{{ row.what }}</td>
          <td>{{ kindOf(row.item) }}</td>
          <td>{{ where(row) }}</td>
          <td :class="row.item.state">{{ row.item.state }}</td>
          <td class="donor" :title="row.item.donor ?? undefined">{{ row.item.donor }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroller {
  max-height: 26rem;
  overflow: auto;
}

thead th {
  position: sticky;
  top: 0;
  background: var(--tv-sheet);
}

td {
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
