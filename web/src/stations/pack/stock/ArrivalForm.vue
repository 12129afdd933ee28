<script setup lang="ts">
import { doubtAbout, stepsOfItem } from '@torvek/core/commissioning';
import { partKey, partKinds, type Part, type PartKind } from '@torvek/core/parts';
import { formatNumber } from '@torvek/core/quantity';
import { arrivedId } from '@torvek/core/record';
import { StorageSerializers, useStorage } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { newId } from '../../../api/client';
import { useInstruments } from '../../../stores/instruments';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { useSession } from '../../../stores/session';
import { measures } from '../intake/sheet';
import { crateColumns, plainColumns, readCrate, type CrateColumn } from './crate';
import { manyWords, sortWords } from './things';

/** A crate is pasted as it comes out of a mail or a sheet: what arrived, and what was already measured of it. */
const emit = defineEmits<{ done: [] }>();
const job = useJob();
const shelf = useLibrary();
const session = useSession();
const register = useInstruments();
if (register.all.length === 0) void register.load();

/** Typed and not recorded: it lies in the browser until it is. */
const text = useStorage(`torvek.crate.${session.person?.id ?? ''}.${job.id}`, '');
const asked = useStorage<(CrateColumn | undefined)[]>('torvek.crate-columns', []);
/** What kind of part it is: of modules readings come along, of others their serial numbers alone. */
const sort = useStorage<PartKind | 'device' | 'box'>('torvek.crate-sort', 'module');
const sorts = [...partKinds.filter((kind) => kind !== 'cable'), 'device', 'box'] as const;
const offered = computed(() => (sort.value === 'module' ? crateColumns : plainColumns));
const crate = computed(() => readCrate(text.value, asked.value, offered.value));
const columnWords: Record<CrateColumn, string> = {
  serial: 'serial',
  ...(Object.fromEntries(measures.map(({ field, title, unit }) => [field, `${title}, ${unit}`])) as Record<
    (typeof measures)[number]['field'],
    string
  >),
  note: 'note',
  skip: 'not read',
};
const setColumn = (at: number, column: string) => {
  const next = [...crate.value.columns] as (CrateColumn | undefined)[];
  next[at] = column as CrateColumn;
  asked.value = next;
};

const offers = computed((): readonly Part[] => {
  const of = sort.value;
  if (of === 'device' || of === 'box') return [];
  const pinned = Object.values(job.design.parts).filter(({ kind }) => kind === of);
  const keys = new Set(pinned.map((part) => partKey(part)));
  return [...pinned, ...(shelf.library.of(of) as readonly Part[]).filter((part) => !keys.has(partKey(part)))];
});
const kind = ref('');
watch(sort, () => (kind.value = ''));
const part = computed(
  () => offers.value.find((one) => partKey(one) === kind.value) ?? offers.value[0] ?? null,
);
const noun = (count: number) => `${count} ${count === 1 ? sortWords(sort.value) : manyWords(sort.value)}`;
const donor = ref('');
const price = ref('');
/** The crate arrived, and its readings did not follow yet: they are what is still to be recorded of these rows. */
const arrived = useStorage<{ text: string; seq: number } | null>(
  `torvek.crate-arrived.${session.person?.id ?? ''}.${job.id}`,
  null,
  undefined,
  { serializer: StorageSerializers.object },
);
const busy = ref(false);
const said = ref<string | null>(null);

/** Readings that would be right with their decimal point moved. */
const doubts = computed(() => {
  const of = part.value;
  if (of?.kind !== 'module') return [];
  const steps = new Map(
    stepsOfItem(job.design, job.evaluation, { id: 'x', serial: null }, of).map((step) => [
      step.id.split(':')[0]!,
      step,
    ]),
  );
  return crate.value.rows.flatMap(({ serial, values, over }, i) =>
    measures.flatMap(({ field, template, title, unit, scale }) => {
      const value = values[field];
      const expected = steps.get(template)?.expected;
      if (
        value === undefined ||
        over?.[field] === true ||
        expected == null ||
        doubtAbout(expected, value) === null
      )
        return [];
      return [`${serial ?? `row ${i + 1}`}: ${title} ${formatNumber(value / scale, 4)} ${unit}?`];
    }),
  );
});
const sure = ref('');
const blocked = computed(
  () =>
    crate.value.rows.length === 0 ||
    crate.value.problems.length > 0 ||
    (part.value === null && sort.value !== 'device' && sort.value !== 'box') ||
    (doubts.value.length > 0 && sure.value !== doubts.value.join()),
);

async function record(): Promise<void> {
  if (blocked.value || busy.value) return;
  const of = part.value;
  busy.value = true;
  said.value = null;
  const { rows } = crate.value;
  const paid = Number(price.value.replace(',', '.'));
  try {
    const stays = job.staysOpen();
    const before = arrived.value?.text === text.value ? arrived.value : null;
    const entry =
      before ??
      (await job.record(
        {
          id: newId('entry'),
          kind: 'arrival',
          items: rows.map(({ serial, note }) => ({
            ...(of === null ? { sort: sort.value } : { part: partKey(of) }),
            ...(serial !== undefined && { serial }),
            ...(note !== undefined && { note }),
            ...(donor.value.trim() !== '' && { donor: donor.value.trim() }),
            ...(price.value.trim() !== '' && Number.isFinite(paid) && { price: paid }),
          })),
        },
        `${noun(rows.length)} arrived`,
      ));
    const readings = rows.flatMap(({ values, over }, i) =>
      measures.flatMap((measure) => {
        const value = values[measure.field];
        return value === undefined ? [] : [{ i, measure, value, over: over?.[measure.field] === true }];
      }),
    );
    if (entry === null) {
      said.value =
        readings.length === 0
          ? 'The arrival waits until the server is there.'
          : 'The arrival waits until the server is there. Its readings are kept here: type them in Intake once it has arrived.';
      return;
    }
    arrived.value = { text: text.value, seq: entry.seq };
    const steps = new Map(
      (of?.kind === 'module'
        ? stepsOfItem(job.design, job.evaluation, { id: 'x', serial: null }, of)
        : []
      ).map((step) => [step.id.split(':')[0]!, step]),
    );
    const bodies = readings.map(({ i, measure, value, over }) => {
      const step = steps.get(measure.template)!;
      const [instrument] = register.ofKind(step.instrument);
      return {
        id: newId('entry'),
        kind: 'result',
        step: `${measure.template}:${arrivedId(entry.seq, i)}`,
        entered: 'pasted',
        measured: { kind: 'value', value, unit: step.expected?.unit ?? '', ...(over && { over }) },
        instrument:
          instrument === undefined
            ? { kind: step.instrument, name: 'not registered', standIn: false }
            : { id: instrument.id },
      };
    });
    stays();
    const done = await job.recordReadings(bodies);
    for (const [k, body] of bodies.entries()) {
      if (k < done) continue;
      stays();
      const { measure, i } = readings[k]!;
      await job.record(body, `${measure.title} of ${rows[i]!.serial ?? 'a module'}`);
    }
    text.value = '';
    arrived.value = null;
    emit('done');
  } catch (error) {
    said.value = `Not all was recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="arrival" aria-label="A crate arrives" @submit.prevent="record">
    <div class="what">
      <label
        >What
        <select v-model="sort" class="form-select" aria-label="What arrives">
          <option v-for="one in sorts" :key="one" :value="one">{{ sortWords(one) }}</option>
        </select>
      </label>
      <label
        >Kind
        <select v-model="kind" class="form-select" aria-label="Kind of part" :disabled="part === null">
          <option v-if="part !== null" value="">{{ part.label }}</option>
          <option v-else value="">no part of a library</option>
          <option v-for="one in offers.slice(1)" :key="partKey(one)" :value="partKey(one)">
            {{ one.label }}
          </option>
        </select>
      </label>
      <label>Donor <input v-model="donor" class="form-control" maxlength="200" /></label>
      <label>Price of each <input v-model="price" class="form-control price" inputmode="decimal" /></label>
    </div>
    <label class="paste"
      >{{
        sort === 'module'
          ? 'One row a module, as in your sheet or mail: serial, voltage, capacity, resistance, insulation'
          : 'One row each, as in your sheet or mail: serial, note'
      }}
      <textarea
        v-model="text"
        class="form-control"
        rows="5"
        aria-label="Rows of the crate"
        :placeholder="sort === 'module' ? 'serial\tvoltage, V\tcapacity, Ah' : 'serial\tnote'"
      ></textarea>
    </label>
    <div v-if="crate.rows.length > 0" class="preview">
      <table class="grid-table">
        <thead>
          <tr>
            <th v-for="(column, i) in crate.columns" :key="i" scope="col">
              <select
                class="form-select choice-cell"
                :aria-label="`Column ${i + 1} holds`"
                :value="column"
                @change="setColumn(i, ($event.target as HTMLSelectElement).value)"
              >
                <option v-for="one in offered" :key="one" :value="one">{{ columnWords[one] }}</option>
              </select>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in crate.cells.slice(0, 6)" :key="i">
            <td v-for="(_, c) in crate.columns" :key="c">{{ row[c] }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="crate.rows.length > 6" class="soft">and {{ crate.rows.length - 6 }} more rows</p>
    </div>
    <ul v-if="crate.problems.length > 0" class="bad" role="alert">
      <li v-for="one in crate.problems.slice(0, 6)" :key="one">{{ one }}</li>
      <li v-if="crate.problems.length > 6">and {{ crate.problems.length - 6 }} more</li>
    </ul>
    <p v-else-if="doubts.length > 0 && sure !== doubts.join()" class="bad" role="alert">
      {{ doubts.slice(0, 4).join('; ') }}{{ doubts.length > 4 ? ` and ${doubts.length - 4} more` : '' }}
      <BButton size="sm" variant="light" @click="sure = doubts.join()">They are right</BButton>
    </p>
    <div class="acts">
      <BButton type="submit" variant="primary" size="sm" :disabled="blocked || busy">{{
        busy ? 'Recording …' : `Record ${noun(crate.rows.length)}`
      }}</BButton>
      <span v-if="said" role="status">{{ said }}</span>
    </div>
  </form>
</template>

<style scoped>
.arrival {
  display: grid;
  gap: 0.5rem;
  padding-bottom: 0.8rem;
  margin-bottom: 0.8rem;
  border-bottom: 1px solid var(--tv-line);
}

.what {
  display: grid;
  grid-template-columns: 11rem minmax(0, 2fr) minmax(0, 1fr) 8rem;
  gap: 0.8rem;
}

label {
  font-size: 0.85rem;
  color: var(--tv-soft);
}

textarea {
  font-family: var(--tv-mono, monospace);
  font-size: 0.9rem;
}

.preview {
  overflow-x: auto;
}

.bad {
  margin: 0;
  color: var(--tv-stop);
}

.acts {
  display: flex;
  gap: 1rem;
  align-items: center;
}
</style>
