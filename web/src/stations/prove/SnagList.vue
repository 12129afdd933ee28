<script setup lang="ts">
import { snagGates } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import SubjectPicker from './SubjectPicker.vue';

/** What is provisional: each with the gate by which it must be gone. */
const job = useJob();
const session = useSession();
const adding = ref(false);
const removing = ref<number | null>(null);
const how = ref('');
const form = reactive({ what: '', gate: 'hand-over', subjects: [] as string[] });
const problem = ref<string | null>(null);
let entryId = newId('entry');

const open = computed(() => job.assessment.snags.filter(({ gone }) => gone === null));
const gone = computed(() => job.assessment.snags.length - open.value.length);
const gateTitle = (id: string) => snagGates.find((gate) => gate.id === id)?.title ?? id;

async function send(body: { kind: string } & Record<string, unknown>, title: string): Promise<boolean> {
  problem.value = null;
  try {
    await job.record({ id: entryId, ...body }, title);
    entryId = newId('entry');
    return true;
  } catch (error) {
    problem.value = error instanceof Error ? `Not recorded: ${error.message}.` : 'Not recorded.';
    return false;
  }
}

async function add(): Promise<void> {
  const what = form.what.trim();
  if (what === '') problem.value = 'What is provisional is missing.';
  else if (await send({ kind: 'snag', what, gate: form.gate, subjects: form.subjects }, `Snag: ${what}`)) {
    form.what = '';
    form.subjects = [];
    adding.value = false;
  }
}

async function remove(of: number): Promise<void> {
  const words = how.value.trim();
  if (words === '') problem.value = 'How it was put right is missing.';
  else if (await send({ kind: 'snag-gone', of, how: words }, `Snag ${of} is gone`)) {
    how.value = '';
    removing.value = null;
  }
}
</script>

<template>
  <section class="sheet-card snags" aria-labelledby="snags-title">
    <div class="head">
      <h2 id="snags-title">Snags</h2>
      <span class="soft">{{ open.length }} open{{ gone > 0 ? `, ${gone} gone` : '' }}</span>
      <BButton
        v-if="session.may('technician')"
        size="sm"
        variant="light"
        :aria-expanded="adding"
        @click="adding = !adding"
        >{{ adding ? 'Leave it' : 'Tag one' }}</BButton
      >
    </div>
    <ul v-if="open.length > 0">
      <li v-for="{ entry } in open" :key="entry.seq" :data-snag="entry.seq">
        <span>{{ entry.body.what }}</span>
        <small class="soft"
          >by {{ gateTitle(entry.body.gate).toLowerCase() }}; entry {{ entry.seq }}, {{ entry.by }}</small
        >
        <form v-if="removing === entry.seq" @submit.prevent="remove(entry.seq)">
          <input
            v-model="how"
            class="form-control"
            maxlength="2000"
            placeholder="How it was put right"
            aria-label="How it was put right"
          />
          <BButton size="sm" variant="primary" type="submit">Record</BButton>
        </form>
        <BButton v-else-if="session.may('technician')" size="sm" variant="light" @click="removing = entry.seq"
          >It is gone</BButton
        >
      </li>
    </ul>
    <form v-if="adding" class="add" @submit.prevent="add">
      <label>What is provisional<input v-model="form.what" class="form-control" maxlength="500" /></label>
      <label
        >Must be gone by<select v-model="form.gate" class="form-select">
          <option v-for="gate in snagGates" :key="gate.id" :value="gate.id">{{ gate.title }}</option>
        </select></label
      >
      <SubjectPicker v-model="form.subjects" label="Concerns" />
      <BButton type="submit" variant="primary">Record</BButton>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}

.head :last-child {
  margin-left: auto;
}

ul {
  list-style: none;
  padding: 0;
  margin: 0.3rem 0 0;
  max-height: 11rem;
  overflow-y: auto;
}

li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 0.4rem;
  padding: 0.3rem 0;
  border-top: 1px solid var(--tv-line);
  font-size: 0.88rem;
}

li small {
  grid-row: 2;
}

li .btn {
  grid-row: 1 / 3;
  grid-column: 2;
  align-self: center;
}

li form {
  grid-column: 1 / -1;
  display: flex;
  gap: 0.3rem;
}

.add {
  display: grid;
  gap: 0.4rem;
  margin-top: 0.5rem;
}

.add label {
  font-size: 0.88rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0.3rem 0 0;
}
</style>
