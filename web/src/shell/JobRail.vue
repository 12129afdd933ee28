<script setup lang="ts">
import { stationOfCheck } from '@torvek/core/design';
import { stations, type Station } from '@torvek/core/document';
import type { Grade } from '@torvek/core/finding';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import GradeMark from '../parts/GradeMark.vue';
import Icon from '../parts/Icon.vue';
import { stationList } from '../stations/stations';
import { useJob } from '../stores/job';
import { useSession } from '../stores/session';

/** The stations in the order of work, with what is open at each. */
const emit = defineEmits<{ keys: [] }>();
const job = useJob();
const session = useSession();
const initials = computed(() =>
  (session.person?.name ?? '')
    .split(' ')
    .map((word) => word[0])
    .join('')
    .slice(0, 3),
);
const counts = computed(() => {
  const open = new Map<Station, Record<Grade, number>>(
    stations.map((station) => [station, { stop: 0, mend: 0, note: 0 }]),
  );
  for (const { check, accepted } of job.assessment.findings) {
    if (accepted === null) open.get(stationOfCheck(check))![check.grade] += 1;
  }
  return open;
});
const worst = (station: Station) =>
  (['stop', 'mend', 'note'] as const).find((grade) => counts.value.get(station)![grade] > 0);
const stale = computed(() => job.assessment.steps.filter(({ state }) => state === 'stale').length);
</script>

<template>
  <nav class="rail no-print" aria-label="Stations">
    <RouterLink :to="{ name: 'jobs' }" class="station home" title="All jobs"
      ><Icon name="jobs" :size="18" /><span>Jobs</span></RouterLink
    >
    <RouterLink
      v-for="station in stations"
      :key="station"
      class="station"
      :to="{ name: station, params: { job: job.id } }"
    >
      <Icon :name="stationList[station].icon" :size="20" />
      <span>{{ stationList[station].title }}</span>
      <span class="badge-line">
        <GradeMark
          v-if="worst(station)"
          :grade="worst(station)!"
          :count="counts.get(station)![worst(station)!]"
        />
        <span v-if="station === 'prove' && stale > 0" class="stale" :title="`${stale} stale results`"
          >{{ stale }} stale</span
        >
      </span>
    </RouterLink>
    <button type="button" class="station keys" title="Keys ( ? )" @click="emit('keys')">
      <Icon name="keyboard" :size="18" /><span>Keys</span>
    </button>
    <RouterLink
      :to="{ name: 'jobs' }"
      class="station me"
      :title="`${session.person?.name}: account, sign out`"
      ><Icon name="person" :size="18" /><span>{{ initials }}</span></RouterLink
    >
  </nav>
</template>

<style scoped>
.rail {
  background: var(--tv-rail);
  color: var(--tv-rail-ink);
  display: flex;
  flex-direction: column;
  width: 56px;
}

.station {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  padding: 0.5rem 0 0.35rem;
  min-height: 62px;
  color: inherit;
  text-decoration: none;
  font-size: 0.75rem;
  border-left: 3px solid transparent;
}

.home {
  min-height: 50px;
  margin-bottom: 0.4rem;
  border-bottom: 1px solid #ffffff26;
}

.keys {
  margin-top: auto;
  background: none;
  border: 0;
  border-top: 1px solid #ffffff26;
}

.me,
.keys {
  min-height: 50px;
}

.station:hover {
  background: #ffffff14;
}

.station.router-link-active:not(.home, .me) {
  background: #ffffff1f;
  border-left-color: #e9eef2;
  font-weight: 600;
}

.badge-line {
  display: flex;
  flex-direction: column;
  align-items: center;
  min-height: 14px;
}

.badge-line :deep(.stop) {
  color: #ff9a90;
}

.badge-line :deep(.mend) {
  color: #ecd37a;
}

.badge-line :deep(.note) {
  color: #b9c6d1;
}

.stale {
  font-size: 0.7rem;
  color: #ecd37a;
}
</style>
