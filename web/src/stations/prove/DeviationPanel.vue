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
const found = ref('');
const times = ref('');
const tries = ref('');
const part = ref('');
const before = ref('');
const after = ref('');
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

/** Tries that were counted; undefined: none were; null: they cannot be. */
function readCounts(): { times: number; tries: number } | undefined | null {
  if (times.value.trim() === '' && tries.value.trim() === '') return undefined;
  const [came, of] = [Number(times.value || '0'), Number(tries.value)];
  return Number.isInteger(came) && Number.isInteger(of) && came >= 0 && of >= 1 && came <= of
    ? { times: came, tries: of }
    : null;
}

async function record(): Promise<void> {
  const counted = readCounts();
  problem.value =
    tried.value.trim() === ''
      ? 'What was tried is missing.'
      : counted === null
        ? 'How often it came, and in how many tries: whole numbers, the first at most the second.'
        : part.value.trim() !== '' && (before.value.trim() === '' || after.value.trim() === '')
          ? 'Of a part that was exchanged: what was seen before and after.'
          : null;
  if (problem.value !== null || counted === null) return;
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
        ...(found.value.trim() !== '' && { found: found.value.trim() }),
        ...(counted !== undefined && { came: counted }),
        ...(part.value.trim() !== '' && {
          swap: { part: part.value.trim(), before: before.value.trim(), after: after.value.trim() },
        }),
      },
      `Tried: ${tried.value.trim()}`,
    );
    entryId = newId('entry');
    tried.value = '';
    cause.value = '';
    for (const one of [found, times, tries, part, before, after]) one.value = '';
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
          <template v-if="one.body.came"
            >: came in <b>{{ one.body.came.times }} of {{ one.body.came.tries }}</b></template
          >
          <span v-if="one.body.found" class="more">Found: {{ one.body.found }}</span>
          <span v-if="one.body.swap" class="more"
            >{{ one.body.swap.part }} exchanged. Before: {{ one.body.swap.before }}. After:
            {{ one.body.swap.after }}.</span
          >
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
      <label
        >What was found<textarea
          v-model="found"
          class="form-control"
          rows="2"
          maxlength="2000"
          data-found
        ></textarea>
      </label>
      <div class="counts">
        <span>It comes and goes: came in</span>
        <input v-model="times" class="form-control" inputmode="numeric" aria-label="Came, times" />
        <span>of</span>
        <input v-model="tries" class="form-control" inputmode="numeric" aria-label="Of tries" />
        <span>tries</span>
      </div>
      <details>
        <summary>A part was exchanged</summary>
        <label>Which, by its serial<input v-model="part" class="form-control" maxlength="300" /></label>
        <label>Seen before<input v-model="before" class="form-control" maxlength="1000" /></label>
        <label>Seen after<input v-model="after" class="form-control" maxlength="1000" /></label>
      </details>
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

.more {
  display: block;
  font-size: 0.92rem;
}

.counts {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  font-size: 0.9rem;
}

.counts .form-control {
  width: 4rem;
}

.buttons {
  display: flex;
  gap: 0.5rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
