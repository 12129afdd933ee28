<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { massBlocks } from '@torvek/core/vehicle';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { newId } from '../../api/client';
import Icon from '../../parts/Icon.vue';
import NumberField from '../../parts/NumberField.vue';
import TextField from '../../parts/TextField.vue';
import { onGridKeys } from '../../parts/grid-keys';
import { useJob } from '../../stores/job';

/** Masses out and in, edited in place; battery boxes follow from the pack. */
defineProps<{ picked: string | null; numbers: Map<string, number> }>();
const emit = defineEmits<{ pick: [id: string] }>();
const job = useJob();
const masses = computed(() => Object.entries(job.design.masses));
const boxes = computed(() => massBlocks(job.design).blocks.filter(({ kind }) => kind === 'box'));

function add(change: 'out' | 'in'): void {
  const id = newId('mass');
  const tag = change === 'out' ? 'Part taken out' : 'Part put in';
  job.change(`New mass: ${tag}`, (draft) => {
    draft.masses[id] = { tag, change };
  });
  emit('pick', id);
}

function remove(id: string, tag: string): void {
  job.change(`Mass removed: ${tag}`, (draft) => {
    delete draft.masses[id];
  });
}

function turn(id: string): void {
  const item = job.design.masses[id]!;
  const change = item.change === 'out' ? 'in' : 'out';
  job.set(`masses.${id}.change`, change, `${item.tag}: ${change}`);
}
</script>

<template>
  <div data-path="masses">
    <table class="grid-table" @keydown="onGridKeys">
      <thead>
        <tr>
          <th scope="col" class="num">no.</th>
          <th scope="col">Mass</th>
          <th scope="col">way</th>
          <th scope="col" class="num">kg</th>
          <th scope="col" class="num">x, m</th>
          <th scope="col" class="num">z, m</th>
          <th scope="col" class="num">long, m</th>
          <th scope="col" class="num">high, m</th>
          <th scope="col"><span class="visually-hidden">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="[id, item] in masses"
          :key="id"
          :class="{ picked: picked === id }"
          @focusin="emit('pick', id)"
        >
          <td class="num soft">{{ numbers.get(id) ?? '·' }}</td>
          <td class="name">
            <TextField :path="`masses.${id}.tag`" :label="`Name of mass ${item.tag}`" bare required />
          </td>
          <td>
            <button
              type="button"
              class="btn btn-quiet btn-sm way"
              :aria-label="`${item.tag} goes ${item.change}; change`"
              @click="turn(id)"
            >
              {{ item.change }}
            </button>
          </td>
          <td v-for="field in ['massKg', 'xM', 'zM', 'lengthM', 'heightM']" :key="field" class="num">
            <NumberField
              :path="`masses.${id}.${field}`"
              :label="`${field === 'massKg' ? 'Mass' : field.replace('M', '')} of ${item.tag}`"
              :unit="field === 'massKg' ? 'kg' : 'm'"
              bare
            />
          </td>
          <td>
            <button
              type="button"
              class="btn btn-quiet btn-sm"
              :aria-label="`Remove ${item.tag}`"
              @click="remove(id, item.tag)"
            >
              <Icon name="trash" :size="13" />
            </button>
          </td>
        </tr>
        <tr
          v-for="box in boxes"
          :key="box.id"
          class="box"
          :class="{ picked: picked === box.id }"
          @click="emit('pick', box.id)"
        >
          <td class="num soft">{{ numbers.get(box.id) }}</td>
          <td class="name">
            <RouterLink :to="{ name: 'pack', params: { job: job.id }, query: { at: `boxes.${box.id}` } }">{{
              box.name
            }}</RouterLink>
          </td>
          <td class="soft">box</td>
          <td class="num fixed">{{ formatNumber(box.massKg, 4) }}</td>
          <td class="num fixed">{{ formatNumber(box.xM) }}</td>
          <td class="num fixed">{{ box.zM === undefined ? '' : formatNumber(box.zM) }}</td>
          <td class="num fixed">{{ box.lengthM === undefined ? '' : formatNumber(box.lengthM) }}</td>
          <td class="num fixed">{{ box.heightM === undefined ? '' : formatNumber(box.heightM) }}</td>
          <td />
        </tr>
      </tbody>
    </table>
    <div class="add">
      <button type="button" class="btn btn-quiet btn-sm" @click="add('out')">
        <Icon name="plus" :size="12" /> taken out
      </button>
      <button type="button" class="btn btn-quiet btn-sm" @click="add('in')">
        <Icon name="plus" :size="12" /> put in
      </button>
      <span class="soft">x counts from the front axle, forward positive; z from the ground.</span>
    </div>
  </div>
</template>

<style scoped>
.name {
  min-width: 11rem;
}

.num {
  width: 4.6rem;
}

th.num:first-child,
td.num:first-child {
  width: 2rem;
}

.way {
  width: 2.6rem;
  padding: 0.05rem 0;
}

.fixed {
  padding-right: 0.8rem;
}

.add {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.5rem;
  font-size: 0.85rem;
}
</style>
