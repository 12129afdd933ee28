<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { onMounted, reactive, ref } from 'vue';
import { api, ApiError } from '../api/client';
import SecretField from '../parts/SecretField.vue';

/** A code from an authenticator beside the password: set up, taken away; recovery codes shown once. */
interface State {
  on: boolean;
  recoveryLeft: number;
}
const state = ref<State | null>(null);
const step = ref<'closed' | 'password' | 'code' | 'recovery' | 'ending'>('closed');
const form = reactive({ current: '', code: '' });
const begun = ref<{ secret: string; picture: string } | null>(null);
const codes = ref<string[]>([]);
const problems = ref<Record<string, string>>({});
const busy = ref(false);

async function attempt(act: () => Promise<void>): Promise<void> {
  busy.value = true;
  problems.value = {};
  try {
    await act();
  } catch (error) {
    const issues = error instanceof ApiError ? error.issues : [];
    problems.value =
      issues.length > 0
        ? Object.fromEntries(issues.map(({ path, message }) => [path, message]))
        : { general: error instanceof Error ? error.message : 'it did not work' };
  } finally {
    busy.value = false;
  }
}

const load = () => attempt(async () => void (state.value = await api.get<State>('/second')));

const begin = () =>
  attempt(async () => {
    const { secret, uri } = await api.post<{ secret: string; uri: string }>('/second', {
      current: form.current,
    });
    const { default: QrCode } = await import('qrcode');
    begun.value = { secret, picture: await QrCode.toDataURL(uri, { margin: 1, width: 200 }) };
    form.current = '';
    form.code = '';
    step.value = 'code';
  });

const confirm = () =>
  attempt(async () => {
    codes.value = (await api.post<{ codes: string[] }>('/second/confirm', { code: form.code })).codes;
    begun.value = null;
    form.code = '';
    step.value = 'recovery';
    state.value = await api.get<State>('/second');
  });

const end = () =>
  attempt(async () => {
    state.value = await api.post<State>('/second/end', { current: form.current, code: form.code });
    close();
  });

function close(): void {
  Object.assign(form, { current: '', code: '' });
  begun.value = null;
  codes.value = [];
  problems.value = {};
  step.value = 'closed';
}

onMounted(load);
</script>

<template>
  <div class="second" data-second>
    <p v-if="state">
      <b>Second factor:</b>
      {{ state.on ? `on; ${state.recoveryLeft} recovery codes left.` : 'off.' }}
      <BButton
        v-if="step === 'closed'"
        size="sm"
        variant="light"
        @click="step = state.on ? 'ending' : 'password'"
        >{{ state.on ? 'Take it away …' : 'Set it up …' }}</BButton
      >
    </p>
    <form v-if="step === 'password'" @submit.prevent="begin">
      <p class="soft">
        An authenticator on your phone then gives a code of six digits, asked for beside the password when you
        sign in and when you confirm a gate as a witness.
      </p>
      <SecretField
        v-model="form.current"
        kind="password"
        label="Your password"
        :problem="problems.current && `This ${problems.current}.`"
      />
      <div class="buttons">
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Go on</BButton>
        <BButton size="sm" variant="light" @click="close">Leave it</BButton>
      </div>
    </form>
    <form v-else-if="step === 'code' && begun" @submit.prevent="confirm">
      <p>Scan this with the authenticator, or type the key:</p>
      <img :src="begun.picture" width="200" height="200" alt="Code for the authenticator" />
      <code class="key">{{ begun.secret.replace(/(.{4})/g, '$1 ').trim() }}</code>
      <SecretField
        v-model="form.code"
        kind="code"
        label="The code it shows now"
        :problem="problems.code && `The code ${problems.code}.`"
      />
      <div class="buttons">
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Switch it on</BButton>
        <BButton size="sm" variant="light" @click="close">Leave it</BButton>
      </div>
    </form>
    <div v-else-if="step === 'recovery'">
      <p>
        <b>It is on.</b> Should the phone be lost, each of these codes signs you in once. They are shown this
        once: write them down and keep them away from the phone.
      </p>
      <ul class="codes">
        <li v-for="one in codes" :key="one">
          <code>{{ one }}</code>
        </li>
      </ul>
      <BButton size="sm" variant="primary" @click="close">I have written them down</BButton>
    </div>
    <form v-else-if="step === 'ending'" @submit.prevent="end">
      <SecretField
        v-model="form.current"
        kind="password"
        label="Your password"
        :problem="problems.current && `This ${problems.current}.`"
      />
      <SecretField
        v-model="form.code"
        kind="any-code"
        label="A code, or a recovery code"
        :problem="problems.code && `The code ${problems.code}.`"
      />
      <div class="buttons">
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Take it away</BButton>
        <BButton size="sm" variant="light" @click="close">Leave it</BButton>
      </div>
    </form>
    <p v-if="problems.general" class="problem" role="alert">{{ problems.general }}</p>
  </div>
</template>

<style scoped>
.second {
  margin-top: 0.8rem;
  padding-top: 0.6rem;
  border-top: 1px solid var(--tv-line);
}

form {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
  margin-top: 0.4rem;
}

p {
  margin: 0.2rem 0;
}

.buttons {
  display: flex;
  gap: 0.35rem;
}

.key {
  overflow-wrap: anywhere;
}

.codes {
  columns: 2;
  margin: 0.4rem 0;
  padding-left: 1.1rem;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.88rem;
}
</style>
