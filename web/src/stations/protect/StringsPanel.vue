<script setup lang="ts">
import { circuitDefaults, mainCircuit } from '@torvek/core/document';
import type { StringShare } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import { useJob } from '../../stores/job';

/** Strings in parallel: what each carries when they are not alike, and what the others drive into a fault in one. */
const job = useJob();
const count = computed(
  () => Object.values(job.design.strings).filter(({ modules }) => modules.length > 0).length,
);
const shares = computed(
  () => (job.evaluation.runs['fuse.strings:pack']?.result as StringShare[] | undefined) ?? [],
);
/** The best string, and one of the others, which are alike. */
const lines = computed(() => {
  const [best, other] = shares.value;
  const total = shares.value.reduce((sum, { rmsA }) => sum + rmsA, 0);
  return best === undefined || other === undefined
    ? []
    : [
        { name: 'least resistance, most charge', share: best, part: best.rmsA / total },
        {
          name: count.value === 2 ? 'the other' : `each of ${count.value - 1} others`,
          share: other,
          part: other.rmsA / total,
        },
      ];
});
</script>

<template>
  <section v-if="count > 1" class="sheet-card" aria-labelledby="strings-title">
    <div class="card-head">
      <h2 id="strings-title">{{ count }} strings side by side</h2>
      <span class="hint">over an hour of the load; from the top of the window</span>
    </div>
    <div class="panel-split">
      <div>
        <table v-if="lines.length > 0" class="grid-table" data-shares>
          <thead>
            <tr>
              <th scope="col">String</th>
              <th scope="col" class="num">rms</th>
              <th scope="col" class="num">peak</th>
              <th scope="col">share</th>
              <th scope="col" class="num">afterwards</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in lines" :key="one.name">
              <td>{{ one.name }}</td>
              <td class="num">{{ formatNumber(one.share.rmsA) }} A</td>
              <td class="num">{{ formatNumber(one.share.peakA) }} A</td>
              <td>
                <span class="bar"><span :style="{ width: `${one.part * 100}%` }"></span></span>
                {{ formatNumber(one.part * 100) }} %
              </td>
              <td class="num">
                {{ formatNumber(Math.abs(one.share.circulatingA)) }} A
                {{ one.share.circulatingA > 0 ? 'out' : 'in' }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-else class="panel-empty">
          Shares are computed as soon as modules, links and the main load are given.
        </p>
        <div class="figure-row">
          <FigureValue id="fuse.strings:pack:mostRmsA" show-label />
          <FigureValue id="fuse.strings:pack:circulatingA" show-label />
          <FigureValue id="fuse.strings:pack:faultA" show-label />
        </div>
      </div>
      <div>
        <NumberField path="pack.stringSpreadFraction" />
        <NumberField path="pack.stringSocFraction" />
        <NumberField
          v-for="(string, id) in job.design.strings"
          :key="id"
          :path="`strings.${id}.fuseAmbientC`"
          :label="`Fuse ambient, ${string.tag}`"
          :fallback="job.design.circuits[mainCircuit]?.fuseAmbientC ?? circuitDefaults.fuseAmbientC"
        />
        <p class="soft">
          At a start the first string closes alone; the next follows once both voltages agree: Match says how
          near.
        </p>
      </div>
    </div>
  </section>
  <p v-else class="sheet-card panel-empty">
    {{ count === 1 ? 'One string alone: nothing is shared.' : 'No string has modules yet.' }} Strings side by
    side are judged here by what each carries, and by what the others drive into a fault in one.
  </p>
</template>

<style scoped>
.bar {
  display: inline-block;
  width: 6rem;
  height: 0.7rem;
  margin-right: 0.4rem;
  background: var(--tv-recess);
}

.bar span {
  display: block;
  height: 100%;
  background: var(--tv-hv-fill);
}
</style>
