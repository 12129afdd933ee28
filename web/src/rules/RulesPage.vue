<script setup lang="ts">
import { stationOfCheck } from '@torvek/core/design';
import type { Station } from '@torvek/core/document';
import type { Check } from '@torvek/core/figure';
import { allRules, type Rule } from '@torvek/core/finding';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import GradeMark from '../parts/GradeMark.vue';
import { useJob } from '../stores/job';

/** Every rule there is: what it says, why, what to do, where it comes from, and how it stands in this job. */
const job = useJob();
const words = ref('');
const shown = ref<'all' | 'raised' | 'not checked' | 'clear'>('all');

interface Line {
  rule: Rule;
  station: Station | null;
  raised: number;
  clear: number;
  notChecked: number;
  state: 'raised' | 'not checked' | 'clear' | 'elsewhere';
}
const byRule = computed(() => {
  const found = new Map<string, Check[]>();
  for (const check of job.checks) found.set(check.rule.id, [...(found.get(check.rule.id) ?? []), check]);
  return found;
});
const lines = computed(() =>
  allRules().map((rule): Line => {
    const checks = byRule.value.get(rule.id) ?? [];
    const count = (state: Check['state']) => checks.filter((check) => check.state === state).length;
    const [raised, clear, notChecked] = [count('raised'), count('clear'), count('not-checked')];
    const state = raised > 0 ? 'raised' : notChecked > 0 ? 'not checked' : clear > 0 ? 'clear' : 'elsewhere';
    const station = checks[0] === undefined ? null : stationOfCheck(checks[0]);
    return { rule, station, raised, clear, notChecked, state };
  }),
);
const listed = computed(() => {
  const asked = words.value.trim().toLowerCase();
  return lines.value.filter(
    ({ rule, state }) =>
      (shown.value === 'all' || state === shown.value) &&
      (asked === '' ||
        [rule.id, rule.title, rule.why, rule.remedy, rule.source].some((text) =>
          text.toLowerCase().includes(asked),
        )),
  );
});
const rooms = computed(() => {
  const found = new Map<string, Line[]>();
  for (const line of listed.value) {
    const room = line.rule.id.split('.')[0]!;
    found.set(room, [...(found.get(room) ?? []), line]);
  }
  return [...found];
});
const standing = ({ state, raised, clear, notChecked }: Line) =>
  state === 'elsewhere'
    ? 'does not arise here'
    : [
        raised > 0 ? `raised ${raised}×` : '',
        clear > 0 ? `clear ${clear}×` : '',
        notChecked > 0 ? `not checked ${notChecked}×` : '',
      ]
        .filter((text) => text !== '')
        .join(', ');
</script>

<template>
  <section class="sheet-card rules" aria-label="Rules">
    <div class="card-head">
      <h2>Rules</h2>
      <span class="hint">{{ lines.length }} rules; how each stands in this job</span>
    </div>
    <div class="asks">
      <input
        v-model="words"
        class="form-control"
        type="search"
        maxlength="80"
        placeholder="a word of the rule"
        aria-label="Search in rules"
      />
      <select v-model="shown" class="form-select" aria-label="Rules shown">
        <option v-for="one in ['all', 'raised', 'not checked', 'clear'] as const" :key="one" :value="one">
          {{ one }}
        </option>
      </select>
      <span class="soft" role="status">{{ listed.length }} shown</span>
    </div>
    <p v-if="listed.length === 0" class="panel-empty">No rule is like that.</p>
    <section v-for="[room, own] in rooms" :key="room" :aria-label="room">
      <h3>{{ room }}</h3>
      <article v-for="line in own" :key="line.rule.id" class="rule" :data-rule="line.rule.id">
        <GradeMark :grade="line.rule.grade" />
        <div>
          <b>{{ line.rule.title }}</b>
          <p>
            {{ line.rule.why }} <span class="soft">What to do: {{ line.rule.remedy }}</span>
          </p>
          <p class="soft small">
            {{ line.rule.id }}, version {{ line.rule.version }}. {{ line.rule.source }}.
          </p>
        </div>
        <span class="state" :class="{ bad: line.state === 'raised' && line.rule.grade !== 'note' }">
          <RouterLink v-if="line.station !== null" :to="{ name: line.station, params: { job: job.id } }">{{
            standing(line)
          }}</RouterLink>
          <template v-else>{{ standing(line) }}</template>
        </span>
      </article>
    </section>
  </section>
</template>

<style scoped>
.asks {
  display: flex;
  gap: 0.8rem;
  align-items: center;
}

.asks .form-control {
  width: 16rem;
}

.asks .form-select {
  width: 10rem;
}

h3 {
  font-size: 1rem;
  margin: 0.9rem 0 0.1rem;
}

.rule {
  display: grid;
  grid-template-columns: 1.4rem minmax(0, 1fr) 10rem;
  gap: 0.5rem;
  padding: 0.4rem 0;
  border-top: 1px solid var(--tv-line);
}

.rule p {
  margin: 0.1rem 0 0;
}

.small {
  font-size: 0.82rem;
}

.state {
  text-align: right;
  font-size: 0.9rem;
}

.bad a {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
