<script setup lang="ts">
import { stockOf, type BalanceGear } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { newId } from '../../../api/client';
import GapLink from '../../../parts/GapLink.vue';
import { makePdf, savePdf } from '../../../parts/pdf';
import { useInstruments } from '../../../stores/instruments';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import BatchPlot from './BatchPlot.vue';
import CalendarStrip from './CalendarStrip.vue';
import CellsCard from './CellsCard.vue';
import DueList from './DueList.vue';
import JoinTable from './JoinTable.vue';
import LoadHelp from './LoadHelp.vue';
import PlanFields from './PlanFields.vue';
import { reportDocument, reportOf } from './report';
import RestPlot from './RestPlot.vue';
import SchoolChooser from './SchoolChooser.vue';
import { useAttempt } from '../../../parts/use-attempt';
import { useBalance, type BalanceRow } from './use-balance';

/** Weeks of balancing to a plan: what is due today, how each rest will end, and what it came to. */
const job = useJob();
const session = useSession();
const register = useInstruments();
const route = useRoute();
const router = useRouter();
const balance = useBalance();
const { rows, plan, school, schedule, zone, now, toleranceV, restHours, counts, firstEndMs, fitting } =
  balance;
onMounted(() => {
  if (register.all.length === 0) void register.load();
});
const nowMs = computed(() => now.value.getTime());

const picked = computed(() => {
  const asked = String(route.query.cell ?? '');
  return rows.value.some(({ id }) => id === asked) ? asked : null;
});
const pick = (cell: string) => void router.replace({ query: { ...route.query, panel: 'balance', cell } });
const pickedRow = computed(
  () =>
    rows.value.find(({ id }) => id === picked.value) ??
    rows.value.find(
      ({ phase, outlook }) => phase === 'resting' && outlook.verdict !== 'will settle inside',
    ) ??
    rows.value.find(({ phase }) => phase === 'resting') ??
    null,
);

const recording = useAttempt();
const { busy, attempt } = recording;
const act = (way: 'on' | 'off', gear: BalanceGear, cells: { cell: string; place: number | null }[]) =>
  attempt(async () => {
    // A place is of one cell: each bench is an entry of its own.
    const groups = new Map<number | null, string[]>();
    for (const { cell, place } of cells) groups.set(place, [...(groups.get(place) ?? []), cell]);
    for (const [place, own] of groups)
      await job.record(
        {
          id: newId('entry'),
          kind: 'balance',
          act: way,
          gear,
          cells: own,
          ...(place !== null && { place }),
        },
        `${gear} ${way}: ${own.length} cells`,
      );
    return `${cells.length} ${cells.length === 1 ? 'cell' : 'cells'} recorded.`;
  });

const cellsCard = ref<InstanceType<typeof CellsCard>>();
/** By hand: what the list of due work does not offer. */
const loose = computed(() => ({
  charge: school.value === 'top' && rows.value.some(({ phase }) => phase !== 'on'),
  charging: rows.value.filter(({ phase, gear }) => phase === 'on' && gear === 'charger'),
  on: rows.value.filter(({ phase, gear }) => phase === 'on' && gear !== 'charger'),
}));
const all = (list: readonly BalanceRow[]) => list.map(({ id, place }) => ({ cell: id, place }));

async function report(): Promise<void> {
  const serials = new Map<string, string>();
  for (const { place, serial } of stockOf(job.present).items.values())
    if (place !== null && serial !== null) serials.set(place, serial);
  const made = reportOf(job.name, rows.value, {
    plan: plan.value,
    toleranceV: toleranceV.value,
    zone: zone.value,
    nowMs: nowMs.value,
    serialOf: (module) => serials.get(module),
  });
  savePdf(await makePdf(reportDocument(made)), job.name, 'balancing');
}
const started = computed(() => rows.value.some(({ round }) => round > 0));
</script>

<template>
  <section class="sheet-card" aria-label="Balance" data-balance>
    <div class="card-head">
      <h2>Balance</h2>
      <span class="hint">where all cells of the pack are brought to one level, and how</span>
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      No module yet: their kind and number are chosen under Cells and devices.
    </p>
    <template v-else>
      <SchoolChooser :balance="balance" />
      <details v-if="school !== undefined" class="how" :open="!started">
        <summary>Plan{{ school === 'bottom' ? ', load and recipe' : '' }}</summary>
        <PlanFields :balance="balance" />
        <LoadHelp v-if="school === 'bottom'" :balance="balance" />
        <JoinTable v-else-if="school === 'bench'" :balance="balance" />
      </details>
    </template>
  </section>
  <template v-if="rows.length > 0 && school !== undefined">
    <section class="sheet-card" aria-label="Calendar">
      <div class="card-head">
        <h2>Calendar</h2>
        <span class="hint">what was, what is, and what is left from now on; it moves as things slip</span>
      </div>
      <ul v-if="schedule.gaps.length > 0" class="gaps">
        <li v-for="(gap, i) in schedule.gaps" :key="i">Not planned, because <GapLink :gap="gap" /></li>
      </ul>
      <CalendarStrip
        v-else
        :rows="rows"
        :schedule="schedule"
        :benches="school === 'bottom' ? Math.max(1, Math.round(plan.benches ?? 1)) : 0"
        :zone="zone"
        :now-ms="nowMs"
        :first-end-ms="firstEndMs"
        :picked="picked"
        @pick="pick"
      />
    </section>
    <div class="pair">
      <section class="sheet-card" aria-label="Due">
        <div class="card-head"><h2>Due today</h2></div>
        <DueList :balance="balance" :busy="busy" @act="act" @read="cellsCard?.askFor($event)" />
        <div v-if="session.mayRecord" class="by-hand">
          <BButton
            v-if="loose.charge && loose.charging.length === 0"
            size="sm"
            variant="light"
            :disabled="busy"
            @click="act('on', 'charger', all(rows.filter(({ phase }) => phase !== 'on')))"
            >Charger onto all</BButton
          >
          <BButton
            v-if="loose.charging.length > 0"
            size="sm"
            variant="light"
            :disabled="busy"
            @click="act('off', 'charger', all(loose.charging))"
            >Charger off {{ loose.charging.length === rows.length ? 'all' : loose.charging.length }}</BButton
          >
          <BButton
            v-if="loose.on.length > 0"
            size="sm"
            variant="light"
            :disabled="busy"
            @click="act('off', loose.on[0]!.gear!, all(loose.on))"
            >All {{ loose.on.length }} off now</BButton
          >
        </div>
      </section>
      <section class="sheet-card" aria-label="Batch">
        <div class="card-head">
          <h2>Where they settle</h2>
          <span class="hint">with the 95 % interval of each</span>
        </div>
        <p v-if="plan.targetV === undefined" class="panel-empty">
          The voltage at which cells are level is not given.
        </p>
        <BatchPlot
          v-else
          :rows="rows"
          :target-v="plan.targetV"
          :tolerance-v="toleranceV"
          :picked="picked"
          @pick="pick"
        />
        <p class="counts" data-counts>
          <b>{{ counts.inside }}</b> inside, <b>{{ counts.high }}</b> too high, <b>{{ counts.low }}</b> too
          low, <b>{{ counts.early }}</b> too early to tell, <b>{{ counts.on }}</b> on,
          <b>{{ counts.waiting }}</b> waiting<template v-if="fitting">; fitting …</template>
        </p>
        <BButton size="sm" variant="light" @click="report">Report as PDF</BButton>
      </section>
    </div>
    <section v-if="pickedRow !== null" class="sheet-card" aria-label="Rest">
      <div class="card-head">
        <h2>Rest of {{ pickedRow.tag }}</h2>
        <span class="hint">readings, the fitted creep, and its end</span>
      </div>
      <RestPlot :row="pickedRow" :target-v="plan.targetV" :tolerance-v="toleranceV" :rest-hours="restHours" />
    </section>
    <CellsCard
      ref="cellsCard"
      :balance="balance"
      :recording="recording"
      :now-ms="nowMs"
      :picked="picked"
      @pick="pick"
    />
  </template>
</template>

<style scoped>
.how {
  margin-top: 0.6rem;
}

.how summary {
  cursor: pointer;
  font-weight: 600;
  margin-bottom: 0.4rem;
}

.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
  gap: 0.6rem;
}

.counts {
  margin: 0.6rem 0;
}

.by-hand {
  display: flex;
  gap: 0.5rem;
  margin-top: 0.5rem;
}

.gaps {
  margin: 0;
  padding-left: 1.2rem;
}

@media (max-width: 1000px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
