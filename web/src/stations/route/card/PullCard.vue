<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { formatQuantity } from '@torvek/core/quantity';
import type { TubeAnswer } from '@torvek/core/routing';
import { computed } from 'vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';

/** How the cables of a conduit lie in it, and from which end they are pulled. */
const props = defineProps<{ tube: string; runId: Id; answer: TubeAnswer | null }>();
const pulls = computed(() => {
  const pull = props.answer?.pull;
  return pull == null
    ? []
    : ([
        ['from its beginning to its end', pull.forward],
        ['from its end to its beginning', pull.backward],
      ] as const);
});
</script>

<template>
  <section class="sheet-card" aria-labelledby="pull-title" data-pull>
    <div class="card-head">
      <h2 id="pull-title">Cables through it</h2>
      <span class="hint">fill, jam, elbows, and which end to pull from</span>
    </div>
    <div class="figure-row">
      <FigureValue :id="figureId('routing.tube', tube, 'fillFraction')" show-label />
      <FigureValue :id="figureId('routing.tube', tube, 'pullN')" show-label />
      <FigureValue :id="figureId('routing.tube', tube, 'sidewallNPerM')" show-label />
    </div>
    <p v-if="answer === null || answer.pull === null || answer.fit === null" class="soft">
      Not computed yet: the circuits it carries need a cable, the conduit its bore and the run its points.
    </p>
    <template v-else>
      <table class="grid-table pulls">
        <thead>
          <tr>
            <th scope="col">pulled</th>
            <th scope="col" class="num">tension at the end</th>
            <th scope="col" class="num">pressed in bends</th>
            <th scope="col"></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[way, pulled] in pulls" :key="way">
            <th scope="row">{{ way }}</th>
            <td class="num">{{ formatQuantity(pulled.tensionN, 'N') }}</td>
            <td class="num">{{ formatQuantity(pulled.worstSidewallNPerM, 'N/m') }}</td>
            <td :class="{ bad: !pulled.ok }">{{ pulled.ok ? 'within its limits' : 'beyond its limits' }}</td>
          </tr>
        </tbody>
      </table>
      <p class="verdict">
        {{
          answer.pull.better === 'either'
            ? 'Either end will do.'
            : `Feed in at its ${answer.pull.better === 'forward' ? 'beginning' : 'end'}, pull out at the other.`
        }}
        {{ answer.fit.terminateAfterPull ? 'The lug does not pass the bore: pull first, crimp after.' : '' }}
        {{ answer.fit.jamRisk ? 'Three of this size wedge: tie them together first.' : '' }}
      </p>
      <div class="limits">
        <NumberField :path="`runs.${runId}.friction`" />
        <NumberField :path="`runs.${runId}.maxTensionN`" />
        <NumberField :path="`runs.${runId}.maxSidewallNPerM`" />
      </div>
      <p class="soft">
        Where no tension is given, 50 N for each mm² of copper is taken: the maker’s figure comes first.
      </p>
    </template>
  </section>
</template>

<style scoped>
.pulls {
  width: auto;
}

.limits {
  max-width: 24rem;
}

.verdict {
  font-weight: 600;
}

.bad {
  color: var(--tv-stop);
}

p {
  margin: 0.3rem 0;
}
</style>
