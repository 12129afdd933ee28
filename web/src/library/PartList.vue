<script setup lang="ts">
import { partKey, partKindNames, type Part, type PartKind } from '@torvek/core/parts';
import { computed, ref } from 'vue';
import { useLibrary } from '../stores/library';
import { keyFigures, keyText } from './key-figures';

/** The parts of a kind at their newest revision: search, open one, mark several to compare. */
const props = defineProps<{ kind: PartKind; open: string | null }>();
const marked = defineModel<string[]>('marked', { required: true });
const emit = defineEmits<{ open: [id: string] }>();
const shelf = useLibrary();
const words = ref('');
const most = 4;

const ownIds = computed(() => new Set(shelf.own.map(({ part }) => part.id)));
const usedBy = (part: Part) =>
  shelf.uses.filter(({ keys }) => keys.some((key) => key.startsWith(`${part.id}@`))).length;
const figures = computed(() => keyFigures(props.kind));
const listed = computed(() => {
  const asked = words.value.trim().toLowerCase().split(/\s+/).filter(Boolean);
  return shelf.library.newest.filter(
    (part) =>
      part.kind === props.kind &&
      asked.every((word) =>
        `${part.id} ${part.make} ${part.number} ${part.label} ${part.source ?? ''} ${figures.value
          .map((one) => keyText(part, one))
          .join(' ')}`
          .toLowerCase()
          .includes(word),
      ),
  );
});

function mark(id: string): void {
  marked.value = marked.value.includes(id) ? marked.value.filter((one) => one !== id) : [...marked.value, id];
}
</script>

<template>
  <section class="sheet-card list" :aria-label="partKindNames[kind][1]">
    <div class="asks">
      <input
        v-model="words"
        class="form-control"
        type="search"
        maxlength="80"
        placeholder="make, number, rating"
        aria-label="Search in parts"
      />
      <span class="soft" role="status">{{ listed.length }} shown</span>
    </div>
    <p v-if="listed.length === 0" class="panel-empty">No part is like that.</p>
    <div v-else class="scroll">
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Compare</span></th>
            <th scope="col">Part</th>
            <th v-for="one in figures" :key="one.field.name" scope="col" class="num">
              {{ one.head || one.field.label.toLowerCase() }}
            </th>
            <th scope="col" class="num">rev.</th>
            <th scope="col" class="num">used in</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="part in listed"
            :key="part.id"
            :class="{ picked: part.id === open, retired: shelf.library.retired.has(part.id) }"
            :data-part="partKey(part)"
          >
            <td class="pick">
              <input
                class="form-check-input"
                type="checkbox"
                :checked="marked.includes(part.id)"
                :disabled="!marked.includes(part.id) && marked.length >= most"
                :aria-label="`Compare ${part.label}`"
                @change="mark(part.id)"
              />
            </td>
            <td>
              <button type="button" class="name" @click="emit('open', part.id)">
                {{ part.make }} {{ part.number }}
              </button>
              <small v-if="ownIds.has(part.id)" class="own">ours</small>
              <small v-if="shelf.library.retired.has(part.id)" class="soft">retired</small>
            </td>
            <td v-for="one in figures" :key="one.field.name" class="num">{{ keyText(part, one) }}</td>
            <td class="num">{{ part.revision }}</td>
            <td class="num">{{ usedBy(part) || '' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.asks {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-bottom: 0.4rem;
}

.asks .form-control {
  width: 15rem;
}

.scroll {
  overflow: auto;
  max-height: calc(100vh - 13.5rem);
}

thead th {
  position: sticky;
  top: 0;
  background: var(--tv-sheet);
  z-index: 1;
}

.pick {
  width: 2rem;
}

.pick input {
  width: 1.15rem;
  height: 1.15rem;
  margin: 0;
}

.name {
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 0.3rem 0;
  text-decoration: underline;
  text-decoration-color: var(--tv-line);
  text-underline-offset: 3px;
}

.picked .name {
  font-weight: 600;
}

.own {
  margin-left: 0.4rem;
  color: var(--tv-act);
  font-weight: 600;
}

.retired td {
  color: var(--tv-soft);
}
</style>
