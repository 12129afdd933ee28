<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';

/** The link from board to board: what parts their potentials, and where it ends. */
const props = defineProps<{ boards: readonly Id[] }>();
const job = useJob();
const tagOf = (id: Id | undefined) => job.design.boards?.[id ?? '']?.tag;
const links = computed(() => props.boards.slice(1).map((id, i) => [props.boards[i]!, id] as const));
const isolated = (id: Id) => {
  const part = job.design.parts[job.design.boards?.[id]?.unit ?? ''];
  return part?.kind === 'unit' ? part.data.isolatedLink : null;
};
</script>

<template>
  <table v-if="links.length > 0" class="grid-table" data-board-links>
    <thead>
      <tr>
        <th scope="col">link between boards</th>
        <th scope="col">from</th>
        <th scope="col">to</th>
        <th scope="col">their potentials</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="([from, to], i) in links" :key="to">
        <th scope="row">{{ i + 1 }}</th>
        <td>{{ tagOf(from) }}</td>
        <td>{{ tagOf(to) }}</td>
        <td>
          {{
            isolated(from) === null
              ? 'unit not given'
              : isolated(from)
                ? 'parted by the unit'
                : 'not parted: a break puts its voltage on the link'
          }}
        </td>
      </tr>
      <tr>
        <th scope="row">end</th>
        <td>{{ tagOf(boards.at(-1)) }}</td>
        <td>
          {{
            job.design.sensing?.link === 'ring'
              ? tagOf(boards[0])
              : job.design.sensing?.linkEndOhm === undefined
                ? 'nothing said of its end'
                : `resistor of ${formatQuantity(job.design.sensing.linkEndOhm, 'Ω')}`
          }}
        </td>
        <td>
          {{
            job.design.sensing?.link === 'ring'
              ? 'back to the first: one break leaves every board heard'
              : 'a break silences every board behind it'
          }}
        </td>
      </tr>
    </tbody>
  </table>
</template>
