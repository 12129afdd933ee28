<script setup lang="ts">
import { setAt, valueOf, type Design, type Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { useJob } from '../stores/job';

/** Things that a field names, several at once: said in a sentence, and picked one by one. */
const props = defineProps<{
  /** Place of the list in the design. */
  path: string;
  /** What may be named. */
  things: readonly { id: Id; tag: string }[];
  /** What the list says, before its names: "On it". */
  label: string;
  /** Where it names nothing. */
  none: string;
  /** On the button: "which modules". */
  ask: string;
  /** What the change is called. */
  change: string;
}>();
const job = useJob();
const choosing = ref(false);
watch(
  () => props.path,
  () => (choosing.value = false),
);
const own = computed(() => (valueOf(job.design, props.path) as readonly Id[] | undefined) ?? []);
const named = computed(() => props.things.filter(({ id }) => own.value.includes(id)).map(({ tag }) => tag));
function toggle(id: Id): void {
  job.change(props.change, (draft: Design) => {
    const now = (valueOf(draft, props.path) as Id[] | undefined) ?? [];
    const next = now.includes(id) ? now.filter((one) => one !== id) : [...now, id];
    setAt(draft, props.path, next.length === 0 ? undefined : next);
  });
}
</script>

<template>
  <p class="said" :data-path="path">
    {{ named.length === 0 ? none : `${label}: ${named.join(', ')}.` }}
    <slot />
    <BButton
      size="sm"
      variant="light"
      :aria-expanded="choosing"
      :disabled="!job.editable || things.length === 0"
      @click="choosing = !choosing"
      >{{ choosing ? 'done' : ask }}</BButton
    >
  </p>
  <div v-if="choosing" class="things" role="group" :aria-label="label">
    <button
      v-for="one in things"
      :key="one.id"
      type="button"
      class="btn btn-sm"
      :class="own.includes(one.id) ? 'btn-primary' : 'btn-light'"
      :aria-pressed="own.includes(one.id)"
      @click="toggle(one.id)"
    >
      {{ one.tag }}
    </button>
  </div>
</template>

<style scoped>
.said {
  margin: 0.4rem 0 0.2rem;
}

.things {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  margin: 0.3rem 0;
}
</style>
