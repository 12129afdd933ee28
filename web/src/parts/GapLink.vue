<script setup lang="ts">
import { gapText, type Gap } from '@torvek/core/figure';
import { useRouter } from 'vue-router';
import { useJob } from '../stores/job';
import { useSlate } from '../stores/slate';
import { goToPath } from './go-to-path';

/** One gap, as a link to where it can be filled. */
const props = defineProps<{
  gap: Gap;
  short?: boolean;
  /** The first thing to do: as a button. */ first?: boolean;
}>();
const router = useRouter();
const job = useJob();
const slate = useSlate();

function follow(): void {
  const { gap } = props;
  if (gap.kind === 'needs') slate.showWorking(gap.figure);
  else if (gap.kind !== 'never') void goToPath(router, job.id, gap.path);
}
</script>

<template>
  <span v-if="gap.kind === 'never'">{{ gap.label }}</span>
  <button v-else-if="first" type="button" class="btn btn-primary btn-sm" @click="follow">
    {{ gap.label }}
  </button>
  <a v-else href="#" @click.prevent="follow">{{ short ? gap.label : gapText(gap) }}</a>
</template>
