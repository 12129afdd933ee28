<script setup lang="ts">
import { checkPart } from '@torvek/core/library';
import {
  dataFrom,
  fieldValue,
  partFields,
  partKindNames,
  type Part,
  type PartField,
  type PartKind,
  type TableField,
} from '@torvek/core/parts';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { onUnmounted, reactive, ref, watch } from 'vue';
import { ApiError } from '../api/client';
import { useLibrary } from '../stores/library';
import { columnHead, curveText, readCurve } from './curve-text';
import CurveReader from './CurveReader.vue';
import { idFrom } from './part-id';

/** A part typed in, or a revision of one: what does not fit is said beside its field, and nothing is lost. */
const props = defineProps<{
  kind: PartKind;
  /** What it begins with; null: an empty form. */
  from: Part | null;
  /** A revision of that part, or another part. */
  as: 'revision' | 'new';
}>();
const emit = defineEmits<{ saved: [id: string]; cancel: []; reading: [on: boolean] }>();
const shelf = useLibrary();
const fields = partFields[props.kind];
const [one] = partKindNames[props.kind];

const words = reactive({
  id: props.as === 'revision' ? (props.from?.id ?? '') : '',
  make: props.from?.make ?? '',
  number: props.as === 'revision' ? (props.from?.number ?? '') : '',
  label: props.as === 'revision' ? (props.from?.label ?? '') : '',
  source: props.from?.source ?? '',
  note: '',
});
const values = reactive<Record<string, string>>(
  Object.fromEntries(fields.map((field) => [field.name, startText(field)])),
);
const problems = ref<Record<string, string>>({});
const failure = ref<string | null>(null);
const busy = ref(false);
/** The curve that is being read off a picture: it asks for the whole width. */
const reading = ref<string | null>(null);
watch(reading, (now) => emit('reading', now !== null));
onUnmounted(() => emit('reading', false));

function startText(field: PartField): string {
  const value = props.from === null ? undefined : fieldValue(props.from.data, field.name);
  if (value === undefined) return '';
  if (field.kind === 'table') return curveText(value as [number, number][]);
  if (field.kind === 'number' && field.unit === 'fraction')
    return String(Number(((value as number) * 100).toPrecision(12)));
  return String(value);
}

const shownUnit = (unit: string) => (unit === 'fraction' ? '%' : unit);

function read(field: PartField, text: string, wrong: (message: string) => void): unknown {
  const trimmed = text.trim();
  if (trimmed === '') {
    if (!('optional' in field) || field.optional !== true) wrong('is required');
    return undefined;
  }
  switch (field.kind) {
    case 'number': {
      const quantity = parseQuantity(
        field.unit === 'fraction' ? trimmed.replace(/%$/, '') : trimmed,
        field.unit === 'fraction' ? '' : field.unit,
      );
      if (!quantity.ok) wrong(quantity.message);
      return !quantity.ok ? undefined : field.unit === 'fraction' ? quantity.value / 100 : quantity.value;
    }
    case 'choice':
      return field.choices.find((choice) => String(choice) === trimmed);
    case 'flag':
      return trimmed === 'true';
    default: {
      const curve = readCurve(text);
      if (!curve.ok) wrong(curve.message);
      return curve.ok ? curve.rows : undefined;
    }
  }
}

async function save(): Promise<void> {
  const found: Record<string, string> = {};
  const data = new Map(
    fields.map((field) => [
      field.name,
      read(field, values[field.name] ?? '', (message) => (found[field.name] = message)),
    ]),
  );
  const id = words.id.trim() || idFrom(words.make, words.number);
  const known = shelf.library.revisions(id);
  if (props.as === 'new' && known.length > 0)
    found.id = `${id} is there already: open it and correct its data, or give another id`;
  const part = {
    id,
    revision: (known.at(-1)?.revision ?? 0) + 1,
    kind: props.kind,
    make: words.make.trim(),
    number: words.number.trim(),
    label: words.label.trim() || `${words.make.trim()} ${words.number.trim()}`,
    ...(words.source.trim() !== '' && { source: words.source.trim() }),
    data: dataFrom(data),
  };
  const checked = checkPart(part);
  if (!checked.ok)
    for (const { path, message } of checked.issues) {
      const field = path.replace(/^data\./, '');
      const owner = fields.find(({ name }) => field === name || field.startsWith(`${name}.`));
      const row = owner === undefined ? '' : field.slice(owner.name.length + 1);
      const [line] = row.split('.');
      found[owner?.name ?? field] ??= row === '' ? message : `row ${Number(line) + 1}: ${message}`;
    }
  problems.value = found;
  failure.value = null;
  if (Object.keys(found).length > 0 || !checked.ok) return;
  busy.value = true;
  try {
    await shelf.save(checked.part, words.note.trim());
    emit('saved', id);
  } catch (error) {
    const issues = error instanceof ApiError ? error.issues : [];
    problems.value = Object.fromEntries(
      issues.map(({ path, message }) => [path.replace(/^part\.(data\.)?/, ''), message]),
    );
    failure.value = error instanceof Error ? error.message : 'not saved';
  } finally {
    busy.value = false;
  }
}

function taken(field: TableField, rows: [number, number][], picture: string): void {
  values[field.name] = curveText(rows);
  reading.value = null;
  const read = `${field.label.toLowerCase()} read off ${picture}`;
  if (!words.source.includes(read))
    words.source = [words.source, read].filter(Boolean).join('; ').slice(0, 400);
}
const problemCount = () => Object.keys(problems.value).length;
const limits = (field: PartField) => {
  if (field.kind !== 'number') return '';
  const { min, max, above, below } = field.rule;
  const scale = field.unit === 'fraction' ? 100 : 1;
  return [
    above !== undefined && above !== 0 ? `above ${formatNumber(above * scale)}` : '',
    min !== undefined && min !== 0 ? `${formatNumber(min * scale)} or more` : '',
    max !== undefined ? `at most ${formatNumber(max * scale)}` : '',
    below !== undefined ? `below ${formatNumber(below * scale)}` : '',
  ]
    .filter(Boolean)
    .join(', ');
};
</script>

<template>
  <form class="sheet-card part-form" novalidate :aria-label="`Data of the ${one}`" @submit.prevent="save">
    <div class="card-head">
      <h2>{{ as === 'revision' ? `Correct ${from?.label}` : `A new ${one}` }}</h2>
      <span class="hint">{{
        as === 'revision' ? 'kept as the next revision; designs keep theirs until they take it' : 'of our own'
      }}</span>
    </div>
    <div class="words">
      <label
        v-for="field in [
          ['make', 'Make', 80],
          ['number', 'Number', 80],
          ['label', 'Name', 200],
          ['id', 'Id', 60],
          ['source', 'Where the data come from', 400],
        ] as const"
        :key="field[0]"
        :class="field[0]"
        :data-part-field="field[0]"
        >{{ field[1]
        }}<input
          v-model="words[field[0]]"
          class="form-control"
          :maxlength="field[2]"
          :readonly="field[0] === 'id' && as === 'revision'"
          :placeholder="
            field[0] === 'id'
              ? idFrom(words.make, words.number)
              : field[0] === 'label'
                ? `${words.make} ${words.number}`.trim()
                : field[0] === 'source'
                  ? 'data sheet and its issue, or measured by whom'
                  : ''
          "
          :aria-invalid="problems[field[0]] !== undefined"
        /><span v-if="problems[field[0]]" class="problem" role="alert">{{ problems[field[0]] }}</span></label
      >
    </div>
    <div class="figures">
      <template v-for="field in fields" :key="field.name">
        <div v-if="field.kind === 'table'" class="table" :data-part-field="field.name">
          <label
            >{{ field.label }} <span class="soft">{{ columnHead(field) }}, a point a line</span
            ><textarea
              v-model="values[field.name]"
              class="form-control"
              rows="6"
              :aria-invalid="problems[field.name] !== undefined"
            ></textarea></label
          ><span v-if="problems[field.name]" class="problem" role="alert">{{ problems[field.name] }}</span>
          <BButton v-if="reading !== field.name" size="sm" variant="light" @click="reading = field.name"
            >Read it off a picture</BButton
          >
          <CurveReader
            v-else
            :field="field"
            @take="(rows, picture) => taken(field as TableField, rows, picture)"
            @cancel="reading = null"
          />
        </div>
        <label v-else :data-part-field="field.name"
          >{{ field.label }}
          <span class="soft">{{ field.kind === 'flag' ? '' : shownUnit(field.unit ?? '') }}</span>
          <select v-if="field.kind === 'choice'" v-model="values[field.name]" class="form-select">
            <option value="" disabled>choose one</option>
            <option v-for="choice in field.choices" :key="choice" :value="String(choice)">
              {{ choice }}
            </option>
          </select>
          <select v-else-if="field.kind === 'flag'" v-model="values[field.name]" class="form-select">
            <option value="" :disabled="field.optional !== true">
              {{ field.optional === true ? 'not given' : 'choose one' }}
            </option>
            <option value="true">{{ field.yes }}</option>
            <option value="false">{{ field.no }}</option>
          </select>
          <input
            v-else
            v-model="values[field.name]"
            class="form-control"
            inputmode="decimal"
            maxlength="40"
            :placeholder="limits(field)"
            :aria-invalid="problems[field.name] !== undefined"
          /><span v-if="problems[field.name]" class="problem" role="alert">{{
            problems[field.name]
          }}</span></label
        >
      </template>
    </div>
    <label
      >{{ as === 'revision' ? 'What this revision changes' : 'Remark'
      }}<input v-model="words.note" class="form-control" maxlength="400"
    /></label>
    <p v-if="failure" class="problem" role="alert">{{ failure }}</p>
    <p v-else-if="problemCount() > 0" class="problem" role="alert">
      {{ problemCount() }} {{ problemCount() === 1 ? 'field does' : 'fields do' }} not fit yet; nothing was
      saved.
    </p>
    <div class="acts">
      <BButton type="submit" variant="primary" :disabled="busy">{{
        as === 'revision' ? 'Save as the next revision' : 'Save the part'
      }}</BButton>
      <BButton variant="light" @click="emit('cancel')">Leave it</BButton>
    </div>
  </form>
</template>

<style scoped>
.part-form {
  display: grid;
  gap: 0.6rem;
}

.words,
.figures {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.45rem 0.8rem;
}

.source,
.table {
  grid-column: 1 / -1;
}

.table {
  display: grid;
  gap: 0.3rem;
  justify-items: start;
}

.table label,
.table .reader {
  width: 100%;
}

textarea {
  font-variant-numeric: tabular-nums;
}

label {
  min-width: 0;
  font-size: 0.9rem;
}

.acts {
  display: flex;
  gap: 0.5rem;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.88rem;
  margin: 0;
  display: block;
}
</style>
