<script setup lang="ts">
import { linkEnds, type Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import type { Label } from '../../../parts/labels';
import ChoiceField from '../../../parts/ChoiceField.vue';
import ConnectorFace, { type FaceWire } from '../../../parts/ConnectorFace.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import PartField from '../../../parts/PartField.vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import PrintSheet from '../../../parts/PrintSheet.vue';
import LabelButton from '../../../parts/LabelButton.vue';
import NumberField from '../../../parts/NumberField.vue';
import { saveCsv } from '../../../parts/save-csv';
import { useJob } from '../../../stores/job';
import { useMap } from '../use-map';
import BoardLinks from './BoardLinks.vue';
import BuiltHarness from './BuiltHarness.vue';
import { cutRows, harnessRows, harnessTable } from './harness';
import { wireColumns, type WireRow } from './wire-columns';

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
const built = ref<InstanceType<typeof BuiltHarness> | null>(null);
const boards = computed(() => result.value?.boards ?? []);
const shown = computed(() =>
  board.value === null ? all.value : all.value.filter((one) => one.board === board.value),
);
const rows = computed(() => shown.value.map((wire): WireRow => ({ id: wire.id, name: wire.label, wire })));
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
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="built?.choose()"
          >Built harness in …</BButton
        >
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
      <BuiltHarness ref="built" :all="all" :of="wires" />
      <EditGrid :key="`${stringId} ${board}`" label="Sense wires" :rows="rows" :columns="wireColumns" />
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
      <BoardLinks :boards="boards.map(({ id }) => id)" />
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
