<script setup lang="ts">
import { linkEnds, type Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { formatQuantity } from '@torvek/core/quantity';
import { computed, ref, watch } from 'vue';
import type { Label } from '../../../parts/labels';
import ChoiceField from '../../../parts/ChoiceField.vue';
import ConnectorFace, { type FaceWire } from '../../../parts/ConnectorFace.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import PartField from '../../../parts/PartField.vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import PrintSheet from '../../../parts/PrintSheet.vue';
import LabelButton from '../../../parts/LabelButton.vue';
import NumberField from '../../../parts/NumberField.vue';
import { saveCsv } from '../../../parts/save-csv';
import { useJob } from '../../../stores/job';
import { useMap } from '../use-map';
import { readHarness, type ReadHarness } from './harness-file';
import { cutRows, harnessRows, harnessTable } from './harness';

/** The sense harness as it follows from the map: every wire from its tap to its pin. */
const job = useJob();
const { strings, stringId, wires, result, pick } = useMap();
const all = computed(() =>
  harnessRows(
    wires.value,
    {
      boards: job.design.boards ?? {},
      modules: job.design.modules,
      senseWires: job.design.senseWires ?? {},
      pack: job.design.pack,
      runs: job.design.runs,
    },
    stringId.value,
  ),
);
const board = ref<Id | null>(null);
const boards = computed(() => result.value?.boards ?? []);
const shown = computed(() =>
  board.value === null ? all.value : all.value.filter((one) => one.board === board.value),
);
interface Row {
  id: string;
  name: string;
  index: number;
}
const rows = computed(() => shown.value.map(({ id, label }, index): Row => ({ id, name: label, index })));
const at = (row: Row) => shown.value[row.index]!;
const columns: GridColumn<Row>[] = [
  {
    id: 'number',
    title: 'wire',
    kind: 'text',
    label: 'Wire',
    path: () => null,
    text: (row) => String(at(row).number),
    width: '3.4rem',
  },
  {
    id: 'label',
    title: 'label',
    kind: 'text',
    label: 'Label',
    path: () => null,
    text: (row) => at(row).label,
    width: '8rem',
  },
  {
    id: 'from',
    title: 'from',
    kind: 'text',
    label: 'From',
    path: () => null,
    text: (row) => at(row).from,
    width: '16rem',
  },
  {
    id: 'board',
    title: 'to board',
    kind: 'text',
    label: 'To board',
    path: () => null,
    text: (row) => at(row).boardTag,
    width: '8rem',
  },
  { id: 'pin', title: 'pin', kind: 'fixed', label: 'Pin', text: (row) => String(at(row).pin), width: '3rem' },
  {
    id: 'colour',
    title: 'colour',
    kind: 'text',
    label: 'Colour',
    path: () => null,
    text: (row) => at(row).colour,
    width: '6rem',
  },
  {
    id: 'long',
    title: 'm',
    kind: 'fixed',
    label: 'Length',
    text: (row) => (at(row).lengthM === null ? '' : String(at(row).lengthM)),
    width: '4rem',
  },
  {
    id: 'fuse',
    title: 'fuse, A',
    kind: 'fixed',
    label: 'Fuse',
    text: (row) => (at(row).fuseA === null ? '' : String(at(row).fuseA)),
    width: '4rem',
  },
];
const labels = computed((): Label[] =>
  shown.value
    .filter(({ what }) => what !== 'tie')
    .map((row) => ({
      title: row.label,
      lines: [row.from, row.colour],
      path: `sense?panel=harness&string=${stringId.value}`,
    })),
);
/** Length of every wire of the shown boards in one step; single ones are overridden by their ids. */
const lengthM = ref('');
const lengthProblem = ref<string | null>(null);
function setLengths(): void {
  const value = Number(lengthM.value.replace(',', '.'));
  lengthProblem.value = value > 0 && value < 20 ? null : 'a length between 0 and 20 m';
  if (lengthProblem.value !== null) return;
  job.change(`Sense wires: ${value} m`, (draft) => {
    const own = (draft.senseWires ??= {});
    for (const row of shown.value)
      if (row.what === 'tap' || row.what === 'reference')
        own[row.id] = { ...own[row.id], tag: row.label, lengthM: value };
  });
}
/** A harness as it was built, held against the map. */
const files = ref<HTMLInputElement | null>(null);
const read = ref<ReadHarness | null>(null);
// Another string or map: what was read belongs to the one before.
watch(wires, () => (read.value = null));
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const text = await input.files?.[0]?.text();
  input.value = '';
  if (text !== undefined) read.value = readHarness(text, all.value);
}
function take(): void {
  const changes = read.value?.changes ?? [];
  job.change(`${changes.length} sense wires from a file`, (draft) => {
    const own = (draft.senseWires ??= {});
    for (const { id, label, change } of changes) own[id] = { ...own[id], tag: label, ...change };
  });
  read.value = null;
}
/** What the plug of a picked board holds. */
const face = computed(() => {
  const part = job.design.parts[job.design.boards?.[board.value ?? '']?.plug ?? ''];
  return part?.kind === 'connector' ? part.data : null;
});
const faceWires = computed(() =>
  shown.value.map(({ id, pin, from, what, colour }): FaceWire => ({
    id,
    pin,
    tag: what === 'tie' ? 'tie to the top' : from.replace(/ \(.*$/, ''),
    colour,
    system: 'hv',
  })),
);
const byRun = computed(() => [...new Set(shown.value.flatMap((one) => one.byRun ?? []))]);
const links = computed(() => boards.value.slice(1).map(({ id }, i) => [boards.value[i]!.id, id] as const));
const isolated = (id: Id) => {
  const part = job.design.parts[job.design.boards?.[id]?.unit ?? ''];
  return part?.kind === 'unit' ? part.data.isolatedLink : null;
};
const sense = computed(() => Object.keys(job.design.pack.sense ?? {})[0]);
</script>

<template>
  <section class="sheet-card" aria-labelledby="harness-title" data-harness>
    <div class="card-head">
      <h2 id="harness-title">Sense harness</h2>
      <div class="chips" role="group" aria-label="Strings">
        <button
          v-for="one in strings"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === stringId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === stringId"
          @click="pick(one.id)"
        >
          {{ one.tag }}
        </button>
      </div>
    </div>
    <p v-if="all.length === 0" class="panel-empty">
      No harness yet: it follows from the map. Donor boards that stay in their modules need none.
    </p>
    <template v-else>
      <div class="chips" role="group" aria-label="Boards">
        <button
          type="button"
          class="btn btn-sm"
          :class="board === null ? 'btn-primary' : 'btn-light'"
          :aria-pressed="board === null"
          @click="board = null"
        >
          all {{ all.length }} wires
        </button>
        <button
          v-for="one in boards"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === board ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === board"
          @click="board = one.id"
        >
          {{ job.design.boards?.[one.id]?.tag }}
        </button>
      </div>
      <div class="chips tools">
        <BButton size="sm" variant="light" @click="saveCsv(job.name, 'sense-harness', harnessTable(shown))"
          >Wires, CSV</BButton
        >
        <BButton size="sm" variant="light" @click="saveCsv(job.name, 'sense-cuts', cutRows(all))"
          >Cut list, CSV</BButton
        >
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="files?.click()"
          >Built harness in …</BButton
        >
        <input
          ref="files"
          type="file"
          accept=".csv,text/csv"
          class="visually-hidden"
          aria-label="Harness from a file"
          @change="takeFile"
        />
        <PrintSheet sheet="sense" text="Continuity and ladder, PDF" />
        <LabelButton what="sense wires" :labels="labels" />
        <label class="length">
          every wire shown, m
          <input
            v-model="lengthM"
            class="form-control"
            inputmode="decimal"
            aria-label="Length of every wire shown, m"
            @keydown.enter="setLengths"
          />
        </label>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="setLengths">Set</BButton>
        <span v-if="lengthProblem" role="alert">{{ lengthProblem }}</span>
      </div>
      <div v-if="read" class="read" role="status" data-read>
        <p v-for="text in read.miswired" :key="text" class="problem">Wired otherwise. {{ text }}</p>
        <p v-for="text in read.problems.slice(0, 8)" :key="text" class="problem">{{ text }}</p>
        <p v-if="read.problems.length > 8" class="problem">and {{ read.problems.length - 8 }} more.</p>
        <p v-if="read.absent.length > 0" class="soft">
          {{ read.absent.length }} of {{ all.length }} wires are not in the file:
          {{ read.absent.slice(0, 6).join(', ') }}{{ read.absent.length > 6 ? ' …' : '' }}.
        </p>
        <p>
          <b>{{ read.changes.length }} wires end where the map says and bring a colour, length or fuse.</b>
          {{ read.miswired.length > 0 ? 'Do not plug this harness in before the others are set right.' : '' }}
        </p>
        <BButton size="sm" variant="primary" :disabled="read.changes.length === 0" @click="take"
          >Take {{ read.changes.length }} wires</BButton
        >
        <BButton size="sm" variant="light" @click="read = null">Leave it</BButton>
      </div>
      <EditGrid :key="`${stringId} ${board}`" label="Sense wires" :rows="rows" :columns="columns" />
      <p v-if="byRun.length > 0" class="soft" data-by-run>
        Lengths that are not typed are those of the run that carries them, as it is cut:
        {{ byRun.join(', ') }}.
      </p>
      <div v-if="board !== null" class="plug" data-plug>
        <PartField
          :path="`boards.${board}.plug`"
          kind="connector"
          :label="`Plug of ${job.design.boards?.[board]?.tag ?? ''}`"
          none="not chosen"
        />
        <ConnectorFace
          v-if="face"
          :name="`Plug of ${job.design.boards?.[board]?.tag ?? ''}`"
          :cavities="face.cavities"
          :rows="face.rows"
          :wires="faceWires"
        />
      </div>
      <div v-if="sense" class="fields">
        <NumberField :path="`pack.sense.${sense}.areaMm2`" label="Area of the leads" />
        <NumberField :path="`pack.sense.${sense}.fuseA`" label="Fuse of the leads" />
      </div>
      <table v-if="links.length > 0" class="grid-table" data-board-links>
        <thead>
          <tr>
            <th scope="col">link between boards</th>
            <th scope="col">from</th>
            <th scope="col">to</th>
            <th scope="col">their potentials</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="([from, to], i) in links" :key="to">
            <th scope="row">{{ i + 1 }}</th>
            <td>{{ job.design.boards?.[from]?.tag }}</td>
            <td>{{ job.design.boards?.[to]?.tag }}</td>
            <td>
              {{
                isolated(from) === null
                  ? 'unit not given'
                  : isolated(from)
                    ? 'parted by the unit'
                    : 'not parted: a break puts its voltage on the link'
              }}
            </td>
          </tr>
          <tr>
            <th scope="row">end</th>
            <td>{{ job.design.boards?.[boards.at(-1)!.id]?.tag }}</td>
            <td>
              {{
                job.design.sensing?.link === 'ring'
                  ? job.design.boards?.[boards[0]!.id]?.tag
                  : job.design.sensing?.linkEndOhm === undefined
                    ? 'nothing said of its end'
                    : `resistor of ${formatQuantity(job.design.sensing.linkEndOhm, 'Ω')}`
              }}
            </td>
            <td>
              {{
                job.design.sensing?.link === 'ring'
                  ? 'back to the first: one break leaves every board heard'
                  : 'a break silences every board behind it'
              }}
            </td>
          </tr>
        </tbody>
      </table>
      <div v-if="boards.length > 0" class="fields">
        <ChoiceField
          path="sensing.link"
          label="Link between boards"
          :options="
            linkEnds.map((value) => ({
              value,
              text: value === 'ends' ? 'ends at the last board' : 'comes back to the first',
            }))
          "
          none="ends at the last board (default)"
        />
        <NumberField path="sensing.linkEndOhm" />
        <FigureValue :id="figureId('monitoring.link', stringId, 'ageS')" show-label />
      </div>
      <p class="soft">
        Ties are bridges in the plug to the wire of the top cell; a jumper comes from the pin of the board
        before. Fuses sit at the taps.
      </p>
    </template>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
}

.tools {
  margin: 0.4rem 0;
}

.length {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  margin-left: auto;
}

.length input {
  width: 5rem;
}

.read {
  padding: 0.5rem 0.8rem;
  margin-bottom: 0.4rem;
  background: var(--tv-recess);
}

.read p {
  margin: 0 0 0.25rem;
}

.problem {
  color: var(--tv-stop);
}

.plug {
  display: grid;
  gap: 0.4rem;
  margin: 0.5rem 0;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  margin-top: 0.4rem;
}
</style>
