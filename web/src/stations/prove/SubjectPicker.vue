<script setup lang="ts">
import { computed } from 'vue';
import { useJob } from '../../stores/job';

/** Things of the design that something concerns: boxes, strings, circuits, devices, the bus, the pack, modules. */
defineProps<{ label: string }>();
const chosen = defineModel<string[]>({ required: true });
const job = useJob();
const groups = computed(() => {
  const { boxes, circuits, devices, modules, strings } = job.design;
  const of = (items: Record<string, { tag: string }>) =>
    Object.entries(items).map(([id, { tag }]) => ({ id, tag }));
  return [
    {
      title: 'as a whole',
      items: [
        { id: 'pack', tag: 'pack' },
        { id: 'bus', tag: 'bus' },
        { id: 'vehicle', tag: 'vehicle' },
      ],
    },
    { title: 'circuits', items: of(circuits) },
    { title: 'boxes', items: of(boxes) },
    { title: 'strings', items: of(strings) },
    { title: 'devices', items: of(devices) },
    { title: 'coolant', items: of({ ...job.design.loops, ...job.design.plumbing }) },
    {
      title: 'charging',
      items: of({ ...job.design.supplies, ...job.design.inlets, ...job.design.cuts }),
    },
    { title: 'low voltage', items: of({ ...job.design.loads, ...job.design.ends }) },
    { title: 'modules', items: of(modules) },
  ].filter(({ items }) => items.length > 0);
});
const tagOf = (id: string) =>
  groups.value.flatMap(({ items }) => items).find((item) => item.id === id)?.tag ?? id;

function add(event: Event): void {
  const select = event.target as HTMLSelectElement;
  if (select.value !== '' && !chosen.value.includes(select.value))
    chosen.value = [...chosen.value, select.value];
  select.value = '';
}
</script>

<template>
  <div class="picker">
    <label
      >{{ label
      }}<select class="form-select" @change="add">
        <option value="">{{ chosen.length === 0 ? 'nothing yet; choose' : 'and …' }}</option>
        <optgroup v-for="group in groups" :key="group.title" :label="group.title">
          <option v-for="item in group.items" :key="item.id" :value="item.id">{{ item.tag }}</option>
        </optgroup>
      </select></label
    >
    <p v-if="chosen.length > 0">
      <button
        v-for="id in chosen"
        :key="id"
        type="button"
        class="btn btn-quiet btn-sm"
        :aria-label="`take ${tagOf(id)} out`"
        @click="chosen = chosen.filter((one) => one !== id)"
      >
        {{ tagOf(id) }} ✕
      </button>
    </p>
  </div>
</template>

<style scoped>
.picker label {
  font-size: 0.9rem;
  display: block;
}

.picker p {
  display: flex;
  gap: 0.3rem;
  flex-wrap: wrap;
  margin: 0.3rem 0 0;
}
</style>
