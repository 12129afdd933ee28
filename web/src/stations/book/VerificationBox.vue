<script setup lang="ts">
import type { Verification } from '@torvek/core/record';
import { computed } from 'vue';

const props = defineProps<{ found: Verification }>();
const shown = 12;
const first = computed(() => props.found.problems[0]);
const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;
</script>

<template>
  <div class="verification" :class="found.ok ? 'good' : 'bad'" role="status" data-verification>
    <p v-if="found.ok">
      <b>The chain fits: {{ found.entries }} entries</b>, {{ counted(found.versions, 'version') }} of the
      design, {{ counted(found.files, 'file') }}: each link follows the one before it, each version leads to
      its hash, each entry was judged by the version it names, and the database holds what the journal tells.
      A complete rewrite of journals and database together shows only against a paper that was printed before.
    </p>
    <template v-else>
      <p>
        <b>It does not fit, first at {{ first?.what }}.</b>
      </p>
      <p v-for="one in found.problems.slice(0, shown)" :key="`${one.what}${one.message}`" class="problem">
        {{ one.what }} {{ one.message }}.
      </p>
      <p v-if="found.problems.length > shown">… and {{ found.problems.length - shown }} more.</p>
    </template>
    <p v-if="found.vouchedBy !== null" class="aside">
      It came from elsewhere; vouched for by {{ found.vouchedBy }}.
    </p>
    <p v-if="found.notWitnessed !== null" class="aside">
      Not witnessed link by link: {{ found.notWitnessed.links }} links, taken up on
      {{ found.notWitnessed.at.slice(0, 10)
      }}<template v-if="found.notWitnessed.problems.length > 0">
        (already then: {{ found.notWitnessed.problems.slice(0, 3).join('; ') }})</template
      >.
    </p>
    <p v-for="one in found.repairs" :key="one" class="aside">
      Repaired, and recorded as such: {{ one }}; taken up from the database.
    </p>
    <p v-if="found.restored.length > 0" class="aside">
      {{ found.restored.length }} entries an older database had lost and got back from its journal (last:
      entry {{ found.restored.at(-1)?.seq }}).
    </p>
  </div>
</template>

<style scoped>
.verification {
  padding: 0.3rem 0.7rem;
  border-left: 4px solid var(--tv-pass);
  background: var(--tv-recess);
  margin-bottom: 0.6rem;
}

.verification.bad {
  border-left-color: var(--tv-stop);
}

p {
  margin: 0;
}

.problem::first-letter {
  text-transform: uppercase;
}

.aside {
  margin-top: 0.25rem;
  color: var(--tv-soft);
}
</style>
