<script setup lang="ts">
import { packLayout, shapePack } from '@torvek/core/pack';
import { partKey, type PartOf } from '@torvek/core/parts';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, useId, watch } from 'vue';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';
import { countOf as count } from './count';
import KindForm from './KindForm.vue';
import { useModuleKinds } from './module-kinds';

/** Which module, how many in series, how many strings: each edit adds or takes real modules. */
const job = useJob();
const id = useId();
const layout = computed(() => packLayout(job.design));
const choices = useModuleKinds();
const pinned = computed(() => choices.value.find((part) => job.design.parts[partKey(part)] !== undefined));
const key = computed(() => layout.value.layout?.key ?? (pinned.value ? partKey(pinned.value) : ''));
const adding = ref(false);
const series = ref('');
const strings = ref('');
const problem = ref<string | null>(null);

watch(
  layout,
  ({ layout: now }) => {
    series.value = String(now?.modulesPerString ?? '');
    strings.value = String(now?.strings ?? '');
  },
  { immediate: true },
);

const partOf = (wanted: string) => choices.value.find((part) => partKey(part) === wanted);

function recipeFor(modules: number, many: number, part: PartOf<'module'>) {
  return (draft: typeof job.design) =>
    shapePack(draft, { modulesPerString: modules, strings: many, part }, newId);
}

function read(): { modules: number; many: number; part: PartOf<'module'> } | null {
  const modules = count(series.value, 400);
  const many = count(strings.value || '1', 40);
  const part = partOf(key.value) ?? choices.value[0];
  problem.value =
    modules === null
      ? 'In series: a whole number from 1 to 400.'
      : many === null
        ? 'Strings: a whole number from 1 to 40.'
        : null;
  return modules === null || many === null || part === undefined ? null : { modules, many, part };
}

function typing(): void {
  const now = read();
  job.preview(now === null ? null : recipeFor(now.modules, now.many, now.part));
}

function commit(): void {
  const now = read();
  job.preview(null);
  const current = layout.value.layout;
  if (now === null || (now.modules === current?.modulesPerString && now.many === current.strings)) return;
  job.change(`Pack: ${now.many} × ${now.modules} modules`, recipeFor(now.modules, now.many, now.part));
}

function cancel(): void {
  problem.value = null;
  job.preview(null);
  const { layout: now } = layout.value;
  series.value = String(now?.modulesPerString ?? '');
  strings.value = String(now?.strings ?? '');
}

const take = (event: Event) => takePart(partOf((event.target as HTMLSelectElement).value));

function takePart(part: PartOf<'module'> | undefined): void {
  if (part === undefined) return;
  const current = layout.value.layout;
  job.change(`Module: ${part.label}`, recipeFor(current?.modulesPerString ?? 1, current?.strings ?? 1, part));
}
</script>

<template>
  <div class="shape" data-path="strings">
    <label :for="`${id}m`">Module</label>
    <select
      :id="`${id}m`"
      class="form-select wide"
      :value="layout.layout === null ? '' : key"
      data-path="parts"
      @change="take"
    >
      <option v-if="layout.layout === null" value="" disabled>choose one</option>
      <option v-for="part in choices" :key="partKey(part)" :value="partKey(part)">{{ part.label }}</option>
    </select>
    <BButton v-if="job.editable" class="add" size="sm" variant="link" data-add-kind @click="adding = true"
      >Not in the list: add a kind by its label</BButton
    >
    <KindForm v-if="adding" v-model="adding" @made="takePart" />
    <label :for="`${id}s`">In series, modules</label>
    <input
      :id="`${id}s`"
      v-model="series"
      class="form-control"
      inputmode="numeric"
      autocomplete="off"
      data-series
      @input="typing"
      @change="commit"
      @blur="commit"
      @keydown.enter="commit"
      @keydown.esc.stop="cancel"
    />
    <label :for="`${id}p`">Strings in parallel</label>
    <input
      :id="`${id}p`"
      v-model="strings"
      class="form-control"
      inputmode="numeric"
      autocomplete="off"
      data-strings
      @input="typing"
      @change="commit"
      @blur="commit"
      @keydown.enter="commit"
      @keydown.esc.stop="cancel"
    />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="layout.gaps[0]?.kind === 'invalid'" class="problem">
      {{ layout.gaps[0].label }} {{ layout.gaps[0].message }}
    </p>
    <p v-else-if="layout.layout" class="soft note">
      {{ layout.layout.seriesCells }}s{{ layout.layout.strings * layout.layout.part.data.cellsInParallel }}p
      of {{ layout.layout.part.data.chemistry }} cells
    </p>
  </div>
</template>

<style scoped>
.shape {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 5.1rem 3.1rem;
  gap: 0.15rem 0;
  align-items: center;
}

label {
  font-size: 0.9rem;
  grid-column: 1;
}

.wide {
  grid-column: 1 / -1;
  height: 1.95rem;
  margin-bottom: 0.3rem;
  padding-top: 0.1rem;
  padding-bottom: 0.1rem;
}

input {
  text-align: right;
  height: 1.85rem;
  grid-column: 2;
}

.add {
  grid-column: 1 / -1;
  justify-self: start;
  padding: 0;
  margin: -0.2rem 0 0.2rem;
  font-size: 0.82rem;
}

.problem,
.note {
  grid-column: 1 / -1;
  font-size: 0.82rem;
  margin: 0.1rem 0 0.3rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
