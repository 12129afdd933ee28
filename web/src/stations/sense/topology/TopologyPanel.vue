<script setup lang="ts">
import { figureId } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import DonorPlot from './DonorPlot.vue';
import { schoolOptions, type SchoolOption } from './options';

/** Ways to watch this very pack, side by side. */
const job = useJob();
const library = useLibrary();
const options = computed(() => schoolOptions(job.design, library.library.of('unit')));
const n = (value: number) => formatNumber(value, 3);
const titles: Record<SchoolOption['id'], string> = {
  central: 'One unit for all',
  split: 'A unit in each box',
  'per-module': 'A board for each module',
  donor: 'Donor boards kept',
};
const chosen = computed(() => job.design.sensing?.school ?? null);
const choose = (id: SchoolOption['id']) =>
  job.change(`Monitoring: ${titles[id].toLowerCase()}`, (draft) => {
    (draft.sensing ??= {}).school = id;
  });
const most = computed(() =>
  Math.max(1, ...(options.value ?? []).map(({ row }) => row.senseWiresThroughWalls)),
);
</script>

<template>
  <section class="sheet-card" aria-labelledby="topology-title" data-topology>
    <div class="card-head">
      <h2 id="topology-title">Ways to watch this pack</h2>
      <span class="hint">counted with units of the library that suit each way</span>
    </div>
    <p v-if="options === null" class="panel-empty">
      It takes the modules of the pack and the boxes they sit in: see Pack.
    </p>
    <div v-else class="schools">
      <article
        v-for="one in options"
        :key="one.id"
        class="school"
        :class="{ chosen: one.id === chosen }"
        :data-school="one.id"
      >
        <h3>{{ titles[one.id] }}</h3>
        <p class="soft">{{ one.unit === null ? 'what is in the modules already' : one.unit.label }}</p>
        <dl>
          <dt>units</dt>
          <dd>{{ one.row.units }}</dd>
          <dt>channels spare</dt>
          <dd>{{ one.row.channelsSpare }}</dd>
          <dt>sense wires through walls</dt>
          <dd>
            {{ one.row.senseWiresThroughWalls }}
            <span class="bar" :style="{ width: `${(60 * one.row.senseWiresThroughWalls) / most}px` }" />
          </dd>
          <dt>low-voltage wires through walls</dt>
          <dd>{{ one.row.lvWiresThroughWalls }}</dd>
          <dt>bleed within the leads</dt>
          <dd>
            {{
              one.id === 'donor'
                ? 'its own'
                : one.row.bleedWithinLead === null
                  ? '—'
                  : one.row.bleedWithinLead
                    ? 'yes'
                    : 'no'
            }}
          </dd>
          <dt>level by 1 % of charge in</dt>
          <dd>{{ one.levelH === null ? '—' : `${n(one.levelH)} h` }}</dd>
        </dl>
        <p class="costs">{{ one.costs }}</p>
        <button
          type="button"
          class="btn btn-sm"
          :class="one.id === chosen ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === chosen"
          :disabled="!job.editable"
          :aria-label="`${one.id === chosen ? 'chosen' : 'choose'}: ${titles[one.id]}`"
          @click="choose(one.id)"
        >
          {{ one.id === chosen ? 'chosen' : 'choose' }}
        </button>
      </article>
    </div>
  </section>
  <section v-if="chosen === 'donor'" class="sheet-card" aria-labelledby="donor-title" data-donor>
    <div class="card-head">
      <h2 id="donor-title">What the donor’s monitor assumes</h2>
      <FigureValue
        :id="figureId('monitoring.donor', 'pack', 'chargeErrorFraction')"
        label="counts charge wrong by"
        show-label
      />
    </div>
    <div class="fields">
      <NumberField path="sensing.donorCells" />
      <NumberField path="sensing.donorAh" />
      <NumberField path="sensing.donorMinV" />
      <NumberField path="sensing.donorMaxV" />
      <NumberField path="sensing.donorSensors" />
    </div>
    <DonorPlot />
    <p class="soft">
      Donor boards stay plugged in their modules. What they read of single cells is right; what a master makes
      of it is told for the pack that they came from.
    </p>
  </section>
</template>

<style scoped>
.schools {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.8rem;
}

.school {
  display: flex;
  flex-direction: column;
  padding: 0.6rem;
  border: 1px solid var(--tv-line);
}

.chosen {
  border-color: var(--tv-act);
  border-width: 2px;
}

h3 {
  margin: 0;
  font-size: 1rem;
}

dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.2rem 0.5rem;
  margin: 0.3rem 0;
}

dt {
  font-weight: 400;
  color: var(--tv-soft);
}

dd {
  margin: 0;
  text-align: right;
  font-weight: 600;
}

.bar {
  display: block;
  height: 4px;
  margin-left: auto;
  background: var(--tv-hv);
}

.costs {
  flex: 1;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}
</style>
