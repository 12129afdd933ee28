<script setup lang="ts">
import { partKey, type Part } from '@torvek/core/parts';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { stockOf } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import AttachFiles from '../../../parts/AttachFiles.vue';
import LabelButton from '../../../parts/LabelButton.vue';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { useSession } from '../../../stores/session';
import BuiltFollows from './BuiltFollows.vue';
import { useBuilt } from './use-built';
import { builtRows, cutRows, othersFor, shelvedFor, type BuiltRow, type CutRow } from './rows';
import { dayOf } from '../../../parts/dates';

/** What was really fitted and cut, beside what was designed, and what follows where they differ. */
const job = useJob();
const session = useSession();
const shelf = useLibrary();
const stock = computed(() => stockOf(job.entries));
const rows = computed(() => builtRows(job.design, job.entries, stock.value.inPlace));
const onShelf = (row: BuiltRow) => shelvedFor(row, stock.value);
const cuts = computed(() => cutRows(job.design, job.entries));
const recorded = computed(() => rows.value.filter(({ told, out }) => told !== null && !out).length);
const labels = computed(() =>
  rows.value.flatMap(({ name, told, out }) =>
    out || told?.body.serial == null
      ? []
      : [
          {
            title: told.body.serial,
            lines: [job.name, name, ...(told.body.part === null ? [] : [labelOf(told.body.part)])],
            path: 'prove?panel=built',
          },
        ],
  ),
);
const { of, type, said, busy, send: sendOne } = useBuilt();
const opened = ref<string | null>(null);
const photos = ref<{ sha256: string; name: string; type: string }[]>([]);
function open(path: string): void {
  opened.value = opened.value === path ? null : path;
  photos.value = [];
}
const choices = (row: BuiltRow): Part[] => othersFor(row, shelf.library);
const labelOf = (key: string | null) =>
  key === null ? '' : ((job.built.design.parts[key] ?? shelf.library.find(key))?.label ?? key);
const when = (instant: string) => dayOf(instant, job.design.settings.zone);

async function send(body: { kind: string } & Record<string, unknown>, title: string, path: string) {
  if (!(await sendOne(body, title, path))) return;
  opened.value = null;
  photos.value = [];
}
function fitted({ path, name }: BuiltRow): void {
  const { serial, item, part, reason } = of(path);
  const body = {
    kind: 'part-fitted',
    place: path,
    ...(item !== '' ? { item } : part !== '' && { part }),
    ...(item === '' && serial.trim() !== '' && { serial: serial.trim() }),
    ...(reason.trim() !== '' && { reason: reason.trim() }),
    ...(opened.value === path && { attachments: photos.value.map(({ sha256 }) => sha256) }),
  };
  void send(body, `${name} fitted`, path);
}
function cut({ path, name }: CutRow): void {
  const { length, batch } = of(path);
  const read = parseQuantity(length, 'm');
  if (!read.ok || read.value <= 0) {
    said.value = `Length of ${name}: a number above 0, in m.`;
    return;
  }
  const body = {
    kind: 'cable-cut',
    place: path,
    lengthM: read.value,
    ...(batch.trim() !== '' && { batch: batch.trim() }),
  };
  void send(body, `${name} cut`, path);
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="built-title" data-built>
    <div class="card-head">
      <h2 id="built-title">Parts as fitted</h2>
      <span class="hint"
        >{{ recorded }} of {{ rows.length }} recorded; what arrives is kept in Pack, Stock</span
      >
      <LabelButton v-if="labels.length > 0" class="labels" what="parts" :labels="labels" />
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      The design names no parts, devices or boxes yet: they appear here as soon as it does.
    </p>
    <div v-else class="scroller">
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col">where</th>
            <th scope="col">designed</th>
            <th scope="col">recorded</th>
            <th v-if="session.mayRecord" scope="col">serial</th>
            <th v-if="session.mayRecord" scope="col"><span class="visually-hidden">record</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="row in rows" :key="row.path">
            <tr
              :class="{ differs: !row.out && row.told?.body.part != null && row.told.body.part !== row.part }"
            >
              <th scope="row">{{ row.name }}</th>
              <td class="part" :title="labelOf(row.part)">{{ labelOf(row.part) }}</td>
              <td>
                <template v-if="row.out"><b class="other">taken out</b></template>
                <template v-else-if="row.told">
                  <b>{{ row.told.body.serial ?? 'no serial' }}</b>
                  <span v-if="row.told.body.part !== null && row.told.body.part !== row.part" class="other">
                    {{ labelOf(row.told.body.part) }}</span
                  >
                  <small class="soft"> {{ when(row.told.at) }}, {{ row.told.by }}</small>
                </template>
              </td>
              <td v-if="session.mayRecord">
                <input
                  class="form-control serial"
                  :value="of(row.path).serial"
                  :aria-label="`Serial of ${row.name}`"
                  maxlength="80"
                  @input="type(row.path, 'serial', $event)"
                  @keydown.enter.prevent="fitted(row)"
                />
              </td>
              <td v-if="session.mayRecord" class="acts">
                <BButton
                  size="sm"
                  variant="primary"
                  :disabled="
                    busy ||
                    (of(row.path).serial.trim() === '' &&
                      of(row.path).part === '' &&
                      of(row.path).item === '')
                  "
                  :aria-label="`Record ${row.name}`"
                  @click="fitted(row)"
                  >Record</BButton
                >
                <button
                  type="button"
                  class="btn btn-sm btn-light"
                  :aria-expanded="opened === row.path"
                  :aria-label="`More of ${row.name}`"
                  @click="open(row.path)"
                >
                  {{ row.part === null ? 'Photo …' : 'Other …' }}
                </button>
              </td>
            </tr>
            <tr v-if="opened === row.path && session.mayRecord" class="more">
              <td colspan="5">
                <div class="line">
                  <label v-if="onShelf(row).length > 0"
                    >from the stock
                    <select
                      class="form-select"
                      :value="of(row.path).item"
                      :aria-label="`From the stock, ${row.name}`"
                      @change="type(row.path, 'item', $event)"
                    >
                      <option value="">none</option>
                      <option v-for="one in onShelf(row)" :key="one.id" :value="one.id">
                        {{ one.serial ?? one.id }}{{ one.part === row.part ? '' : `, ${labelOf(one.part)}` }}
                      </option>
                    </select></label
                  >
                  <label v-if="row.part !== null && of(row.path).item === ''"
                    >fitted instead
                    <select
                      class="form-select"
                      :value="of(row.path).part"
                      :aria-label="`Fitted instead of ${row.name}`"
                      @change="type(row.path, 'part', $event)"
                    >
                      <option value="">as designed</option>
                      <option v-for="one in choices(row)" :key="partKey(one)" :value="partKey(one)">
                        {{ one.label }}
                      </option>
                    </select></label
                  >
                  <label class="why"
                    >why
                    <input
                      class="form-control"
                      :value="of(row.path).reason"
                      :aria-label="`Why, ${row.name}`"
                      maxlength="2000"
                      @input="type(row.path, 'reason', $event)"
                    />
                  </label>
                  <AttachFiles v-model="photos" />
                </div>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-if="said" role="status">{{ said }}</p>
  </section>
  <section v-if="cuts.length > 0" class="sheet-card" aria-labelledby="cut-title">
    <div class="card-head">
      <h2 id="cut-title">Cables as cut</h2>
      <span class="hint">one way; measured lengths count for drops, faults and losses as built</span>
    </div>
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">cable</th>
          <th scope="col" class="num">designed, m</th>
          <th scope="col" class="num">cut, m</th>
          <th scope="col">recorded</th>
          <th v-if="session.mayRecord" scope="col">length, m</th>
          <th v-if="session.mayRecord" scope="col">drum or batch</th>
          <th v-if="session.mayRecord" scope="col"><span class="visually-hidden">record</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in cuts" :key="row.path">
          <th scope="row">{{ row.name }}</th>
          <td class="num">{{ row.lengthM === null ? 'not given' : formatNumber(row.lengthM) }}</td>
          <td class="num">
            <b v-if="row.told">{{ formatNumber(row.told.body.lengthM) }}</b>
          </td>
          <td>
            <small v-if="row.told" class="soft"
              >{{ when(row.told.at) }}, {{ row.told.by
              }}{{ row.told.body.batch ? `, ${row.told.body.batch}` : '' }}</small
            >
          </td>
          <td v-if="session.mayRecord">
            <input
              class="form-control number"
              inputmode="decimal"
              :value="of(row.path).length"
              :aria-label="`Length of ${row.name}`"
              @input="type(row.path, 'length', $event)"
              @keydown.enter.prevent="cut(row)"
            />
          </td>
          <td v-if="session.mayRecord">
            <input
              class="form-control serial"
              :value="of(row.path).batch"
              :aria-label="`Drum of ${row.name}`"
              maxlength="80"
              @input="type(row.path, 'batch', $event)"
              @keydown.enter.prevent="cut(row)"
            />
          </td>
          <td v-if="session.mayRecord">
            <BButton
              size="sm"
              variant="primary"
              :disabled="busy || of(row.path).length.trim() === ''"
              :aria-label="`Record length of ${row.name}`"
              @click="cut(row)"
              >Record</BButton
            >
          </td>
        </tr>
      </tbody>
    </table>
  </section>
  <BuiltFollows />
</template>

<style scoped>
.labels {
  margin-left: auto;
}

.scroller {
  max-height: 24rem;
  overflow: auto;
}

.scroller thead th {
  z-index: 1;
  position: sticky;
  top: 0;
  background: var(--tv-sheet);
}

.part {
  max-width: 12rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.scroller small {
  margin-left: 0.4rem;
}

.serial {
  width: 8rem;
}

.number {
  width: 6rem;
  text-align: right;
}

.acts {
  white-space: nowrap;
}

.acts .btn + .btn {
  margin-left: 0.4rem;
}

.other,
.differs .other {
  color: var(--tv-mend);
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}

.line label {
  display: flex;
  flex: 1 1 15rem;
  gap: 0.5rem;
  align-items: center;
  white-space: nowrap;
}

.line .why {
  flex: 2 1 20rem;
}

p {
  margin: 0.4rem 0 0;
}
</style>
