<script setup lang="ts">
import { shortestPassword } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { ApiError, Unreachable } from '../api/client';
import Icon from '../parts/Icon.vue';
import SecretField from '../parts/SecretField.vue';
import { useSession } from '../stores/session';

/** Signing in; on the first start, the owner's account; in the demo, its people with one click. */
const session = useSession();
const router = useRouter();
const route = useRoute();
const name = ref('');
const password = ref('');
const again = ref('');
const code = ref('');
/** Asked for once the server says that this account has a second factor. */
const codeNeeded = ref(false);
const busy = ref(false);
const problems = ref<Record<string, string>>({});
const general = computed(() => problems.value.general);
const first = computed(() => session.needsOwner);
/** Only a path of this app: a link from elsewhere cannot lead away after signing in. */
const target = computed(() => {
  const to = String(route.query.to ?? '/');
  return to.startsWith('/') && !to.startsWith('//') ? to : '/';
});

async function attempt(act: () => Promise<void>): Promise<void> {
  busy.value = true;
  problems.value = {};
  try {
    await act();
    await router.replace(target.value);
  } catch (error) {
    const issues = error instanceof ApiError ? error.issues : [];
    problems.value =
      issues.length > 0
        ? Object.fromEntries(issues.map(({ path, message }) => [path, message]))
        : { general: error instanceof Error ? error.message : 'not signed in' };
    if (problems.value.code !== undefined) codeNeeded.value = true;
  } finally {
    busy.value = false;
  }
}

function submit(): void {
  const given: Record<string, string> = {};
  if (name.value.trim() === '') given.name = 'is missing';
  if (password.value === '') given.password = 'is missing';
  if (first.value && password.value.length < shortestPassword)
    given.password = `must have at least ${shortestPassword} characters`;
  if (first.value && password.value !== again.value) given.again = 'is not the same';
  problems.value = given;
  if (Object.keys(given).length > 0) return;
  void attempt(() =>
    first.value
      ? session.becomeOwner(name.value.trim(), password.value)
      : session.signIn(name.value, password.value, codeNeeded.value ? code.value : ''),
  );
}

async function load(): Promise<void> {
  problems.value = {};
  await session.load().catch((error: unknown) => {
    problems.value = { general: error instanceof Unreachable ? error.message : 'the server does not answer' };
  });
}

onMounted(() => {
  document.title = 'Sign in · Torvek';
  if (!session.known) void load();
});
</script>

<template>
  <main class="door">
    <div class="plate">
      <header>
        <img src="/icon.svg" alt="" width="40" height="40" />
        <div>
          <h1>Torvek</h1>
          <p>The high-voltage system of a vehicle made electric</p>
        </div>
      </header>
      <form novalidate @submit.prevent="submit">
        <h2>{{ first ? 'The owner of this shop' : 'Sign in' }}</h2>
        <p v-if="first" class="soft">
          The first account keeps the people, the instruments and the backups. Others are added by it.
        </p>
        <div class="field">
          <label for="name">Name</label>
          <input
            id="name"
            v-model="name"
            class="form-control"
            autocomplete="username"
            maxlength="80"
            :aria-invalid="problems.name !== undefined"
            autofocus
          />
          <p v-if="problems.name" class="problem" role="alert">The name {{ problems.name }}.</p>
        </div>
        <SecretField
          v-model="password"
          class="field"
          :kind="first ? 'new-password' : 'password'"
          label="Password"
          :problem="problems.password && `The password ${problems.password}.`"
        />
        <div v-if="codeNeeded && !first" class="field">
          <SecretField
            v-model="code"
            kind="any-code"
            label="Code of your second factor"
            :problem="problems.code && `The code ${problems.code}.`"
          />
          <p class="soft">Six digits from your authenticator, or a recovery code.</p>
        </div>
        <SecretField
          v-if="first"
          v-model="again"
          class="field"
          kind="new-password"
          label="Once more"
          :problem="problems.again && `The second password ${problems.again}.`"
        />
        <p v-if="general" class="problem" role="alert">
          {{ general }}
          <BButton v-if="!session.known" size="sm" variant="light" @click="load">Try again</BButton>
        </p>
        <BButton type="submit" variant="primary" class="enter" :disabled="busy">{{
          first ? 'Make the account' : 'Sign in'
        }}</BButton>
      </form>
      <section v-if="session.demoPeople.length > 0" class="demo" aria-labelledby="demo-title">
        <h2 id="demo-title">The demo’s people</h2>
        <p class="soft">
          All invented. One click signs you in; as a witness each of them has the password
          <code>torvek-demo</code>.
        </p>
        <ul>
          <li v-for="person in session.demoPeople" :key="person.id">
            <button
              type="button"
              class="person"
              :disabled="busy"
              @click="attempt(() => session.signInAsDemo(person.id))"
            >
              <Icon name="person" :size="20" />
              <b>{{ person.name }}</b>
              <span class="soft">{{ person.roles.join(', ') }}</span>
            </button>
          </li>
        </ul>
      </section>
    </div>
    <p class="word">
      High voltage kills. Torvek says which checks passed, which did not and which were not made; it never
      says that something is without danger.
    </p>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 1rem;
  padding: 1.5rem;
}

.plate {
  display: grid;
  grid-template-columns: minmax(17rem, 22rem);
  background: var(--tv-sheet);
  border-radius: 4px;
  overflow: hidden;
}

.plate:has(.demo) {
  grid-template-columns: minmax(17rem, 22rem) minmax(17rem, 22rem);
}

header {
  grid-column: 1 / -1;
  display: flex;
  gap: 0.9rem;
  align-items: center;
  padding: 1rem 1.4rem;
  background: var(--tv-rail);
  color: var(--tv-rail-ink);
}

header p {
  margin: 0;
  font-size: 0.88rem;
}

form,
.demo {
  padding: 1.2rem 1.4rem 1.4rem;
}

.demo {
  background: var(--tv-recess);
}

.field {
  margin-top: 0.8rem;
}

.field :deep(label) {
  font-size: 0.9rem;
}

.field :deep(input) {
  min-height: 40px;
}

.enter {
  margin-top: 1.1rem;
  min-height: 44px;
  width: 100%;
}

.problem {
  color: var(--tv-stop);
  margin: 0.25rem 0 0;
  font-size: 0.9rem;
}

ul {
  list-style: none;
  margin: 0.6rem 0 0;
  padding: 0;
  display: grid;
  gap: 0.35rem;
}

.person {
  display: grid;
  grid-template-columns: auto 1fr;
  column-gap: 0.7rem;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 0.3rem 0.7rem;
  text-align: left;
  color: inherit;
  background: var(--tv-sheet);
  border: 1px solid var(--tv-line);
  border-radius: 3px;
}

.person:hover {
  background: var(--tv-pick);
}

.person :first-child {
  grid-row: 1 / 3;
}

.person .soft {
  font-size: 0.85rem;
}

.demo p {
  margin: 0.3rem 0 0;
  font-size: 0.88rem;
}

.word {
  max-width: 40rem;
  text-align: center;
  font-size: 0.85rem;
  color: var(--tv-soft);
  margin: 0;
}

@media (max-width: 700px) {
  .plate:has(.demo) {
    grid-template-columns: 1fr;
  }
}
</style>
