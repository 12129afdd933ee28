<script setup lang="ts">
import { differences, sayField } from '@torvek/core/library';
import { fieldValue, partFields, partKey, type Part } from '@torvek/core/parts';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { useLibrary } from '../stores/library';
import { useSession } from '../stores/session';
import { curveOf } from './key-figures';
import PartPlot from './PartPlot.vue';
import { dayOf } from '../parts/dates';

/** One part: its data, its curve, its revisions with what each changed, and the jobs that use it. */
const props = defineProps<{ part: Part }>();
const emit = defineEmits<{ revise: []; copy: [] }>();
const shelf = useLibrary();
const session = useSession();
const failure = ref<string | null>(null);
const fields = computed(() =>
  partFields[props.part.kind].filter(({ name }) => name !== curveOf[props.part.kind]),
);
const revisions = computed(() => {
  const all = shelf.library.revisions(props.part.id);
  return all
    .map((part, i) => ({
      part,
      saved: shelf.own.find(({ part: own }) => partKey(own) === partKey(part)),
      changed: i === 0 ? [] : differences(all[i - 1]!, part),
    }))
    .reverse();
});
const own = computed(() => shelf.own.some(({ part }) => partKey(part) === partKey(props.part)));
const retired = computed(() => shelf.library.retired.has(props.part.id));
const uses = computed(() =>
  shelf.uses.flatMap(({ job, name, keys }) =>
    keys
      .filter((key) => key.startsWith(`${props.part.id}@`))
      .map((key) => ({ job, name, revision: Number(key.slice(props.part.id.length + 1)) })),
  ),
);
const day = (instant: string) => dayOf(instant);

async function retire(): Promise<void> {
  failure.value = null;
  try {
    await shelf.retire(props.part.id, !retired.value);
  } catch (error) {
    failure.value = error instanceof Error ? error.message : 'not done';
  }
}
</script>

<template>
  <section class="sheet-card" :aria-label="part.label" :data-open-part="partKey(part)">
    <div class="card-head">
      <h2>{{ part.make }} {{ part.number }}</h2>
      <span class="hint"
        >{{ part.id }}, revision {{ part.revision }}<template v-if="retired">, retired</template></span
      >
    </div>
    <p class="about">
      {{ part.label }}.
      <span class="soft"
        >Data: {{ part.source ?? (own ? 'no source given' : 'invented, of the starter catalogue') }}.</span
      >
    </p>
    <div v-if="session.isDesigner" class="acts">
      <BButton size="sm" variant="primary" @click="emit('revise')">Correct its data</BButton>
      <BButton size="sm" variant="light" @click="emit('copy')">Copy as a new part</BButton>
      <BButton size="sm" variant="light" @click="retire">{{ retired ? 'Offer again' : 'Retire' }}</BButton>
    </div>
    <p v-if="failure" class="problem" role="alert">{{ failure }}</p>
    <dl class="data">
      <template v-for="field in fields" :key="field.name">
        <dt>{{ field.label }}</dt>
        <dd>{{ sayField(field, fieldValue(part.data, field.name)) }}</dd>
      </template>
    </dl>
    <PartPlot :parts="[part]" :height="210" />
    <h3>Used in</h3>
    <p v-if="uses.length === 0" class="soft">No job uses it.</p>
    <ul v-else class="uses">
      <li v-for="one in uses" :key="`${one.job}-${one.revision}`">
        <RouterLink :to="{ name: 'protect', params: { job: one.job } }">{{ one.name }}</RouterLink><template
          v-if="one.revision !== part.revision"
        >
          at revision {{ one.revision }}</template
        >
      </li>
    </ul>
    <h3>Revisions</h3>
    <ol class="revisions">
      <li v-for="one in revisions" :key="one.part.revision" :data-revision="one.part.revision">
        <b>{{ one.part.revision }}</b>
        <span class="soft">{{
          one.saved === undefined ? 'starter catalogue' : `${one.saved.savedBy}, ${day(one.saved.savedAt)}`
        }}</span>
        <span v-if="one.saved?.note"> {{ one.saved.note }}</span>
        <small v-for="diff in one.changed" :key="diff.label" class="diff"
          >{{ diff.label }}: {{ diff.from }} → {{ diff.to }}</small
        >
      </li>
    </ol>
  </section>
</template>

<style scoped>
.about {
  margin: 0 0 0.5rem;
}

.acts {
  display: flex;
  gap: 0.4rem;
  margin-bottom: 0.5rem;
}

.data {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.15rem 1rem;
  margin: 0 0 0.6rem;
}

.data dt {
  font-weight: 400;
  color: var(--tv-soft);
}

.data dd {
  margin: 0;
}

h3 {
  font-size: 1rem;
  margin: 0.7rem 0 0.1rem;
}

p {
  margin: 0;
}

.uses,
.revisions {
  margin: 0;
  padding: 0;
  list-style: none;
}

.revisions li {
  padding: 0.25rem 0;
  border-top: 1px solid var(--tv-line);
}

.revisions b {
  display: inline-block;
  min-width: 1.6rem;
}

.diff {
  display: block;
  padding-left: 1.6rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
