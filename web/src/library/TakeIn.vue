<script setup lang="ts">
import { differences, planArrivals, type Arrival } from '@torvek/core/library';
import { partKey, partKindNames, type Part } from '@torvek/core/parts';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useLibrary } from '../stores/library';
import { readParts } from './files';

/** Parts out of a file: what would become of each is shown before anything is taken in. */
const emit = defineEmits<{ done: [first: Part | null]; cancel: [] }>();
const shelf = useLibrary();
const name = ref('');
const text = ref('');
const problems = ref<string[]>([]);
const parts = ref<Part[]>([]);
const done = ref<Arrival[] | null>(null);
const busy = ref(false);
const plan = computed(() => done.value ?? planArrivals(parts.value, shelf.library.revisions));
const count = (as: Arrival['as']) => plan.value.filter((one) => one.as === as).length;
const words: Record<Arrival['as'], string> = { new: 'new', revision: 'next revision', same: 'there already' };

async function choose(event: Event): Promise<void> {
  const [file] = (event.target as HTMLInputElement).files ?? [];
  if (file === undefined) return;
  name.value = file.name;
  text.value = await file.text();
  read();
}
function read(): void {
  done.value = null;
  const found = readParts(text.value);
  problems.value = found.ok ? [] : found.problems;
  parts.value = found.ok ? found.parts : [];
}
async function take(): Promise<void> {
  busy.value = true;
  try {
    done.value = await shelf.takeIn(
      parts.value,
      `taken in from ${name.value || 'pasted text'}`.slice(0, 400),
    );
    emit('done', done.value.find(({ as }) => as !== 'same')?.part ?? null);
  } catch (error) {
    problems.value = [error instanceof Error ? error.message : 'not taken in'];
  } finally {
    busy.value = false;
  }
}
const change = (one: Arrival) =>
  one.as === 'revision'
    ? differences(one.before, one.part)
        .map(({ label, from, to }) => `${label} ${from} → ${to}`)
        .join('; ')
    : '';
</script>

<template>
  <section class="sheet-card take-in" aria-label="Take parts in">
    <div class="card-head">
      <h2>Take parts in</h2>
      <span class="hint">JSON or CSV as this page saves them; nothing that is there is overwritten</span>
    </div>
    <label class="btn btn-light btn-sm"
      >Choose a file<input
        class="visually-hidden"
        type="file"
        accept=".json,.csv,text/csv,application/json"
        aria-label="File of parts"
        @change="choose"
    /></label>
    <label
      >or paste it here<textarea v-model="text" class="form-control" rows="5" @change="read"></textarea>
    </label>
    <ul v-if="problems.length > 0" class="problem" role="alert">
      <li v-for="(one, i) in problems" :key="i">{{ one }}</li>
    </ul>
    <template v-if="parts.length > 0">
      <p role="status">
        {{ done ? 'Taken in' : 'Would come in' }}: {{ count('new') }} new, {{ count('revision') }} as next
        revision, {{ count('same') }} there already.
      </p>
      <div class="scroll">
        <table class="grid-table">
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Kind</th>
              <th scope="col">Comes as</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(one, i) in plan" :key="i">
              <td>
                {{ one.part.label }} <small class="soft">{{ partKey(one.part) }}</small>
              </td>
              <td>{{ partKindNames[one.part.kind][0] }}</td>
              <td>
                {{ words[one.as] }}<small v-if="change(one)" class="soft">: {{ change(one) }}</small>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <div class="acts">
      <BButton
        v-if="done === null"
        variant="primary"
        :disabled="busy || parts.length === 0 || count('new') + count('revision') === 0"
        @click="take"
        >Take them in</BButton
      >
      <BButton variant="light" @click="emit('cancel')">{{ done ? 'Close' : 'Leave it' }}</BButton>
    </div>
  </section>
</template>

<style scoped>
.take-in {
  display: grid;
  gap: 0.5rem;
  justify-items: start;
}

.take-in > label:not(.btn),
.scroll {
  width: 100%;
}

.scroll {
  max-height: 20rem;
  overflow: auto;
}

p {
  margin: 0;
}

.acts {
  display: flex;
  gap: 0.5rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0;
  padding-left: 1.1rem;
}
</style>
