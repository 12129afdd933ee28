<script setup lang="ts">
import type { Station } from '@torvek/core/document';
import Icon from '../parts/Icon.vue';
import { useSession } from '../stores/session';
import { useSlate } from '../stores/slate';
import FindingsTab from './FindingsTab.vue';
import WorkingTab from './WorkingTab.vue';

defineProps<{ station: Station }>();
const slate = useSlate();
const session = useSession();
</script>

<template>
  <aside class="slate no-print" aria-label="Findings and working">
    <div class="tabs">
      <div role="tablist" aria-label="Slate">
        <button
          type="button"
          role="tab"
          :aria-selected="slate.tab === 'findings'"
          @click="slate.tab = 'findings'"
        >
          Findings
        </button>
        <button
          type="button"
          role="tab"
          :aria-selected="slate.tab === 'working'"
          @click="slate.tab = 'working'"
        >
          Working
        </button>
      </div>
      <button
        type="button"
        class="fold"
        title="Fold the slate away"
        aria-label="Fold the slate away"
        @click="session.slateOpen = false"
      >
        <Icon name="chevron" />
      </button>
    </div>
    <div class="content" role="tabpanel">
      <FindingsTab v-if="slate.tab === 'findings'" :station="station" />
      <WorkingTab v-else />
    </div>
  </aside>
</template>

<style scoped>
.slate {
  background: var(--tv-sheet);
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--tv-line);
}

.tabs {
  display: flex;
  padding: 0.4rem 0.6rem 0;
  border-bottom: 1px solid var(--tv-line);
}

.tabs button {
  background: none;
  border: 0;
  border-bottom: 3px solid transparent;
  padding: 0.3rem 0.6rem;
  color: var(--tv-soft);
}

.tabs button[aria-selected='true'] {
  color: var(--tv-ink);
  font-weight: 600;
  border-bottom-color: var(--tv-act);
}

.tabs .fold {
  margin-left: auto;
}

.content {
  overflow-y: auto;
  padding: 0.5rem 0.8rem 1rem;
  flex: 1;
}
</style>
