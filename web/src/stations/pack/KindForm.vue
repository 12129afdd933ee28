<script setup lang="ts">
import type { Issue } from '@torvek/core/shape';
import { checkPart } from '@torvek/core/library';
import { chemistries, typicalCellV, typicalModule, type Chemistry, type PartOf } from '@torvek/core/parts';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { computed, reactive, ref } from 'vue';
import { ApiError } from '../../api/client';
import { idFrom } from '../../library/part-id';
import { useLibrary } from '../../stores/library';

/** A kind of module that is not in the library yet, from its label: enough for first figures, and marked as no more than that. */
const shown = defineModel<boolean>({ required: true });
const emit = defineEmits<{ made: [part: PartOf<'module'>] }>();
const shelf = useLibrary();
const words = reactive({ make: '', number: '' });
const chemistry = ref<Chemistry | ''>('');
const asked = [
  ['nominalV', 'Nominal voltage', 'V'],
  ['capacityAh', 'Capacity', 'Ah'],
  ['massKg', 'Mass', 'kg'],
  ['lengthMm', 'Length', 'mm'],
  ['widthMm', 'Width', 'mm'],
  ['heightMm', 'Height', 'mm'],
  ['cellsInSeries', 'Cells in series, if counted', ''],
] as const;
type Name = (typeof asked)[number][0];
const values = reactive<Record<string, string>>({});
const problems = ref<Record<string, string>>({});
const failure = ref<string | null>(null);
const busy = ref(false);

function read(found: Record<string, string>): Partial<Record<Name, number>> {
  const numbers: Partial<Record<Name, number>> = {};
  for (const [name, , unit] of asked) {
    const text = (values[name] ?? '').trim();
    if (text === '') {
      if (name !== 'cellsInSeries') found[name] = 'is required';
      continue;
    }
    const parsed = parseQuantity(text, unit);
    if (parsed.ok) numbers[name] = parsed.value;
    else found[name] = parsed.message;
  }
  return numbers;
}

/** What the label makes of it, while it is typed. */
const told = computed(() => {
  const { nominalV, capacityAh, cellsInSeries } = read({});
  if (chemistry.value === '' || nominalV === undefined) return null;
  const cells = cellsInSeries ?? Math.max(1, Math.round(nominalV / typicalCellV(chemistry.value)));
  const energy =
    capacityAh === undefined ? '' : `, about ${formatNumber((nominalV * capacityAh) / 1000)} kWh`;
  return `${cells} ${chemistry.value} ${cells === 1 ? 'cell' : 'cells'} in series${energy}`;
});

async function save(): Promise<void> {
  const found: Record<string, string> = {};
  const take = (issues: readonly Issue[]) => {
    for (const { path, message } of issues) found[path.replace(/^data\./, '')] ??= message;
  };
  const numbers = read(found);
  if (words.make.trim() === '') found.make = 'is required';
  if (words.number.trim() === '') found.number = 'is required';
  if (chemistry.value === '') found.chemistry = 'is required';
  const id = idFrom(words.make, words.number);
  if (found.make === undefined && found.number === undefined && shelf.library.revisions(id).length > 0)
    found.number = `${words.make.trim()} ${words.number.trim()} is in the library already: choose it there`;
  let part: PartOf<'module'> | null = null;
  if (Object.keys(found).length === 0) {
    const made = typicalModule({
      chemistry: chemistry.value as Chemistry,
      ...(numbers as Required<typeof numbers>),
    });
    if (!made.ok) take(made.issues);
    else {
      const checked = checkPart({
        id,
        revision: 1,
        kind: 'module',
        make: words.make.trim(),
        number: words.number.trim(),
        label: `${words.make.trim()} ${words.number.trim()}`,
        source: 'label and scale; curve, resistance and limits typical of the chemistry',
        data: made.data,
      });
      if (checked.ok) part = checked.part as PartOf<'module'>;
      else take(checked.issues);
    }
  }
  problems.value = found;
  failure.value = null;
  if (part === null) return;
  busy.value = true;
  try {
    await shelf.save(part, '');
    emit('made', part);
    shown.value = false;
  } catch (error) {
    failure.value =
      error instanceof ApiError && error.issues.length > 0
        ? error.issues.map(({ path, message }) => `${path} ${message}`).join('; ')
        : error instanceof Error
          ? error.message
          : 'not saved';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <BModal
    v-model="shown"
    title="A kind of module by its label"
    ok-title="Add it and take it"
    cancel-title="Leave it"
    :ok-disabled="busy"
    @ok.prevent="save"
  >
    <form class="kind-form" novalidate @submit.prevent="save">
      <p class="soft wide">
        Enough for voltage, energy, mass and room. Curve, resistance and limits are taken as typical of the
        chemistry and marked so, until the maker’s sheet or a measurement replaces them in the library.
      </p>
      <label data-kind-field="make"
        >Make<input v-model="words.make" class="form-control" maxlength="80" /><span
          v-if="problems.make"
          class="problem"
          role="alert"
          >{{ problems.make }}</span
        ></label
      >
      <label data-kind-field="number"
        >Number on it<input v-model="words.number" class="form-control" maxlength="80" /><span
          v-if="problems.number"
          class="problem"
          role="alert"
          >{{ problems.number }}</span
        ></label
      >
      <label data-kind-field="chemistry"
        >Chemistry<select v-model="chemistry" class="form-select">
          <option value="" disabled>choose one</option>
          <option v-for="one in chemistries" :key="one" :value="one">{{ one }}</option></select
        ><span v-if="problems.chemistry" class="problem" role="alert">{{ problems.chemistry }}</span></label
      >
      <label v-for="[name, label, unit] in asked" :key="name" :data-kind-field="name"
        >{{ label }} <span class="soft">{{ unit }}</span><input
          v-model="values[name]"
          class="form-control"
          inputmode="decimal"
          maxlength="40"
          :aria-invalid="problems[name] !== undefined"
        /><span v-if="problems[name]" class="problem" role="alert">{{ problems[name] }}</span></label
      >
      <p class="wide told" aria-live="polite">{{ told ?? '' }}</p>
      <p v-if="failure" class="problem wide" role="alert">{{ failure }}</p>
      <button type="submit" class="visually-hidden" tabindex="-1">Add</button>
    </form>
  </BModal>
</template>

<style scoped>
.kind-form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.45rem 0.8rem;
}

.wide {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 0.88rem;
}

.told {
  min-height: 1.3rem;
}

label {
  font-size: 0.9rem;
  min-width: 0;
}

.problem {
  display: block;
  color: var(--tv-stop);
  font-size: 0.85rem;
}
</style>
