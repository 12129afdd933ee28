<script setup lang="ts">
import { deriveNetwork, stagesOf } from '@torvek/core/network';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';

/** What stands open or closed on the vehicle now; the nameplate shows it until the next entry. */
const job = useJob();
const shown = ref(false);
const form = reactive({ stage: '', remark: '' });
const stages = computed(() => stagesOf(job.design, deriveNetwork(job.design)));
const boards = computed(() => Object.entries(job.design.boards ?? {}).map(([id, { tag }]) => ({ id, tag })));
/** Boards whose sense plugs are in: as last said, until it is changed here. */
const ticked = ref<string[] | null>(null);
const plugged = computed({
  get: () => ticked.value ?? job.live.plugged ?? [],
  set: (ids) => (ticked.value = ids),
});
const boxes = computed(() => Object.entries(job.design.boxes).map(([id, { tag }]) => ({ id, tag })));
/** Boxes whose lids are off: as last said, until it is changed here. */
const lids = ref<string[] | null>(null);
const lidsOff = computed({
  get: () => lids.value ?? job.live.lidsOff ?? [],
  set: (ids) => (lids.value = ids),
});
const stage = computed(() => stages.value.find(({ id }) => id === form.stage));
const problem = ref<string | null>(null);
const busy = ref(false);

async function save(): Promise<void> {
  if (stage.value === undefined) {
    problem.value = 'Choose the state the vehicle stands in.';
    return;
  }
  busy.value = true;
  problem.value = null;
  try {
    const remark = form.remark.trim();
    const body = { id: newId('entry'), kind: 'position', open: stage.value.open };
    await job.record(
      {
        ...body,
        ...(ticked.value !== null && { plugged: ticked.value }),
        ...(lids.value !== null && { lidsOff: lids.value }),
        ...(remark !== '' && { remark }),
      },
      stage.value.title,
    );
    ticked.value = null;
    lids.value = null;
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
      <b>{{ job.assessment.position === null ? 'State not recorded: treat as live' : job.live.text }}</b>
      <BButton size="sm" variant="light" :aria-expanded="shown" @click="shown = !shown">{{
        shown ? 'Leave it' : 'Record another state'
      }}</BButton>
    </p>
    <form v-if="shown" @submit.prevent="save">
      <label
        >The vehicle stands<select v-model="form.stage" class="form-select">
          <option value="" disabled>choose one</option>
          <option v-for="one in stages" :key="one.id" :value="one.id">{{ one.title }}</option>
        </select></label
      >
      <p class="what">
        {{ stage?.what ?? '' }}
        <RouterLink :to="{ name: 'network', params: { job: job.id } }"
          >Otherwise, piece by piece in Network</RouterLink
        >
      </p>
      <fieldset v-if="boards.length > 0" class="plugs" data-plugs>
        <legend>
          Sense plugs in{{ ticked === null && job.live.plugged === null ? ' (not said yet)' : '' }}
        </legend>
        <label v-for="one in boards" :key="one.id"
          ><input v-model="plugged" type="checkbox" class="form-check-input" :value="one.id" />
          {{ one.tag }}</label
        >
      </fieldset>
      <fieldset v-if="boxes.length > 0" class="plugs" data-lids>
        <legend>Lids off{{ lids === null && job.live.lidsOff === null ? ' (not said yet)' : '' }}</legend>
        <label v-for="one in boxes" :key="one.id"
          ><input v-model="lidsOff" type="checkbox" class="form-check-input" :value="one.id" />
          {{ one.tag }}</label
        >
      </fieldset>
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

.what {
  font-size: 0.9rem;
  display: block !important;
}

.plugs {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.1rem;
}

.plugs legend {
  float: none;
  font-size: 0.85rem;
  margin: 0;
}

.remark {
  grid-column: 1 / -1;
}

.problem {
  color: var(--tv-stop);
  grid-column: 1 / -1;
}
</style>
