<script setup lang="ts">
import { massBlocks } from '@torvek/core/vehicle';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { newId } from '../../api/client';
import Icon from '../../parts/Icon.vue';
import NumberField from '../../parts/NumberField.vue';
import TextField from '../../parts/TextField.vue';
import { onGridKeys } from '../../parts/grid-keys';
import { useJob } from '../../stores/job';

/** Boxes and which module sits in which: their masses stand on the axles in Brief. */
const job = useJob();
const boxes = computed(() => Object.entries(job.design.boxes));
const counts = computed(() => {
  const map = new Map<string, number>();
  for (const { box } of Object.values(job.design.modules))
    if (box !== undefined) map.set(box, (map.get(box) ?? 0) + 1);
  return map;
});
const masses = computed(() => new Map(massBlocks(job.design).blocks.map(({ id, massKg }) => [id, massKg])));
const strings = computed(() => Object.entries(job.design.strings));
const letter = (id: string | undefined) => {
  const index = id === undefined ? -1 : Object.keys(job.design.boxes).indexOf(id);
  return index < 0 ? '–' : String.fromCharCode(65 + (index % 26));
};

function add(): void {
  const tag = `Box ${String.fromCharCode(65 + (boxes.value.length % 26))}`;
  job.change(`New box: ${tag}`, (draft) => {
    draft.boxes[newId('box')] = { tag };
  });
}

function remove(id: string, tag: string): void {
  job.change(`Box removed: ${tag}`, (draft) => {
    delete draft.boxes[id];
    for (const module of Object.values(draft.modules)) if (module.box === id) delete module.box;
  });
}

function place(module: string, box: string): void {
  const item = job.design.modules[module]!;
  job.set(
    `modules.${module}.box`,
    box === '' ? undefined : box,
    `${item.tag} into ${job.design.boxes[box]?.tag ?? 'no box'}`,
  );
}
</script>

<template>
  <div data-path="boxes">
    <table v-if="boxes.length > 0" class="grid-table" @keydown="onGridKeys">
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col">Box</th>
          <th scope="col" class="num">x, m</th>
          <th scope="col" class="num">y, m</th>
          <th scope="col" class="num">z, m</th>
          <th scope="col" class="num">long, m</th>
          <th scope="col" class="num">high, m</th>
          <th scope="col" class="num">empty, kg</th>
          <th scope="col" class="num">modules</th>
          <th scope="col" class="num">full, kg</th>
          <th scope="col"><span class="visually-hidden">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[id, box] in boxes" :key="id" :data-path="`boxes.${id}`">
          <td class="letter">{{ letter(id) }}</td>
          <td class="name">
            <TextField :path="`boxes.${id}.tag`" :label="`Name of ${box.tag}`" bare required />
          </td>
          <td v-for="field in ['xM', 'yM', 'zM', 'lengthM', 'heightM']" :key="field" class="num">
            <NumberField
              :path="`boxes.${id}.${field}`"
              :label="`${field.replace('M', '')} of ${box.tag}`"
              unit="m"
              bare
            />
          </td>
          <td class="num">
            <NumberField :path="`boxes.${id}.emptyKg`" :label="`Empty mass of ${box.tag}`" unit="kg" bare />
          </td>
          <td class="num">{{ counts.get(id) ?? 0 }}</td>
          <td class="num">{{ masses.has(id) ? formatNumber(masses.get(id)!, 4) : '—' }}</td>
          <td>
            <button
              type="button"
              class="btn btn-quiet btn-sm"
              :aria-label="`Remove ${box.tag}`"
              @click="remove(id, box.tag)"
            >
              <Icon name="trash" :size="13" />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">No box yet. Modules without a box have a mass, but no place on the axles.</p>
    <button type="button" class="btn btn-quiet btn-sm add" @click="add">
      <Icon name="plus" :size="12" /> box
    </button>
    <div v-for="[id, string] in strings" :key="id" class="string">
      <h3>{{ string.tag }}, from − to +</h3>
      <div class="modules">
        <label
          v-for="module in string.modules"
          :key="module"
          class="module"
          :class="{ loose: job.design.modules[module]?.box === undefined }"
        >
          <span>{{ job.design.modules[module]?.tag }}</span>
          <select
            :value="job.design.modules[module]?.box ?? ''"
            :aria-label="`Box of ${job.design.modules[module]?.tag}`"
            @change="place(module, ($event.target as HTMLSelectElement).value)"
          >
            <option value="">–</option>
            <option v-for="[boxId] in boxes" :key="boxId" :value="boxId">{{ letter(boxId) }}</option>
          </select>
        </label>
      </div>
    </div>
  </div>
</template>

<style scoped>
.letter {
  font-weight: 600;
  width: 1.4rem;
}

.name {
  min-width: 9rem;
}

td.num {
  width: 4.7rem;
}

.add {
  margin: 0.5rem 0;
}

.string {
  margin-top: 0.5rem;
}

.string h3 {
  font-size: 0.85rem;
  margin-bottom: 0.25rem;
}

.modules {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}

.module {
  border: 1px solid var(--tv-hv);
  border-radius: 2px;
  padding: 0.15rem 0.3rem;
  font-size: 0.8rem;
  display: flex;
  gap: 0.3rem;
  align-items: center;
}

.module.loose {
  border-style: dashed;
}

.module select {
  border: 1px solid var(--tv-line);
  background: var(--tv-sheet);
  color: var(--tv-ink);
  font-weight: 600;
  height: 24px;
}
</style>
