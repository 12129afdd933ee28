<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';
import { api } from '../../api/client';

/** Holds the head that a paper carries (the words of its code) against the chain: a complete rewrite shows here. */
const text = ref('');
const answer = ref<{ fits: boolean; words: string } | null>(null);
const problem = ref<string | null>(null);
const busy = ref(false);

async function check(): Promise<void> {
  busy.value = true;
  answer.value = null;
  problem.value = null;
  try {
    answer.value = await api.post<{ fits: boolean; words: string }>('/papers/check', { text: text.value });
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not checked';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="paper no-print" @submit.prevent="check">
    <label for="paper-text">Hold a paper against the chain</label>
    <p class="hint">Scan the code at the foot of a printed sheet, or copy its words.</p>
    <textarea
      id="paper-text"
      v-model="text"
      class="form-control"
      rows="3"
      placeholder="torvek-head 1 …"
      spellcheck="false"
      :aria-invalid="problem !== null"
      aria-describedby="paper-answer"
    />
    <BButton size="sm" variant="light" type="submit" :disabled="busy || text.trim() === ''">{{
      busy ? 'Holding …' : 'Does it fit?'
    }}</BButton>
    <div id="paper-answer">
      <p v-if="answer" :class="answer.fits ? 'good' : 'bad'" role="status" data-paper>{{ answer.words }}</p>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    </div>
  </form>
</template>

<style scoped>
.paper {
  margin-top: 0.9rem;
  padding-top: 0.7rem;
  border-top: 1px solid var(--tv-line);
}

label {
  font-weight: 600;
}

textarea {
  font-size: 0.78rem;
  margin: 0.3rem 0;
}

p {
  margin: 0.2rem 0 0.3rem;
  overflow-wrap: anywhere;
}

.good {
  border-left: 4px solid var(--tv-pass);
  padding-left: 0.5rem;
}

.bad {
  color: var(--tv-stop);
}
</style>
