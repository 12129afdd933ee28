<script setup lang="ts">
import { instrumentKinds, instrumentNames, type InstrumentKind } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { onMounted, reactive, ref } from 'vue';
import { api, ApiError, newId } from '../api/client';
import { dayOf } from '../parts/dates';
import DayField from '../parts/DayField.vue';
import { useInstruments, type RegisteredInstrument } from '../stores/instruments';
import { useSession } from '../stores/session';

/** The register of instruments with serial and calibration; what is overdue says so. */
const session = useSession();
const register = useInstruments();
const problems = ref<Record<string, string>>({});
const failure = ref<string | null>(null);
const form = reactive({ kind: 'meter' as InstrumentKind, name: '', serial: '', calibrationDue: '' });

async function attempt(act: () => Promise<unknown>): Promise<boolean> {
  problems.value = {};
  failure.value = null;
  try {
    await act();
    await register.load();
    return true;
  } catch (error) {
    const issues = error instanceof ApiError ? error.issues : [];
    problems.value = Object.fromEntries(issues.map(({ path, message }) => [path, message]));
    if (issues.length === 0) failure.value = error instanceof Error ? error.message : 'it did not work';
    return false;
  }
}

async function add(): Promise<void> {
  const { kind, name, serial, calibrationDue } = form;
  const body = { id: newId('instrument'), kind, name, serial, calibrationDue: calibrationDue || null };
  if (await attempt(() => api.post('/instruments', body)))
    Object.assign(form, { name: '', serial: '', calibrationDue: '' });
}

const change = (one: RegisteredInstrument, to: Partial<RegisteredInstrument>) =>
  attempt(() =>
    api.patch(`/instruments/${one.id}`, {
      calibrationDue: one.calibrationDue,
      retired: one.retired,
      ...to,
    }),
  );

onMounted(() => void register.load());
</script>

<template>
  <section class="sheet-card" aria-labelledby="instruments-title">
    <div class="card-head">
      <h2 id="instruments-title">Instruments</h2>
      <span class="hint">a calibration holds through its day; an entry by an overdue one is marked</span>
    </div>
    <p v-if="failure ?? register.failure" class="problem" role="alert">{{ failure ?? register.failure }}</p>
    <p v-if="register.all.length === 0" class="soft">
      No instrument yet. Measurements can name one by hand; the record then says that it is not registered.
    </p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th scope="col">Instrument</th>
          <th scope="col">Kind</th>
          <th scope="col">Serial</th>
          <th scope="col">Calibration through</th>
          <th scope="col">State</th>
          <th scope="col"><span class="visually-hidden">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in register.all" :key="one.id" :class="{ retired: one.retired }">
          <th scope="row">{{ one.name }}</th>
          <td>{{ instrumentNames[one.kind] }}</td>
          <td>{{ one.serial }}</td>
          <td>
            <DayField
              v-if="session.isDesigner"
              :model-value="one.calibrationDue"
              :label="`${one.name}: calibration through`"
              @update:model-value="change(one, { calibrationDue: $event })"
            />
            <span v-else>{{
              one.calibrationDue === null ? 'none kept' : dayOf(one.calibrationDue, 'UTC')
            }}</span>
          </td>
          <td>
            <span v-if="one.retired" class="soft">retired</span>
            <b v-else-if="register.isOverdue(one)" class="overdue">◆ overdue</b>
            <span v-else>{{ one.calibrationDue === null ? 'no calibration kept' : 'in date' }}</span>
          </td>
          <td class="num">
            <BButton
              v-if="session.isDesigner"
              size="sm"
              variant="light"
              @click="change(one, { retired: !one.retired })"
              >{{ one.retired ? 'Bring back' : 'Retire' }}</BButton
            >
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="session.isDesigner" class="add" novalidate @submit.prevent="add">
      <h3>Add an instrument</h3>
      <label
        >Kind<select v-model="form.kind" class="form-select">
          <option v-for="kind in instrumentKinds" :key="kind" :value="kind">
            {{ instrumentNames[kind] }}
          </option>
        </select></label
      >
      <label
        >Make and number<input
          v-model="form.name"
          class="form-control"
          maxlength="120"
          :aria-invalid="problems.name !== undefined"
        /><span v-if="problems.name" class="problem" role="alert">{{ problems.name }}</span></label
      >
      <label
        >Serial<input
          v-model="form.serial"
          class="form-control"
          maxlength="80"
          :aria-invalid="problems.serial !== undefined"
        /><span v-if="problems.serial" class="problem" role="alert">{{ problems.serial }}</span></label
      >
      <label
        >Calibration through<DayField
          v-model="form.calibrationDue"
          label="Calibration through"
          :invalid="problems.calibrationDue !== undefined"
        /><span v-if="problems.calibrationDue" class="problem" role="alert">{{
          problems.calibrationDue
        }}</span></label
      >
      <BButton type="submit" variant="primary">Add</BButton>
    </form>
  </section>
</template>

<style scoped>
.grid-table td,
.grid-table tbody th {
  padding: 0.4rem;
  color: inherit;
}

.retired th {
  text-decoration: line-through;
}

.due {
  max-width: 10.5rem;
}

.overdue {
  color: var(--tv-mend);
}

.add {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr) 10rem 11rem auto;
  gap: 0.4rem 0.8rem;
  align-items: end;
  margin-top: 1rem;
  padding-top: 0.8rem;
  border-top: 1px solid var(--tv-line);
}

.add h3 {
  grid-column: 1 / -1;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.88rem;
}

@media (max-width: 900px) {
  .add {
    grid-template-columns: 1fr;
  }
}
</style>
