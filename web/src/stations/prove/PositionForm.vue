<script setup lang="ts">
import { positionText } from '@torvek/core/design';
import type { PositionBody } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { reactive, ref, watch } from 'vue';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';

/** What stands open or closed on the vehicle now; the nameplate shows it until the next entry. */
const job = useJob();
const shown = ref(false);
const form = reactive<{
  linksOut: string;
  serviceDisconnect: PositionBody['serviceDisconnect'];
  mains: PositionBody['mains'];
  remark: string;
}>({
  linksOut: '0',
  serviceDisconnect: 'out',
  mains: 'open',
  remark: '',
});
const problem = ref<string | null>(null);
const busy = ref(false);

watch(
  () => job.assessment.position,
  (position) => {
    if (position === null) return;
    form.linksOut = String(position.body.linksOut);
    form.serviceDisconnect = position.body.serviceDisconnect;
    form.mains = position.body.mains;
  },
  { immediate: true },
);

async function save(): Promise<void> {
  const linksOut = Number(form.linksOut.trim() || NaN);
  if (!Number.isInteger(linksOut) || linksOut < 0 || linksOut > 10_000) {
    problem.value = 'Links left out: a whole number, 0 or more.';
    return;
  }
  busy.value = true;
  problem.value = null;
  try {
    const { serviceDisconnect, mains } = form;
    const remark = form.remark.trim();
    await job.record({
      id: newId('entry'),
      kind: 'position',
      linksOut,
      serviceDisconnect,
      mains,
      ...(remark !== '' && { remark }),
    });
    form.remark = '';
    shown.value = false;
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not recorded';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet-card position" aria-label="State of the vehicle">
    <p>
      <b>{{
        job.assessment.position === null
          ? 'State not recorded: treat as live'
          : positionText(job.assessment.position.body)
      }}</b>
      <BButton size="sm" variant="light" :aria-expanded="shown" @click="shown = !shown">{{
        shown ? 'Leave it' : 'Record another state'
      }}</BButton>
    </p>
    <form v-if="shown" @submit.prevent="save">
      <label>Links left out<input v-model="form.linksOut" class="form-control" inputmode="numeric" /></label>
      <label
        >Service disconnect<select v-model="form.serviceDisconnect" class="form-select">
          <option value="out">out, locked off</option>
          <option value="in">in</option>
        </select></label
      >
      <label
        >Main contactors<select v-model="form.mains" class="form-select">
          <option value="open">open</option>
          <option value="closed">closed</option>
        </select></label
      >
      <label class="remark"
        >Remark<input v-model="form.remark" class="form-control" maxlength="2000"
      /></label>
      <BButton type="submit" variant="primary" :disabled="busy">Record</BButton>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </form>
  </section>
</template>

<style scoped>
.position p {
  margin: 0;
  display: flex;
  gap: 0.8rem;
  align-items: center;
  justify-content: space-between;
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
  margin-top: 0.5rem;
  align-items: end;
}

label {
  font-size: 0.85rem;
}

.remark {
  grid-column: 1 / -1;
}

.problem {
  color: var(--tv-stop);
  grid-column: 1 / -1;
}
</style>
