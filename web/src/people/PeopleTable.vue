<script setup lang="ts">
import { roleMeaning, roles, type Person, type Role } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { onMounted, reactive, ref } from 'vue';
import { api, ApiError, newId } from '../api/client';
import { useSession } from '../stores/session';

/** The people of the shop, their roles, and for the owner adding and changing them. */
const session = useSession();
type Listed = Person & { second: boolean };
const people = ref<Listed[] | null>(null);
const rules = ref({ witnessesNeedSecond: false, labelAddress: '' });
const address = ref<string | null>(null);
const failure = ref<string | null>(null);
const problems = ref<Record<string, string>>({});
const form = reactive({ name: '', password: '', roles: ['technician'] as Role[] });
const said = ref<string | null>(null);

/** With the fields that are wrong, where the server names them. */
const wordsOf = (error: unknown) =>
  error instanceof ApiError && error.issues.length > 0
    ? error.issues.map((one) => one.message).join('; ')
    : message(error);
const message = (error: unknown) => (error instanceof Error ? error.message : 'it did not work');

const marksOf = ({ id, demo }: Person) =>
  [demo ? 'demo' : '', id === session.person?.id ? 'you' : ''].filter((mark) => mark !== '').join(', ');

/** @param before what went wrong before: it stays to be read */
async function load(before: string | null = null): Promise<void> {
  failure.value = before;
  try {
    people.value = await api.get<Listed[]>('/people');
    rules.value = await api.get<typeof rules.value>('/rules');
  } catch (error) {
    failure.value = message(error);
  }
}

async function toggle(person: Person, role: Role): Promise<void> {
  const held = person.roles.includes(role)
    ? person.roles.filter((one) => one !== role)
    : [...person.roles, role];
  await change(person, { roles: held, active: person.active });
}

async function change(person: Person, to: { roles: Role[]; active: boolean }): Promise<void> {
  failure.value = null;
  try {
    await api.patch(`/people/${person.id}`, to);
    if (person.id === session.person?.id) await session.load();
  } catch (error) {
    return load(`${person.name}: ${message(error)}`);
  }
  await load();
}

/** What a phone in the workshop reaches; what a label says stays on it for years. */
const here = location.origin;
async function setAddress(): Promise<void> {
  await act('/rules', { labelAddress: address.value?.trim() ?? '' });
  if (failure.value === null) address.value = null;
}

async function act(path: string, body: object): Promise<void> {
  failure.value = null;
  try {
    await api.post(path, body);
  } catch (error) {
    return load(wordsOf(error));
  }
  await load();
}

async function add(): Promise<void> {
  problems.value = {};
  said.value = null;
  try {
    const made = await api.post<Person>('/people', {
      id: newId('person'),
      name: form.name,
      roles: form.roles,
      password: form.password,
    });
    said.value = `${made.name} can sign in now.`;
    form.name = '';
    form.password = '';
    await load();
  } catch (error) {
    const issues = error instanceof ApiError ? error.issues : [];
    problems.value = Object.fromEntries(issues.map(({ path, message: what }) => [path.split('.')[0], what]));
    if (issues.length === 0) failure.value = message(error);
  }
}

onMounted(load);
</script>

<template>
  <section class="sheet-card" aria-labelledby="people-title">
    <div class="card-head">
      <h2 id="people-title">People</h2>
      <span class="hint">a name is for good: the record carries it</span>
    </div>
    <p v-if="failure" class="problem" role="alert">{{ failure }}</p>
    <p v-if="people === null && !failure" role="status">Reading …</p>
    <table v-if="people" class="grid-table">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th v-for="role in roles" :key="role" scope="col" :title="roleMeaning[role]">{{ role }}</th>
          <th scope="col">may sign in</th>
          <th scope="col">second factor</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in people" :key="person.id" :class="{ gone: !person.active }">
          <th scope="row">
            {{ person.name }}
            <span class="soft">{{ marksOf(person) }}</span>
          </th>
          <td v-for="role in roles" :key="role">
            <input
              v-if="session.may('owner')"
              type="checkbox"
              class="form-check-input"
              :checked="person.roles.includes(role)"
              :aria-label="`${person.name}: ${role}`"
              @change="toggle(person, role)"
            />
            <span v-else>{{ person.roles.includes(role) ? '●' : '' }}</span>
          </td>
          <td>
            <input
              v-if="session.may('owner')"
              type="checkbox"
              class="form-check-input"
              :checked="person.active"
              :aria-label="`${person.name} may sign in`"
              @change="change(person, { roles: person.roles, active: !person.active })"
            />
            <span v-else>{{ person.active ? 'yes' : 'no' }}</span>
          </td>
          <td>
            {{ person.second ? 'on' : '–' }}
            <BButton
              v-if="person.second && session.may('owner') && person.id !== session.person?.id"
              size="sm"
              variant="light"
              :aria-label="`Take ${person.name}’s second factor away`"
              @click="act(`/people/${person.id}/second/end`, {})"
              >Take away</BButton
            >
          </td>
        </tr>
      </tbody>
    </table>
    <label v-if="session.may('owner')" class="rule"
      ><input
        type="checkbox"
        class="form-check-input"
        :checked="rules.witnessesNeedSecond"
        @change="act('/rules', { witnessesNeedSecond: !rules.witnessesNeedSecond })"
      />
      Witnesses confirm HV gates with a second factor only</label
    >
    <form v-if="session.may('owner')" class="address" novalidate @submit.prevent="setAddress">
      <label for="label-address">Codes on labels lead to</label>
      <input
        id="label-address"
        class="form-control"
        maxlength="200"
        :value="address ?? rules.labelAddress"
        :placeholder="`the page’s own address, now ${here}`"
        @input="address = ($event.target as HTMLInputElement).value"
      />
      <BButton
        type="submit"
        size="sm"
        variant="light"
        :disabled="address === null || address === rules.labelAddress"
        >Set it</BButton
      >
    </form>
    <dl class="meaning">
      <template v-for="role in roles" :key="role">
        <dt>{{ role }}</dt>
        <dd>{{ roleMeaning[role] }}</dd>
      </template>
    </dl>
    <form v-if="session.may('owner')" class="add" novalidate @submit.prevent="add">
      <h3>Add a person</h3>
      <label
        >Name<input
          v-model="form.name"
          class="form-control"
          maxlength="80"
          autocomplete="off"
          :aria-invalid="problems.name !== undefined"
        /><span v-if="problems.name" class="problem" role="alert">The name {{ problems.name }}.</span></label
      >
      <label
        >First password<input
          v-model="form.password"
          class="form-control"
          maxlength="200"
          autocomplete="off"
          :aria-invalid="problems.password !== undefined"
        /><span v-if="problems.password" class="problem" role="alert"
          >The password {{ problems.password }}.</span
        ></label
      >
      <fieldset>
        <legend>Roles</legend>
        <label v-for="role in roles" :key="role" class="role"
          ><input v-model="form.roles" type="checkbox" class="form-check-input" :value="role" />
          {{ role }}</label
        >
        <span v-if="problems.roles" class="problem" role="alert">Roles {{ problems.roles }}.</span>
      </fieldset>
      <BButton type="submit" variant="primary">Add</BButton>
      <p v-if="said" role="status">{{ said }}</p>
    </form>
  </section>
</template>

<style scoped>
.address {
  display: grid;
  grid-template-columns: auto minmax(12rem, 26rem) auto;
  gap: 0.6rem;
  align-items: center;
  justify-content: start;
  margin: 0.6rem 0;
}

.grid-table td,
.grid-table tbody th {
  padding: 0.4rem;
  color: inherit;
}

.gone th {
  text-decoration: line-through;
}

.meaning {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.1rem 0.8rem;
  margin: 0.8rem 0 0;
  font-size: 0.86rem;
  color: var(--tv-soft);
}

.meaning dd {
  margin: 0;
}

.add {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto auto;
  gap: 0.4rem 0.8rem;
  align-items: end;
  margin-top: 1rem;
  padding-top: 0.8rem;
  border-top: 1px solid var(--tv-line);
}

.add h3,
.add p {
  grid-column: 1 / -1;
  margin: 0;
}

legend {
  font-size: 0.9rem;
  margin: 0;
  float: none;
}

.rule {
  margin-top: 0.6rem;
}

.role {
  margin-right: 0.7rem;
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
