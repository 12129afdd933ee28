<script setup lang="ts">
import { suspects } from '@torvek/core/commissioning';
import type { Deviation, StepStatus } from '@torvek/core/design';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import SubjectPicker from './SubjectPicker.vue';

/** A failed result: what was seen, what the design makes suspect, what was tried in order, what cured it, re-tests. */
const props = defineProps<{ deviation: Deviation; status: StepStatus }>();
const job = useJob();
const session = useSession();
const writing = ref(false);
const tried = ref('');
const cause = ref('');
const cured = ref(false);
const subjects = ref<string[]>([]);
const problem = ref<string | null>(null);
const busy = ref(false);
let entryId = newId('entry');

const ranked = computed(() =>
  suspects(props.status.step, job.design, job.evaluation, props.deviation.result.body.measured),
);
const stateWord = { open: 'open', 're-test': 'cured, re-test due', closed: 'closed' };

/** Takes a suspected cause up as the next thing to try. */
function take(name: string, check: string): void {
  cause.value = name;
  if (tried.value === '') tried.value = check;
  writing.value = true;
}

async function record(): Promise<void> {
  problem.value = tried.value.trim() === '' ? 'What was tried is missing.' : null;
  if (problem.value !== null) return;
  busy.value = true;
  try {
    await job.record(
      {
        id: entryId,
        kind: 'deviation',
        of: props.deviation.result.seq,
        tried: tried.value.trim(),
        cured: cured.value,
        subjects: subjects.value,
        ...(cause.value !== '' && { cause: cause.value }),
      },
      `Tried: ${tried.value.trim()}`,
    );
    entryId = newId('entry');
    tried.value = '';
    cause.value = '';
    cured.value = false;
    subjects.value = [];
    writing.value = false;
  } catch (error) {
    problem.value = error instanceof Error ? `Not recorded: ${error.message}.` : 'Not recorded.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="deviation" :class="deviation.state" aria-label="Deviation" data-deviation>
    <h3>
      Deviation of entry {{ deviation.result.seq }} <span>{{ stateWord[deviation.state] }}</span>
    </h3>
    <p>Seen: {{ deviation.result.body.reasons.join('; ') }}.</p>
    <template v-if="deviation.state === 'open' && ranked.length > 0">
      <h4>Suspected, ranked from the design</h4>
      <ol class="suspects">
        <li v-for="one in ranked" :key="one.cause">
          <b>{{ one.cause }}</b>
          <span class="soft">
            {{ one.because
            }}<template v-if="one.missFraction !== null">
              ·
              {{
                one.missFraction < 0.005 ? 'fits' : `off by ${formatNumber(one.missFraction * 100, 2)} %`
              }}</template
            ></span
          >
          <span class="check"
            >{{ one.check }}
            <BButton
              v-if="session.may('technician')"
              size="sm"
              variant="light"
              @click="take(one.cause, one.check)"
              >I tried this</BButton
            ></span
          >
        </li>
      </ol>
    </template>
    <template v-if="deviation.tried.length > 0">
      <h4>Tried, in order</h4>
      <ol class="tried">
        <li v-for="one in deviation.tried" :key="one.seq">
          {{ one.body.tried }}
          <b v-if="one.body.cured">cured it</b>
          <span class="soft">
            {{ one.body.cause ? `suspected: ${one.body.cause}; ` : '' }}entry {{ one.seq }},
            {{ one.by }}</span
          >
        </li>
      </ol>
    </template>
    <p v-if="deviation.retests.length > 0">
      Re-tests due: {{ deviation.retests.map(({ title }) => title).join(', ') }}.
    </p>
    <p v-if="deviation.passedBy">Passed again by entry {{ deviation.passedBy.seq }}.</p>
    <form v-if="writing" class="write" @submit.prevent="record">
      <label
        >What was tried<textarea v-model="tried" class="form-control" rows="2" maxlength="2000"></textarea>
      </label>
      <label
        >Suspected cause<select v-model="cause" class="form-select">
          <option value="">none in particular</option>
          <option v-for="one in ranked" :key="one.cause" :value="one.cause">{{ one.cause }}</option>
        </select></label
      >
      <SubjectPicker v-model="subjects" label="What was touched: its results become due again" />
      <label class="tick"
        ><input v-model="cured" type="checkbox" class="form-check-input" /> It cured what was seen</label
      >
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="buttons">
        <BButton type="submit" variant="primary" :disabled="busy">Record</BButton>
        <BButton variant="light" @click="writing = false">Leave it</BButton>
      </div>
    </form>
    <BButton
      v-else-if="deviation.state !== 'closed' && session.may('technician')"
      size="sm"
      variant="light"
      @click="writing = true"
      >Record what was tried …</BButton
    >
  </section>
</template>

<style scoped>
.deviation {
  margin: 0.8rem 0;
  padding: 0.5rem 0.9rem;
  border-left: 4px solid var(--tv-stop);
  background: var(--tv-recess);
  font-size: 0.95rem;
}

.deviation.re-test {
  border-left-color: var(--tv-mend);
}

.deviation.closed {
  border-left-color: var(--tv-pass);
}

h3 span {
  font-weight: 400;
  color: var(--tv-soft);
}

h4 {
  font-size: 0.88rem;
  font-weight: 600;
  margin: 0.5rem 0 0.2rem;
}

.deviation p {
  margin: 0.2rem 0;
}

ol {
  margin: 0;
  padding-left: 1.3rem;
}

.suspects li {
  padding: 0.2rem 0;
}

.suspects span,
.suspects b {
  display: block;
}

.check {
  font-size: 0.9rem;
}

.write {
  display: grid;
  gap: 0.4rem;
  margin-top: 0.5rem;
}

.write label {
  font-size: 0.9rem;
}

.buttons {
  display: flex;
  gap: 0.5rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
