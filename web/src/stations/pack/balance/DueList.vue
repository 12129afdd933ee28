<script setup lang="ts">
import type { BalanceGear } from '@torvek/core/record';
import { dayStartMs } from '@torvek/core/balance';
import { dayIn } from '@torvek/core/record';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { useSession } from '../../../stores/session';
import { dueUntil, type DueGroup } from './due';
import type { Balance } from './use-balance';
import { weekdayOf } from '../../../parts/dates';
import { someTags, whenText } from './words';

/** What is to be done today, the late first; each with the button that records it. */
const props = defineProps<{ balance: Balance; busy: boolean }>();
const emit = defineEmits<{
  act: [act: 'on' | 'off', gear: BalanceGear, cells: { cell: string; place: number | null }[]];
  read: [cells: string[]];
}>();
const session = useSession();
const { schedule, rows, now, zone, school } = props.balance;
const nowMs = computed(() => now.value.getTime());
const tomorrow = computed(() => {
  const today = dayStartMs(dayIn(now.value.toISOString(), zone.value), zone.value);
  return dayStartMs(dayIn(new Date(today + 36 * 3.6e6).toISOString(), zone.value), zone.value);
});
const groups = computed(() => dueUntil(schedule.value.tasks, nowMs.value, tomorrow.value));
const nextTask = computed(() =>
  schedule.value.tasks
    .filter(({ kind, state, fromMs }) => kind !== 'rest' && state === 'planned' && fromMs >= tomorrow.value)
    .reduce((first, one) => Math.min(first, one.fromMs), Infinity),
);
const gear = computed<BalanceGear>(() =>
  school.value === 'bottom' ? 'load' : school.value === 'bench' ? 'joined' : 'bleed',
);
const tag = (id: string) => rows.value.find((row) => row.id === id)?.tag ?? id;
const words: Record<DueGroup['kind'], string> = {
  load: 'Put on',
  'take off': 'Take off',
  read: 'Read',
  raise: 'Charge up a little',
  rest: 'Rest',
};
const titleOf = ({ kind }: DueGroup) =>
  kind === 'load' && school.value !== 'bottom'
    ? school.value === 'bench'
      ? 'Join to the bars'
      : 'Begin bleeding'
    : kind === 'take off' && school.value !== 'bottom'
      ? school.value === 'bench'
        ? 'Part from the bars'
        : 'End bleeding'
      : words[kind];
const cellsOf = ({ kind, tasks }: DueGroup) => {
  const benches = kind === 'load' && school.value === 'bottom';
  const named = tasks.map(({ cell, place }) =>
    benches && place !== null ? `${tag(cell)} on bench ${place}` : tag(cell),
  );
  return tasks.length === rows.value.length && tasks.length > 6
    ? `all ${tasks.length} cells`
    : someTags(named);
};
const late = ({ lateH }: DueGroup) =>
  lateH < 0.1
    ? ''
    : lateH < 48
      ? `${formatNumber(lateH, 2)} h late`
      : `${formatNumber(lateH / 24, 2)} d late`;

function press(group: DueGroup): void {
  const cells = group.tasks.map(({ cell, place }) => ({
    cell,
    place: school.value === 'bottom' ? place : null,
  }));
  if (group.kind === 'read')
    emit(
      'read',
      cells.map(({ cell }) => cell),
    );
  else if (group.kind === 'load') emit('act', 'on', gear.value, cells);
  else if (group.kind === 'take off')
    emit('act', 'off', rows.value.find(({ id }) => id === cells[0]!.cell)?.gear ?? gear.value, cells);
  else emit('act', 'on', 'charger', cells);
}
</script>

<template>
  <ul v-if="groups.length > 0" class="due" aria-label="Due today">
    <li v-for="group in groups" :key="group.key" :class="{ late: group.lateH >= 0.1 }">
      <span class="when">{{
        group.fromMs - nowMs < 60_000 ? 'now' : whenText(group.fromMs, zone, nowMs)
      }}</span>
      <span class="what">
        <b>{{ titleOf(group) }}</b> {{ cellsOf(group) }}
        <em v-if="late(group)">{{ late(group) }}</em>
      </span>
      <BButton
        v-if="session.mayRecord"
        size="sm"
        :variant="group.lateH >= 0.1 ? 'primary' : 'light'"
        :disabled="busy"
        :aria-label="`${group.kind === 'read' ? 'Enter' : 'Done now'}: ${titleOf(group)} ${cellsOf(group)}`"
        @click="press(group)"
        >{{ group.kind === 'read' ? 'Enter' : 'Done now' }}</BButton
      >
    </li>
  </ul>
  <p v-else class="soft" data-nothing-due>
    Nothing is due today{{
      Number.isFinite(nextTask) ? `; the next is due ${weekdayOf(nextTask, zone)}` : ''
    }}.
  </p>
</template>

<style scoped>
.due {
  list-style: none;
  margin: 0;
  padding: 0;
}

.due li {
  display: grid;
  grid-template-columns: 3.6rem minmax(0, 1fr) auto;
  gap: 0.6rem;
  align-items: center;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--tv-line);
}

.when {
  font-variant-numeric: tabular-nums;
}

.late .when,
.due em {
  color: var(--tv-stop);
  font-style: normal;
  font-weight: 600;
}
</style>
