<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { shopShelf } from '@torvek/core/record';
import type { Overview } from '@torvek/core/design';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import * as yup from 'yup';
import { api, newId } from '../api/client';
import Icon from '../parts/Icon.vue';
import AccountCard from '../people/AccountCard.vue';
import JobGlance from './JobGlance.vue';
import ImportJob from './ImportJob.vue';
import { useSession } from '../stores/session';
import { dayOf } from '../parts/dates';

interface JobSummary {
  id: string;
  name: string;
  demo: boolean;
  version: number;
  entries: number;
  touchedAt: string;
  importedAt: string | null;
  importedBy: string | null;
}

const router = useRouter();
const session = useSession();
const jobs = ref<JobSummary[] | null>(null);
/** What belongs to no job lies in one of its own: it is no vehicle. */
const vehicles = computed(() => jobs.value?.filter(({ id }) => id !== shopShelf.id) ?? []);
const shelf = computed(() => jobs.value?.find(({ id }) => id === shopShelf.id) ?? null);
const failure = ref<string | null>(null);
const name = ref('');
const problem = ref<string | null>(null);
const busy = ref(false);
const jobName = yup.string().trim().required('A job needs a name.').max(120, 'At most 120 characters.');

async function load(): Promise<void> {
  failure.value = null;
  try {
    jobs.value = await api.get<JobSummary[]>('/jobs');
    void glance();
  } catch (error) {
    failure.value = error instanceof Error ? error.message : 'the list cannot be read';
  }
}

/** How each job stands, one after the other: the list is there at once. */
const overviews = ref<Record<string, Overview>>({});
const unread = ref(new Set<string>());
let glances = 0;
async function glance(): Promise<void> {
  const own = (glances += 1);
  for (const { id } of vehicles.value) {
    try {
      const overview = await api.get<Overview>(`/jobs/${id}/overview`);
      // Meanwhile the list was read again, or this page left.
      if (own !== glances) return;
      overviews.value = { ...overviews.value, [id]: overview };
    } catch {
      if (own !== glances) return;
      unread.value = new Set([...unread.value, id]);
    }
  }
}
onBeforeUnmount(() => (glances += 1));

async function make(): Promise<void> {
  try {
    const valid = jobName.validateSync(name.value);
    problem.value = null;
    busy.value = true;
    const { id } = await api.post<{ id: string }>('/jobs', { id: newId('job'), name: valid });
    await router.push({ name: 'brief', params: { job: id } });
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not made';
  } finally {
    busy.value = false;
  }
}

async function duplicate({ id, name: original }: JobSummary): Promise<void> {
  try {
    await api.post(`/jobs/${id}/duplicate`, { id: newId('job'), name: `${original}, copy`.slice(0, 120) });
    await load();
  } catch (error) {
    failure.value = error instanceof Error ? error.message : 'not duplicated';
  }
}

const day = (instant: string) => dayOf(instant);

onMounted(() => {
  document.title = 'Torvek';
  void load();
});
</script>

<template>
  <div class="page">
    <header>
      <img src="/icon.svg" alt="" width="34" height="34" />
      <div>
        <h1>Torvek</h1>
        <p>The high-voltage system of a vehicle made electric: computed, checked, proved, recorded.</p>
      </div>
    </header>
    <main>
      <section class="sheet-card" aria-label="Jobs">
        <div class="card-head"><h2>Jobs</h2></div>
        <p v-if="failure" class="problem" role="alert">
          {{ failure }} <BButton size="sm" variant="light" @click="load">Try again</BButton>
        </p>
        <p v-else-if="jobs === null" role="status">Reading the list …</p>
        <p v-else-if="vehicles.length === 0">
          No job yet. A new job asks only for a name; everything else can wait.
        </p>
        <ul v-else class="jobs">
          <li v-for="one in vehicles" :key="one.id" :data-job="one.id">
            <JobGlance
              :job="one.id"
              :name="one.name"
              :overview="overviews[one.id] ?? null"
              :failed="unread.has(one.id)"
            >
              <p class="name">
                <RouterLink :to="{ name: 'brief', params: { job: one.id } }">{{ one.name }}</RouterLink>
                <span v-if="one.demo" class="demo">demo</span>
                <small class="soft"
                  >last touched {{ day(one.touchedAt)
                  }}<template v-if="one.importedAt">
                    · brought in {{ day(one.importedAt) }} by {{ one.importedBy }}</template
                  ></small
                >
              </p>
            </JobGlance>
            <BButton
              v-if="session.isDesigner"
              size="sm"
              variant="light"
              :aria-label="`Duplicate ${one.name}`"
              @click="duplicate(one)"
              >Duplicate</BButton
            >
          </li>
        </ul>
        <p v-if="shelf !== null" class="shelf" data-shelf>
          <RouterLink :to="{ name: 'pack', params: { job: shelf.id }, query: { panel: 'stock' } }">{{
            shelf.name
          }}</RouterLink>
          <small class="soft"
            >what belongs to no job; {{ shelf.entries }} {{ shelf.entries === 1 ? 'entry' : 'entries' }}, last
            touched {{ day(shelf.touchedAt) }}</small
          >
        </p>
        <form v-if="session.isDesigner" class="new" novalidate @submit.prevent="make">
          <label for="new-job">New job</label>
          <input
            id="new-job"
            v-model="name"
            class="form-control"
            maxlength="200"
            placeholder="Name of the vehicle or customer"
            :aria-invalid="problem !== null"
          />
          <BButton type="submit" variant="primary" :disabled="busy"><Icon name="plus" /> Make it</BButton>
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        </form>
        <ImportJob v-if="session.isDesigner" :jobs="jobs ?? []" @done="load" />
      </section>
      <AccountCard />
    </main>
    <footer class="foot">
      <RouterLink class="soft" :to="{ name: 'notices' }">What others wrote</RouterLink>
    </footer>
  </div>
</template>

<style scoped>
.shelf {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  margin: 0.8rem 0 0;
}

.page {
  max-width: 1080px;
  margin: 0 auto;
  padding: 1.6rem 1rem;
}

header {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-bottom: 1.2rem;
}

header p {
  margin: 0;
  color: var(--tv-soft);
}

main {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 0.8rem;
  align-items: start;
}

.jobs {
  list-style: none;
  padding: 0;
  margin: 0;
}

.jobs li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.6rem;
  align-items: center;
  padding: 0.7rem 0;
  border-bottom: 1px solid var(--tv-line);
}

.name {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.6rem;
  align-items: baseline;
  margin: 0;
  font-size: 1.05rem;
  font-weight: 600;
}

.name small {
  font-weight: 400;
  font-size: 0.8rem;
}

.new {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr) auto;
  gap: 0.5rem;
  align-items: center;
  margin-top: 1rem;
}

.new .problem {
  grid-column: 2 / -1;
  margin: 0;
}

.problem {
  color: var(--tv-stop);
}

.demo {
  margin-left: 0.5rem;
  font-size: 0.78rem;
  color: var(--tv-soft);
  border: 1px solid currentcolor;
  border-radius: 2px;
  padding: 0 0.25rem;
}

.foot {
  margin-top: 0.8rem;
  font-size: 0.82rem;
}

@media (max-width: 820px) {
  main {
    grid-template-columns: 1fr;
  }
}
</style>
