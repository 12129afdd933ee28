<script setup lang="ts">
import { touchLimitOf } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref } from 'vue';
import { useJob } from '../../../stores/job';
import { useMap } from '../use-map';
import { orderRows } from './order';

/** In which order sense plugs and links go in, and the other way round out. */
const job = useJob();
const { strings, stringId, result, pick } = useMap();
const out = ref(false);
const rows = computed(() => {
  if (result.value === null || stringId.value === '') return [];
  const all = orderRows(job.design, stringId.value, result.value.boards, touchLimitOf(job.design));
  return out.value ? [...all].reverse() : all;
});
const words = (what: string) =>
  out.value
    ? what
        .replace(/^Ladder of (.*), then its plug$/, 'Plug of $1 out')
        .replace(/ in, between/, ' out, between')
    : what;
</script>

<template>
  <section class="sheet-card" aria-labelledby="order-title" data-plug-order>
    <div class="card-head">
      <h2 id="order-title">Order of plugs and links</h2>
      <div v-if="strings.length > 1" class="btn-group" role="group" aria-label="Strings">
        <button
          v-for="one in strings"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === stringId ? 'btn-primary' : 'btn-quiet'"
          :aria-pressed="one.id === stringId"
          @click="pick(one.id)"
        >
          {{ one.tag }}
        </button>
      </div>
      <div class="btn-group" role="group" aria-label="Way">
        <button
          v-for="way in [false, true]"
          :key="String(way)"
          type="button"
          class="btn btn-sm"
          :class="out === way ? 'btn-primary' : 'btn-quiet'"
          :aria-pressed="out === way"
          @click="out = way"
        >
          {{ way ? 'taking apart' : 'putting in' }}
        </button>
      </div>
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      No map of this string yet: see Map. Donor boards that live in their modules stay plugged; only their
      supply and link come last.
    </p>
    <table v-else class="grid-table order">
      <thead>
        <tr>
          <th scope="col" class="num">no.</th>
          <th scope="col">what</th>
          <th scope="col">hangs together {{ out ? 'before' : 'then' }}</th>
          <th scope="col" class="num">up to, V</th>
          <th scope="col"></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in rows" :key="row.what" :class="{ link: row.board === null }">
          <td class="num">{{ i + 1 }}</td>
          <th scope="row">{{ words(row.what) }}</th>
          <td>{{ row.segment }}</td>
          <td class="num" :class="{ above: row.above }">{{ formatNumber(row.segmentV, 3) }}</td>
          <td class="soft">{{ row.note }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length > 0" class="soft">
      A plug goes in only once every link between its cells is closed, and comes out before one of them is
      opened: otherwise the string’s voltage lands on two of its inputs. Makers’ documents come first.
    </p>
  </section>
</template>

<style scoped>
.order tr.link th,
.order tr.link td {
  border-top: 2px solid var(--tv-hv);
}

.order th[scope='row'] {
  font-weight: 500;
}

.above {
  color: var(--tv-hv);
  font-weight: 700;
}
</style>
