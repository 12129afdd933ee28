<script setup lang="ts">
import { parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { newId } from '../../../api/client';
import NumberField from '../../../parts/NumberField.vue';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import { huntView } from './hunt-view';

/** A unit that restarts by itself: what to take out next follows from what was tried. */
const job = useJob();
const session = useSession();
const view = computed(() => huntView(job.design, job.entries));
const beginning = ref(false);
const begun = computed(() => view.value.tries.length > 0 && !beginning.value);
const proposed = computed(() => (begun.value ? view.value.now.next : []));
const out = ref<string[]>([]);
const starts = ref('');
const restarts = ref('');
const problem = ref<string | null>(null);
const busy = ref(false);
let entryId = newId('entry');
watch(
  () => proposed.value?.join(' ') ?? '',
  () => (out.value = [...(proposed.value ?? [])]),
  { immediate: true },
);
const left = computed(
  () => new Set(begun.value ? view.value.now.left : view.value.suspects.map(({ id }) => id)),
);
const says = computed(() =>
  begun.value || view.value.tries.length === 0
    ? view.value.says
    : 'A new hunt: first as it stands, nothing taken out. Start it cold, and count.',
);

async function record(): Promise<void> {
  const of = parseQuantity(starts.value, '');
  const seen = parseQuantity(restarts.value === '' ? '0' : restarts.value, '');
  problem.value =
    !of.ok || of.value < 1
      ? 'Cold starts: how many there were, from 1.'
      : !seen.ok
        ? 'Restarts: how many there were.'
        : null;
  if (problem.value !== null || !of.ok || !seen.ok || busy.value) return;
  busy.value = true;
  try {
    await job.record(
      {
        id: entryId,
        kind: 'hunt-try',
        begins: !begun.value,
        out: out.value,
        starts: of.value,
        restarts: seen.value,
      },
      `Hunt: ${seen.value} of ${of.value} starts restarted`,
    );
    entryId = newId('entry');
    starts.value = '';
    restarts.value = '';
    beginning.value = false;
  } catch (error) {
    problem.value = error instanceof Error ? `Not recorded: ${error.message}.` : 'Not recorded.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="hunt-title" data-hunt>
    <div class="card-head">
      <h2 id="hunt-title">It restarts by itself</h2>
      <span class="hint">halved until one is left</span>
      <BButton v-if="begun" size="sm" variant="light" @click="beginning = true">Begin anew</BButton>
    </div>
    <p class="says" role="status" data-hunt-says>{{ says }}</p>
    <form @submit.prevent="record">
      <fieldset>
        <legend>Out of the way in this try</legend>
        <ul>
          <li v-for="one in view.suspects" :key="one.id" :class="{ cleared: !left.has(one.id) }">
            <label
              ><input v-model="out" type="checkbox" class="form-check-input" :value="one.id" /> {{ one.name
              }}<span v-if="!left.has(one.id)" class="soft"> · excluded</span></label
            >
            <p v-if="out.includes(one.id)" class="how">{{ one.how }}</p>
          </li>
        </ul>
      </fieldset>
      <div class="counts">
        <label
          >Cold starts<input v-model="starts" class="form-control" inputmode="numeric" data-starts
        /></label>
        <label
          >Restarted in<input
            v-model="restarts"
            class="form-control"
            inputmode="numeric"
            placeholder="0"
            data-restarts
        /></label>
        <BButton type="submit" variant="primary" :disabled="busy || !session.may('technician')"
          >Record the try</BButton
        >
        <NumberField path="sensing.coldStarts" />
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </form>
    <ol v-if="view.tries.length > 0" class="tries" data-tries>
      <li v-for="one in view.tries" :key="one.seq">
        {{ one.body.names.length === 0 ? 'as it stands' : `without ${one.body.names.join(', ')}` }}:
        <b :class="{ loud: one.body.restarts > 0 }">{{
          one.body.restarts === 0
            ? `quiet in ${one.body.starts} starts`
            : `restarted in ${one.body.restarts} of ${one.body.starts} starts`
        }}</b>
        <span class="soft"> entry {{ one.seq }}, {{ one.by }}</span>
      </li>
    </ol>
    <p class="soft">
      Supply off and sense plugs out by their order before anything is unplugged; contactors stay open while
      it restarts. Whoever looks on is among the suspects.
    </p>
  </section>
</template>

<style scoped>
.says {
  font-weight: 600;
}

fieldset ul {
  list-style: none;
  padding: 0;
  margin: 0;
  columns: 2 18rem;
}

fieldset li {
  break-inside: avoid;
}

legend {
  font-size: 0.9rem;
  margin: 0;
}

.cleared {
  color: var(--tv-soft);
}

.how {
  margin: 0 0 0.3rem 1.5rem;
  font-size: 0.88rem;
}

.counts {
  display: flex;
  gap: 0.7rem;
  align-items: end;
  flex-wrap: wrap;
  margin-top: 0.5rem;
}

.counts .form-control {
  width: 7rem;
}

.loud {
  color: var(--tv-stop);
}

.problem {
  color: var(--tv-stop);
}

.tries {
  margin: 0.6rem 0;
  padding-left: 1.3rem;
}
</style>
