<script setup lang="ts">
import { valueOf } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { pathOfPointer, placeName, sayValue } from '../parts/place-name';
import { useJob } from '../stores/job';

/** A change that could not be saved as it stands: shown, never lost. */
const job = useJob();
/** What was, what they made of it and what was made here, place by place. */
const places = computed(() => {
  const { trouble } = job;
  if (trouble?.theirs == null) return [];
  const { theirs, change } = trouble;
  return change.forward.map((operation, i) => {
    const path = pathOfPointer(operation.path);
    const before = change.inverse[change.inverse.length - 1 - i];
    return {
      path,
      name: placeName(theirs, path),
      theirs: sayValue(theirs, path, valueOf(theirs, path)),
      mine: operation.op === 'remove' ? 'taken out' : sayValue(theirs, path, operation.value),
      before: before === undefined || before.op === 'remove' ? '—' : sayValue(theirs, path, before.value),
    };
  });
});
const more = computed(() => Math.max(0, job.pending.length - 1));
</script>

<template>
  <div v-if="job.trouble" class="trouble" role="alert">
    <p>
      <strong
        >“{{ job.trouble.change.label }}”
        {{ job.trouble.theirs ? 'meets another person’s change' : 'was not taken' }}:</strong
      >
      {{ job.trouble.message }}<span v-if="more > 0"> {{ more }} later changes wait behind it.</span>
    </p>
    <table v-if="places.length > 0" class="grid-table" data-clash>
      <thead>
        <tr>
          <th scope="col">place</th>
          <th scope="col">before</th>
          <th scope="col">theirs</th>
          <th scope="col">mine</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="place in places.slice(0, 8)" :key="place.path">
          <th scope="row">{{ place.name }}</th>
          <td>{{ place.before }}</td>
          <td>{{ place.theirs }}</td>
          <td>
            <b>{{ place.mine }}</b>
          </td>
        </tr>
      </tbody>
    </table>
    <div class="buttons">
      <BButton v-if="job.trouble.theirs" size="sm" variant="primary" @click="job.insist()"
        >Put mine on top of theirs</BButton
      >
      <BButton size="sm" variant="light" @click="job.reload()">{{
        job.trouble.theirs ? 'Keep theirs' : 'Give it up and reload'
      }}</BButton>
    </div>
  </div>
</template>

<style scoped>
.trouble {
  background: var(--tv-sheet);
  border-left: 4px solid var(--tv-stop);
  padding: 0.5rem 0.9rem;
  display: grid;
  gap: 0.4rem;
}

.grid-table {
  width: auto;
  min-width: 30rem;
}

p {
  margin: 0;
}

.buttons {
  display: flex;
  gap: 0.4rem;
  flex: none;
}
</style>
