<script setup lang="ts">
import { shortestPassword } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { reactive, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { ApiError } from '../api/client';
import Icon from '../parts/Icon.vue';
import SecretField from '../parts/SecretField.vue';
import SecondFactor from './SecondFactor.vue';
import UnitChoice from './UnitChoice.vue';
import { useSession } from '../stores/session';

/** Who is signed in, what they may do, and their own account. */
const session = useSession();
const changing = ref(false);
const form = reactive({ current: '', next: '', code: '' });
const codeNeeded = ref(false);
const problem = ref<string | null>(null);
const done = ref(false);

async function changePassword(): Promise<void> {
  problem.value =
    form.next.length < shortestPassword
      ? `The new password must have at least ${shortestPassword} characters.`
      : null;
  if (problem.value !== null) return;
  try {
    await session.changePassword(form.current, form.next, form.code);
    form.current = '';
    form.code = '';
    codeNeeded.value = false;
    form.next = '';
    changing.value = false;
    done.value = true;
  } catch (error) {
    codeNeeded.value ||= error instanceof ApiError && error.issues.some(({ path }) => path === 'code');
    problem.value = error instanceof Error ? `Not changed: ${error.message}.` : 'Not changed.';
  }
}

async function leave(everywhere: boolean): Promise<void> {
  problem.value = null;
  await session.signOut(everywhere).catch((error: unknown) => {
    problem.value = error instanceof Error ? error.message : 'not signed out';
  });
}
</script>

<template>
  <section v-if="session.person" class="sheet-card account" aria-label="Your account">
    <div class="who">
      <Icon name="person" :size="26" />
      <div>
        <b>{{ session.person.name }}</b>
        <p class="soft">{{ session.person.roles.join(', ') }}</p>
      </div>
    </div>
    <p class="soft">Every change and entry carries this name.</p>
    <div class="buttons">
      <RouterLink class="btn btn-quiet btn-sm" :to="{ name: 'library' }">Parts</RouterLink>
      <RouterLink class="btn btn-quiet btn-sm" :to="{ name: 'shop' }">People and instruments</RouterLink>
      <BButton size="sm" variant="light" @click="leave(false)">Sign out</BButton>
      <BButton size="sm" variant="light" @click="leave(true)">Sign out everywhere</BButton>
      <BButton
        v-if="!session.person.demo"
        size="sm"
        variant="light"
        :aria-expanded="changing"
        @click="changing = !changing"
        >Change password</BButton
      >
    </div>
    <form v-if="changing" @submit.prevent="changePassword">
      <SecretField v-model="form.current" kind="password" label="Password now" />
      <SecretField v-model="form.next" kind="new-password" label="New password" />
      <SecretField v-if="codeNeeded" v-model="form.code" kind="any-code" label="Code of your second factor" />
      <BButton type="submit" size="sm" variant="primary">Change it, and sign out elsewhere</BButton>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="done" role="status">The password is changed; other sessions are signed out.</p>
    <SecondFactor v-if="!session.person.demo" />
    <UnitChoice />
    <p class="word soft">
      High voltage kills. Torvek says which checks passed, which did not and which were not made; it never
      says that something is without danger. The component makers’ documents, the rules of your place and
      licensed people decide.
    </p>
  </section>
</template>

<style scoped>
.who {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}

.account p {
  margin: 0.35rem 0 0;
  font-size: 0.88rem;
}

.who p {
  margin: 0;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  margin-top: 0.7rem;
}

form {
  display: grid;
  gap: 0.4rem;
  margin-top: 0.7rem;
}

.account .word {
  margin-top: 1rem;
  padding-top: 0.7rem;
  border-top: 1px solid var(--tv-line);
  font-size: 0.82rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
