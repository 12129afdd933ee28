<script setup lang="ts">
import type { ProcedureStep } from '@torvek/core/commissioning';
import {
  gateHoldsH,
  mayWitness,
  openingOf,
  soloMeasures,
  type Person,
  type SoloMeasure,
} from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { useNow } from '@vueuse/core';
import { computed, onMounted, reactive, ref, watch } from 'vue';
import { api, ApiError, newId } from '../../api/client';
import SecretField from '../../parts/SecretField.vue';
import { timeOf } from '../../parts/dates';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';

/** Before anything behind an HV gate is recorded: the second person's word, or a solo concession. */
const props = defineProps<{ gate: ProcedureStep['gate']; title: string }>();
const emit = defineEmits<{ open: [isOpen: boolean] }>();
const job = useJob();
const session = useSession();
const now = useNow({ interval: 30_000 });
const people = ref<Person[]>([]);
const alone = ref(false);
const busy = ref(false);
const form = reactive({ name: '', password: '', code: '', how: '' });
const codeNeeded = ref(false);
const replacedBy = ref<SoloMeasure[]>([]);
const problems = ref<Record<string, string>>({});
let entryId = newId('entry');

const opening = computed(() =>
  openingOf(props.gate, session.person?.name ?? '', job.entries, now.value.toISOString()),
);
const until = computed(() => {
  if (opening.value === null) return '';
  const end = new Date(Date.parse(opening.value.recordedAt) + gateHoldsH * 3_600_000);
  return timeOf(end, job.design.settings.zone ?? 'UTC');
});
const witnesses = computed(() =>
  people.value.filter(({ id, active, roles }) => active && id !== session.person?.id && mayWitness(roles)),
);
watch(opening, (one) => emit('open', one !== null), { immediate: true });

async function confirm(): Promise<void> {
  const given: Record<string, string> = {};
  if (!alone.value && form.name === '') given['witness.name'] = 'is missing';
  if (!alone.value && form.password === '') given['witness.password'] = 'is missing';
  if (alone.value && replacedBy.value.length === 0)
    given['alone.replacedBy'] = 'is missing: say what replaces the witness';
  if (alone.value && form.how.trim().length < 10) given['alone.how'] = 'is missing: say it in a sentence';
  problems.value = given;
  if (Object.keys(given).length > 0) return;
  busy.value = true;
  try {
    await job.record({
      id: entryId,
      kind: 'gate',
      gate: props.gate,
      ...(alone.value
        ? { alone: { replacedBy: replacedBy.value, how: form.how.trim() } }
        : {
            witness: {
              name: form.name,
              password: form.password,
              ...(form.code !== '' && { code: form.code }),
            },
          }),
    });
    entryId = newId('entry');
  } catch (error) {
    const issues = error instanceof ApiError ? error.issues : [];
    problems.value =
      issues.length > 0
        ? Object.fromEntries(issues.map(({ path, message }) => [path, message]))
        : { general: error instanceof Error ? error.message : 'not recorded' };
    if (problems.value['witness.code'] !== undefined) codeNeeded.value = true;
  } finally {
    form.code = '';
    if (problems.value['witness.code'] === undefined) form.password = '';
    busy.value = false;
  }
}

onMounted(async () => {
  people.value = await api.get<Person[]>('/people').catch(() => []);
});
</script>

<template>
  <div v-if="opening" class="confirmed" role="status" data-gate-open>
    <template v-if="opening.witness">
      <b>Second person: {{ opening.witness }}</b
      >, confirmed in entry {{ opening.seq }}; holds until {{ until }}.<template
        v-if="opening.body.witnessPassword"
      >
        Their password was set by {{ opening.body.witnessPassword.by }}, not by themselves.</template
      >
    </template>
    <template v-else>
      <b>Alone, with a solo concession</b> (entry {{ opening.seq }}:
      {{ opening.body.alone?.replacedBy.join(', ') }}); holds until {{ until }}.
    </template>
  </div>
  <form v-else class="gate" novalidate @submit.prevent="confirm">
    <h3>A second person confirms this gate</h3>
    <p>
      Behind “{{ title }}” high voltage is at hand. Another person, who knows the service disconnect and
      stays, confirms with their own password; you stay signed in.
    </p>
    <div v-if="!alone" class="fields">
      <label
        >Second person<select
          v-model="form.name"
          class="form-select"
          :aria-invalid="problems['witness.name'] !== undefined"
        >
          <option value="" disabled>choose</option>
          <option v-for="one in witnesses" :key="one.id" :value="one.name">{{ one.name }}</option>
        </select></label
      >
      <SecretField
        v-model="form.password"
        kind="password"
        of-other
        label="Their password"
        :problem="problems['witness.password'] && `The password ${problems['witness.password']}.`"
      />
      <SecretField
        v-if="codeNeeded"
        v-model="form.code"
        kind="any-code"
        of-other
        label="Their code"
        :problem="problems['witness.code'] && `The code ${problems['witness.code']}.`"
      />
      <p v-if="problems['witness.name']" class="problem" role="alert">
        The second person {{ problems['witness.name'] }}.
      </p>
      <p v-if="witnesses.length === 0" class="soft">
        Nobody else here has the role witness or owner; the owner can add someone.
      </p>
    </div>
    <div v-else class="alone">
      <p>
        Nobody should work alone here. If you do, the record and the book say so for ever, with what replaces
        the second person:
      </p>
      <fieldset>
        <legend class="visually-hidden">What replaces the witness</legend>
        <label v-for="one in soloMeasures" :key="one"
          ><input v-model="replacedBy" type="checkbox" class="form-check-input" :value="one" />
          {{ one }}</label
        >
      </fieldset>
      <p v-if="problems['alone.replacedBy']" class="problem" role="alert">
        What replaces the witness {{ problems['alone.replacedBy'] }}.
      </p>
      <label
        >How exactly<textarea
          v-model="form.how"
          class="form-control"
          rows="2"
          maxlength="2000"
          :aria-invalid="problems['alone.how'] !== undefined"
        ></textarea>
      </label>
      <p v-if="problems['alone.how']" class="problem" role="alert">How {{ problems['alone.how'] }}.</p>
    </div>
    <p v-if="problems.general" class="problem" role="alert">{{ problems.general }}</p>
    <div class="buttons">
      <BButton type="submit" variant="primary" :disabled="busy">{{
        alone ? 'Record the solo concession' : 'Confirm and open the gate'
      }}</BButton>
      <BButton variant="light" @click="alone = !alone">{{
        alone ? 'There is a second person' : 'I work alone …'
      }}</BButton>
    </div>
  </form>
</template>

<style scoped>
.confirmed {
  padding: 0.35rem 0.8rem;
  border-left: 4px solid var(--tv-pass);
  background: var(--tv-recess);
  font-size: 0.92rem;
  margin: 0.5rem 0;
}

.gate {
  margin: 0.6rem 0;
  padding: 0.7rem 0.9rem;
  border: 2px solid var(--tv-hv-fill);
  border-radius: 3px;
  max-width: 42rem;
}

.gate p {
  margin: 0.3rem 0;
  font-size: 0.95rem;
}

.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 0.8rem;
}

.fields p {
  grid-column: 1 / -1;
}

.fields :deep(label),
.alone label {
  font-size: 0.92rem;
}

.fields select,
.fields :deep(input) {
  min-height: 44px;
}

fieldset {
  display: flex;
  gap: 1.1rem;
  flex-wrap: wrap;
}

.alone > label {
  display: block;
}

.buttons {
  display: flex;
  gap: 0.5rem;
  margin-top: 0.6rem;
}

.buttons :deep(.btn) {
  min-height: 44px;
}

.problem {
  color: var(--tv-stop);
}
</style>
