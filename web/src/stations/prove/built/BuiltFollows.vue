<script setup lang="ts">
import { takeBuilt, type BuiltDifference } from '@torvek/core/built';
import { formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import { subjectName } from '../../../parts/place-name';
import { useJob } from '../../../stores/job';
import { movedFigures } from './rows';

/** Where what was fitted and cut differs from the design, and which figures move by it. */
const job = useJob();
const differences = computed(() => job.built.differences);
const moved = computed(() => movedFigures(job.evaluation, job.builtEvaluation));
const shownMoved = computed(() => moved.value.slice(0, 14));
const takeIn = (difference: BuiltDifference) =>
  job.change(`${difference.name}: as built`, (draft) =>
    takeBuilt(
      draft,
      difference,
      'part' in difference.built ? job.built.design.parts[difference.built.part] : undefined,
    ),
  );
const valueOf = (value: number | null, unit: string) =>
  value === null ? 'not computed' : formatQuantity(value, unit, 3);
</script>

<template>
  <section class="sheet-card" aria-labelledby="follows-title" data-follows>
    <div class="card-head">
      <h2 id="follows-title">What follows</h2>
      <span class="hint">gates and results go by the vehicle as built; stations show the design</span>
    </div>
    <p v-if="differences.length === 0" class="soft">
      Nothing recorded differs from the design: figures as built are those of the design.
    </p>
    <template v-else>
      <ul class="differences">
        <li v-for="one in differences" :key="one.path">
          <b>{{ one.name }}</b>
          {{
            'part' in one.built && 'part' in one.designed
              ? `${one.built.text} instead of ${one.designed.text}`
              : 'lengthM' in one.built && 'lengthM' in one.designed
                ? `${formatQuantity(one.built.lengthM, 'm')}, ${one.designed.lengthM === null ? 'no length' : formatQuantity(one.designed.lengthM, 'm')} designed`
                : ''
          }}{{ one.reason === '' ? '' : `: ${one.reason}` }}
          <small class="soft">entry {{ one.seq }}</small>
          <button v-if="job.editable" type="button" class="btn btn-sm btn-light" @click="takeIn(one)">
            Take into the design
          </button>
        </li>
      </ul>
      <table v-if="shownMoved.length > 0" class="grid-table moved">
        <thead>
          <tr>
            <th scope="col">figure</th>
            <th scope="col">of</th>
            <th scope="col" class="num">designed</th>
            <th scope="col" class="num">as built</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shownMoved" :key="one.id">
            <td>{{ one.label }}</td>
            <td>{{ subjectName(job.design, one.subject) }}</td>
            <td class="num">{{ valueOf(one.designed, one.unit) }}</td>
            <td class="num">
              <b>{{ valueOf(one.built, one.unit) }}</b>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="moved.length > shownMoved.length" class="soft">
        {{ moved.length - shownMoved.length }} more figures moved by half a percent or more.
      </p>
      <p v-else-if="moved.length === 0" class="soft">No figure moved by half a percent or more.</p>
    </template>
  </section>
</template>

<style scoped>
.differences {
  list-style: none;
  padding: 0;
}

.differences li {
  padding: 0.2rem 0;
}
</style>
