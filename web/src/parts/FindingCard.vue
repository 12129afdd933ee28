<script setup lang="ts">
import type { FindingStatus } from '@torvek/core/design';
import { mainCircuit } from '@torvek/core/document';
import { newerRevision, replacePart } from '@torvek/core/library';
import { formatQuantity } from '@torvek/core/quantity';
import { computed, nextTick, ref, watch } from 'vue';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ApiError } from '../api/client';
import { useJob } from '../stores/job';
import { useLibrary } from '../stores/library';
import { useSlate } from '../stores/slate';
import { newId } from '../api/client';
import { holderOf, takePart, type AlongPart } from './choose-part';
import GradeMark from './GradeMark.vue';

/** A finding: one sentence with numbers, then why, then what to do; replacements to choose; acceptance with a reason. */
const props = defineProps<{ finding: FindingStatus }>();
const job = useJob();
const shelf = useLibrary();
const open = ref(false);
const accepting = ref(false);
const reason = ref('');
const problem = ref<string | null>(null);
const busy = ref(false);
const check = computed(() => props.finding.check);
const slate = useSlate();
const head = ref<HTMLButtonElement | null>(null);
// Asked for by key or finder: opens, and takes the focus.
watch(
  () => slate.findingKey,
  async (key) => {
    if (key !== check.value.key) return;
    open.value = true;
    await nextTick();
    head.value?.focus();
    head.value?.scrollIntoView({ block: 'nearest' });
  },
  { immediate: true },
);
const kind = computed(() => {
  const [first] = check.value.suggestions;
  return first === undefined ? null : (shelf.library.find(first.partKey)?.kind ?? null);
});
/** What fits; where nothing does, what comes nearest. */
const offered = computed(() => {
  const fitting = check.value.suggestions.filter(({ fits }) => fits);
  return fitting.length > 0 ? fitting : check.value.suggestions;
});
const isRevision = computed(() => check.value.rule.id === newerRevision.id);
/** Takes a replacement: for one circuit, or a newer revision wherever the older one is used. */
function take(partKey: string, along: readonly AlongPart[] = []): void {
  const part = shelf.library.find(partKey);
  if (part === undefined || kind.value === null) return;
  const [subject = ''] = check.value.subjects;
  if (isRevision.value)
    job.change(`Revision ${part.revision} of ${part.label}`, (draft) => replacePart(draft, subject, part));
  else if (kind.value !== 'module') {
    const holder = holderOf(job.design, subject) ?? holderOf(job.design, mainCircuit);
    if (holder !== null) takePart(job, holder, kind.value, partKey, along);
  }
}

/** The circuit that it is about. */
const circuit = computed(() => {
  const [subject = ''] = check.value.subjects.map((one) => one.split('/')[0]!);
  return job.design.circuits[subject] === undefined ? null : subject;
});
/** Named where the message alone would not tell which one. */
const branch = computed(() =>
  circuit.value === null || circuit.value === mainCircuit ? null : job.design.circuits[circuit.value]!.tag,
);

async function accept(): Promise<void> {
  if (reason.value.trim() === '') {
    problem.value = 'A reason is needed: it stands in the record.';
    return;
  }
  busy.value = true;
  problem.value = null;
  try {
    await job.record({
      id: newId('entry'),
      kind: 'acceptance',
      check: check.value.key,
      reason: reason.value.trim(),
    });
    accepting.value = false;
    reason.value = '';
  } catch (error) {
    problem.value = error instanceof ApiError || error instanceof Error ? error.message : 'not recorded';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <article class="finding" :class="[check.grade, { accepted: finding.accepted }]" :data-rule="check.rule.id">
    <button ref="head" type="button" class="visually-plain head" :aria-expanded="open" @click="open = !open">
      <GradeMark :grade="check.grade" />
      <span
        ><b v-if="branch !== null">{{ branch }}: </b>{{ check.message }}</span
      >
    </button>
    <p v-if="finding.accepted" class="state">
      Accepted by {{ finding.accepted.by }}, entry {{ finding.accepted.seq }}:
      {{ finding.accepted.body.reason }}
    </p>
    <p v-else-if="finding.lapsed" class="state lapsed">The acceptance has lapsed: {{ finding.lapsed }}.</p>
    <p v-if="check.advice" class="advice">{{ check.advice }}</p>
    <div v-if="offered.length > 0 && kind" class="suggestions">
      <p v-if="!isRevision">
        {{
          offered[0]!.fits
            ? 'Replacements, best first:'
            : check.advice
              ? 'Nearest first:'
              : 'Nothing in the library fits; nearest first:'
        }}
      </p>
      <ul>
        <li v-for="one in offered" :key="one.partKey">
          <button
            type="button"
            class="btn btn-quiet btn-sm"
            :aria-label="`take ${one.label}`"
            @click="take(one.partKey, one.along)"
          >
            take
          </button>
          <span
            >{{ one.label }}<span v-if="!one.fits" class="soft"> — {{ one.reasons.join('; ') }}</span
            ><span v-else-if="one.along?.length" class="soft">
              — with another {{ one.along.map((other) => other.kind).join(' and ') }}</span
            ></span
          >
        </li>
      </ul>
    </div>
    <div v-if="open" class="more">
      <p>{{ check.rule.why }}</p>
      <p><strong>What to do:</strong> {{ check.rule.remedy }}</p>
      <p class="soft small">
        Judged on
        <template v-for="(value, i) in check.values" :key="value.label"
          >{{ i > 0 ? ', ' : '' }}{{ value.label }} {{ formatQuantity(value.value, value.unit) }}</template
        ><template v-if="check.values.length === 0">what is in the design</template>. Rule
        {{ check.rule.id }}, version {{ check.rule.version }}. {{ check.rule.source }}.
      </p>
      <template v-if="!finding.accepted && job.editable">
        <BButton v-if="!accepting" size="sm" variant="light" @click="accepting = true"
          >Accept with a reason …</BButton
        >
        <form v-else @submit.prevent="accept">
          <label :for="`reason-${check.key}`" class="small"
            >Reason, for the record. It lapses when a value moves or a part is exchanged.</label
          >
          <textarea
            :id="`reason-${check.key}`"
            v-model="reason"
            class="form-control form-control-sm"
            rows="2"
            maxlength="2000"
          />
          <p v-if="problem" class="problem">{{ problem }}</p>
          <div class="row-buttons">
            <BButton size="sm" variant="primary" type="submit" :disabled="busy">Accept</BButton>
            <BButton size="sm" variant="light" @click="accepting = false">Leave it</BButton>
          </div>
        </form>
      </template>
    </div>
  </article>
</template>

<style scoped>
.finding {
  padding: 0.5rem 0;
  border-top: 1px solid var(--tv-line);
}

.head {
  display: grid;
  grid-template-columns: 1.1rem 1fr;
  gap: 0.35rem;
  width: 100%;
  font-size: 0.9rem;
}

.head :deep(.grade-mark) {
  align-self: start;
  margin-top: 0.2rem;
}

.accepted .head span:last-child {
  color: var(--tv-soft);
}

.state {
  margin: 0.2rem 0 0 1.45rem;
  font-size: 0.82rem;
  color: var(--tv-pass);
}

.lapsed {
  color: var(--tv-mend);
}

.advice {
  margin: 0.3rem 0 0 1.45rem;
  font-size: 0.85rem;
}

.suggestions,
.more {
  margin: 0.3rem 0 0 1.45rem;
  font-size: 0.85rem;
}

.suggestions p,
.more p {
  margin: 0 0 0.3rem;
}

.suggestions ul {
  list-style: none;
  padding: 0;
  margin: 0;
}

.suggestions li {
  display: grid;
  grid-template-columns: 2.9rem 1fr;
  gap: 0.4rem;
  align-items: start;
  margin-bottom: 0.25rem;
}

.suggestions .btn {
  padding: 0 0.4rem;
}

.small {
  font-size: 0.8rem;
}

.problem {
  color: var(--tv-stop);
}

.row-buttons {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.35rem;
}
</style>
