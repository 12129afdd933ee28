<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';
import type { Balance } from './use-balance';

/** The current of every module at the moment all are joined to the bars, and what must be moved before. */
const props = defineProps<{ balance: Balance }>();
const job = useJob();
const { joining } = props.balance;
const rows = computed(() =>
  [...(joining.value.result?.joins ?? [])].sort((a, b) => Math.abs(b.currentA) - Math.abs(a.currentA)),
);
</script>

<template>
  <section v-if="joining.result !== null" aria-label="Currents at joining" class="joins">
    <p :class="{ bad: !joining.result.withinLimits }" data-join>
      {{
        joining.result.withinLimits
          ? `All joined at once, ${formatNumber(joining.result.worstA)} A flow at the most, within every limit.`
          : `Do not join yet: ${formatNumber(joining.result.worstA)} A would flow. Move charge first as the table says.`
      }}
      They end at {{ formatNumber(joining.result.levelCellV, 4) }} V a cell{{
        joining.result.hours === null ? '' : `, after about ${formatNumber(joining.result.hours, 2)} h`
      }}.
    </p>
    <div class="scroller">
      <table class="grid-table">
        <thead>
          <tr>
            <th>module</th>
            <th class="num">at joining, A</th>
            <th class="num">gives until level, Ah</th>
            <th class="num">take out first, Ah</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in rows" :key="one.id">
            <td>{{ job.design.modules[one.id]?.tag }}</td>
            <td class="num" :class="{ bad: !one.withinLimit }">{{ formatNumber(one.currentA) }}</td>
            <td class="num">{{ formatNumber(one.givesAh) }}</td>
            <td class="num">{{ one.withinLimit ? '–' : formatNumber(one.firstAh) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft">
      Fused leads, one at a time, rated gloves, a second person; watch each current fall before the next is
      joined. Makers’ documents come first.
    </p>
  </section>
  <p v-else class="soft">Not computed, because {{ joining.because }}.</p>
</template>

<style scoped>
.joins {
  margin-top: 0.6rem;
}

.bad {
  color: var(--tv-stop);
}

.scroller {
  max-height: 14rem;
  overflow-y: auto;
  max-width: 40rem;
}
</style>
