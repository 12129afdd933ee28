<script setup lang="ts">
import { partKindNames, partKinds, type Part, type PartKind } from '@torvek/core/parts';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onMounted, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import Icon from '../parts/Icon.vue';
import { useLibrary } from '../stores/library';
import { useSession } from '../stores/session';
import ComparePanel from './ComparePanel.vue';
import { partsCsv, partsJson } from './files';
import PartForm from './PartForm.vue';
import PartList from './PartList.vue';
import PartSheet from './PartSheet.vue';
import TakeIn from './TakeIn.vue';

/** The shop's library of parts: what every job chooses from. */
const shelf = useLibrary();
const session = useSession();
const route = useRoute();
const router = useRouter();
const marked = ref<string[]>([]);
const doing = ref<'look' | 'revise' | 'copy' | 'new' | 'take-in'>('look');
/** A picture is being read: the list makes room. */
const wide = ref(false);
/** Counts saves: a form that was saved is a new one. */
const fresh = ref(0);

const kind = computed<PartKind>(() => {
  const asked = String(route.query.kind ?? '') as PartKind;
  return partKinds.includes(asked) ? asked : 'fuse';
});
const ofKind = computed(() => shelf.library.newest.filter((part) => part.kind === kind.value));
const openId = computed(() => (typeof route.query.part === 'string' ? route.query.part : null));
const open = computed(() => ofKind.value.find(({ id }) => id === openId.value) ?? ofKind.value[0] ?? null);
const compared = computed(() =>
  marked.value.flatMap((id) => ofKind.value.find((part) => part.id === id) ?? []),
);
watch(kind, () => {
  marked.value = [];
  doing.value = 'look';
});

const show = (query: { kind?: PartKind; part?: string }) =>
  router.replace({ query: { kind: query.kind ?? kind.value, ...(query.part && { part: query.part }) } });
function openPart(id: string): void {
  doing.value = 'look';
  marked.value = [];
  void show({ part: id });
}
function saved(id: string): void {
  doing.value = 'look';
  fresh.value += 1;
  void show({ part: id });
}
function tookIn(first: Part | null): void {
  if (first !== null) void show({ kind: first.kind, part: first.id });
}

/** What goes into a file: those marked, or all of the kind. */
const leaving = computed(() => (compared.value.length > 0 ? compared.value : ofKind.value));
function download(as: 'json' | 'csv'): void {
  const text = as === 'json' ? partsJson(leaving.value) : partsCsv(kind.value, leaving.value);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(
    new Blob([text], { type: as === 'json' ? 'application/json' : 'text/csv' }),
  );
  link.download = `${kind.value}-parts.${as}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

onMounted(() => {
  document.title = 'Parts · Torvek';
  void shelf.load();
  void shelf.loadUses();
});
</script>

<template>
  <div class="page">
    <header>
      <RouterLink class="btn btn-quiet" :to="{ name: 'jobs' }"><Icon name="jobs" /> All jobs</RouterLink>
      <h1>Parts</h1>
      <span class="soft"
        >an invented starter catalogue, and what the shop adds; a maker’s own sheet comes first</span
      >
      <span class="acts">
        <template v-if="session.isDesigner">
          <BButton size="sm" variant="primary" @click="doing = 'new'"
            ><Icon name="plus" /> New {{ partKindNames[kind][0] }}</BButton
          >
          <BButton size="sm" variant="light" @click="doing = 'take-in'"
            ><Icon name="upload" /> Take in</BButton
          >
        </template>
        <BButton size="sm" variant="light" @click="download('json')"><Icon name="download" /> JSON</BButton>
        <BButton size="sm" variant="light" @click="download('csv')"><Icon name="download" /> CSV</BButton>
      </span>
    </header>
    <nav class="kinds" aria-label="Kinds of parts">
      <button
        v-for="one in partKinds"
        :key="one"
        type="button"
        :class="{ on: one === kind }"
        :aria-pressed="one === kind"
        @click="show({ kind: one })"
      >
        {{ partKindNames[one][1] }}
        <small>{{ shelf.library.newest.filter((part) => part.kind === one).length }}</small>
      </button>
    </nav>
    <p v-if="shelf.failure" class="problem" role="alert">
      {{ shelf.failure }} <BButton size="sm" variant="light" @click="shelf.load">Try again</BButton>
    </p>
    <main :class="{ wide }">
      <PartList
        v-show="!wide"
        v-model:marked="marked"
        :kind="kind"
        :open="open?.id ?? null"
        @open="openPart"
      />
      <div class="side">
        <TakeIn v-if="doing === 'take-in'" @done="tookIn" @cancel="doing = 'look'" />
        <PartForm
          v-else-if="doing === 'new' || ((doing === 'revise' || doing === 'copy') && open)"
          :key="`${doing}-${kind}-${open?.id}-${fresh}`"
          :kind="kind"
          :from="doing === 'new' ? null : open"
          :as="doing === 'revise' ? 'revision' : 'new'"
          @saved="saved"
          @cancel="doing = 'look'"
          @reading="wide = $event"
        />
        <ComparePanel v-else-if="compared.length > 1" :parts="compared" @close="marked = []" />
        <PartSheet
          v-else-if="open"
          :key="open.id"
          :part="open"
          @revise="doing = 'revise'"
          @copy="doing = 'copy'"
        />
      </div>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1440px;
  margin: 0 auto;
  padding: 0.8rem 1rem;
}

header {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  flex-wrap: wrap;
  margin-bottom: 0.6rem;
}

.acts {
  display: flex;
  gap: 0.4rem;
  margin-left: auto;
}

.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin-bottom: 0.6rem;
}

.kinds button {
  border: 1px solid var(--tv-line);
  background: var(--tv-sheet);
  color: inherit;
  padding: 0.35rem 0.7rem;
  border-radius: 3px;
}

.kinds .on {
  background: var(--tv-pick);
  border-color: var(--tv-act);
  font-weight: 600;
}

.kinds small {
  color: var(--tv-soft);
}

main {
  display: grid;
  grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr);
  gap: 0.6rem;
  align-items: start;
}

main.wide {
  grid-template-columns: minmax(0, 1fr);
}

.side {
  overflow: auto;
  max-height: calc(100vh - 7.6rem);
}

.problem {
  color: var(--tv-stop);
}

@media (max-width: 900px) {
  main {
    grid-template-columns: minmax(0, 1fr);
  }

  .side {
    max-height: none;
  }
}
</style>
