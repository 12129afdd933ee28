<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { watch } from 'vue';
import { RouterLink } from 'vue-router';
import { leftText, useCallbacks } from '../stores/callbacks';

/** Times that run or are over, on every page: by words and a tone. */
const calls = useCallbacks();
watch(
  () => calls.state.over.length,
  () => calls.ring(),
  { immediate: true },
);
</script>

<template>
  <aside v-if="calls.state.over.length + calls.state.running.length > 0" class="calls no-print" data-calls>
    <p v-for="one in calls.state.over" :key="one.id" class="over" role="alert">
      <b>Time is up: {{ one.title }}</b> <span class="soft">{{ one.jobName }}</span>
      <RouterLink
        :to="{ name: 'prove', params: { job: one.job }, query: { step: one.step } }"
        class="btn btn-primary btn-sm"
        @click="calls.see(one.id)"
        >To the step</RouterLink
      >
      <BButton size="sm" variant="light" @click="calls.see(one.id)">Seen</BButton>
    </p>
    <p v-for="one in calls.state.running" :key="one.id">
      {{ one.title }} <b>{{ leftText(one.endsAt - calls.now.getTime()) }}</b>
      <button
        type="button"
        class="visually-plain"
        :aria-label="`Stop the time of ${one.title}`"
        @click="calls.drop(one.id)"
      >
        ✕
      </button>
    </p>
  </aside>
</template>

<style scoped>
.calls {
  position: fixed;
  right: 0.8rem;
  bottom: 0.8rem;
  z-index: 30;
  max-width: 26rem;
  padding: 0.4rem 0.7rem;
  background: var(--tv-sheet);
  border: 1px solid var(--tv-line);
  box-shadow: 0 2px 8px rgb(0 0 0 / 25%);
}

.calls p {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin: 0.15rem 0;
  font-size: 0.9rem;
}

.over {
  padding-left: 0.5rem;
  border-left: 4px solid var(--tv-mend);
}
</style>
