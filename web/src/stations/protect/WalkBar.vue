<script setup lang="ts">
import type { JointWork } from '@torvek/core/record';
import { formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref, useId } from 'vue';
import type { Walk } from './use-walk';

/** What goes with a walk: the current, the instrument, a remark; it asks about odd values and records. */
defineProps<{ walk: Walk; work: JointWork }>();
const id = useId();
const remark = ref('');
const unit = (work: JointWork) => (work === 'torque' ? 'N·m' : 'V');
</script>

<template>
  <div class="walk" data-walk>
    <label v-if="work !== 'torque'" :for="`${id}-current`"
      >Current that flowed<span class="box"
        ><input
          :id="`${id}-current`"
          :value="walk.currentText.value"
          class="form-control"
          inputmode="decimal"
          autocomplete="off"
          @input="walk.setCurrent(($event.target as HTMLInputElement).value)"
        /><span class="unit">A</span></span
      ></label
    >
    <label :for="`${id}-with`"
      >{{ work === 'torque' ? 'Wrench' : 'Meter'
      }}<select
        :id="`${id}-with`"
        class="form-select"
        :value="walk.chosen.value"
        @change="walk.setInstrument(($event.target as HTMLSelectElement).value)"
      >
        <option v-if="walk.instruments.value.length === 0" value="">not registered</option>
        <option v-for="(one, i) in walk.instruments.value" :key="one.id" :value="i === 0 ? '' : one.id">
          {{ one.name }}
        </option>
      </select></label
    >
    <label :for="`${id}-remark`" class="wide"
      >Remark<input :id="`${id}-remark`" v-model="remark" class="form-control" maxlength="2000"
    /></label>
    <BButton
      size="sm"
      variant="primary"
      :disabled="!walk.mayRecord.value"
      @click="walk.record(remark).then(() => (remark = ''))"
      >Record {{ walk.list.value.length || '' }}</BButton
    >
    <p v-if="walk.list.value.length > 0" class="line">
      <BButton size="sm" variant="light" :disabled="walk.busy.value" @click="walk.takeBack"
        >Take what is typed back</BButton
      >
    </p>
    <p v-if="walk.open.value.length > 0" class="line ask" role="alert">
      {{
        walk.open.value
          .slice(0, 4)
          .map(({ tag, value }) => `${tag}: ${formatQuantity(value, unit(work))}`)
          .join(', ')
      }}
      {{ walk.open.value.length === 1 ? 'is' : 'are' }} far from what is usual. Right as
      {{ walk.open.value.length === 1 ? 'it stands' : 'they stand' }}?
      <BButton size="sm" variant="light" @click="walk.agree">Yes</BButton>
    </p>
    <p v-if="walk.problem.value" class="line ask" role="alert">{{ walk.problem.value }}</p>
    <p v-if="walk.said.value" class="line" role="status">{{ walk.said.value }}</p>
  </div>
</template>

<style scoped>
.walk {
  display: grid;
  grid-template-columns: 9rem 15rem minmax(0, 1fr) auto;
  gap: 0.3rem 0.9rem;
  align-items: end;
  margin-top: 0.6rem;
}

label {
  display: grid;
  font-size: 0.85rem;
  color: var(--tv-soft);
}

.box {
  display: flex;
  align-items: baseline;
  gap: 0.3rem;
}

.form-control,
.form-select {
  height: 1.95rem;
}

.line {
  grid-column: 1 / -1;
  margin: 0;
}

.ask {
  color: var(--tv-stop);
}

@media (max-width: 900px) {
  .walk {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
