<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { useJob } from '../stores/job';

/** A change that could not be saved as it stands: shown, never lost. */
const job = useJob();
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
  display: flex;
  gap: 1rem;
  align-items: center;
  justify-content: space-between;
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
