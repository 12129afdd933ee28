<script setup lang="ts">
import { computed, nextTick, ref, useId, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useJob } from '../../stores/job';
import { useSlate } from '../../stores/slate';
import { findablesOf } from './findables';
import { find, type Findable } from './search';

/** Finds anything of the job by its words: a strip over the sheet, answered while one types. */
const emit = defineEmits<{ close: [] }>();
const job = useJob();
const slate = useSlate();
const router = useRouter();
const id = useId();
const question = ref('');
const at = ref(0);
const field = ref<HTMLInputElement | null>(null);
const all = computed(() => findablesOf({ job, slate, router }));
const found = computed(() => find(all.value, question.value));
const before = document.activeElement as HTMLElement | null;

watch(found, () => (at.value = 0));
void nextTick(() => field.value?.focus());

function close(back: boolean): void {
  emit('close');
  if (back) before?.focus();
}

function open(one: Findable | undefined): void {
  if (one === undefined) return;
  close(false);
  one.open();
}

function onKey(event: KeyboardEvent): void {
  const count = found.value.length;
  if (event.key === 'Escape') close(true);
  else if (event.key === 'Enter') open(found.value[at.value]);
  else if (event.key === 'ArrowDown' && count > 0) at.value = (at.value + 1) % count;
  else if (event.key === 'ArrowUp' && count > 0) at.value = (at.value + count - 1) % count;
  else return;
  event.preventDefault();
  event.stopPropagation();
  void nextTick(() => document.getElementById(`${id}-${at.value}`)?.scrollIntoView({ block: 'nearest' }));
}
</script>

<template>
  <div class="finder" role="search" @keydown="onKey">
    <label :for="id">Find</label>
    <input
      :id="id"
      ref="field"
      v-model="question"
      class="form-control"
      placeholder="a station, part, module, figure, finding, step, entry …"
      autocomplete="off"
      spellcheck="false"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="found.length > 0"
      :aria-controls="`${id}-list`"
      :aria-activedescendant="found.length > 0 ? `${id}-${at}` : undefined"
      @blur="close(false)"
    />
    <ul :id="`${id}-list`" role="listbox" aria-label="Found">
      <li
        v-for="(one, i) in found"
        :id="`${id}-${i}`"
        :key="i"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @mousedown.prevent="open(one)"
      >
        <b>{{ one.title }}</b> <span class="soft">{{ one.detail }}</span>
      </li>
      <li
        v-if="question.trim() !== '' && found.length === 0"
        class="none"
        role="option"
        aria-selected="false"
      >
        Nothing in this job has these words.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.finder {
  position: absolute;
  z-index: 20;
  top: 66px;
  left: 56px;
  right: 0;
  max-width: 52rem;
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 0.8rem;
  align-items: center;
  padding: 0.6rem 0.9rem;
  background: var(--tv-sheet);
  border-bottom: 3px solid var(--tv-act);
}

ul {
  grid-column: 1 / -1;
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
  max-height: 60vh;
  overflow-y: auto;
}

li {
  padding: 0.35rem 0.5rem;
  cursor: pointer;
}

li b {
  font-weight: 600;
}

li.at {
  background: var(--tv-pick);
}

li.none {
  cursor: default;
  color: var(--tv-soft);
}
</style>
