<script setup lang="ts">
import { occupied, switchings, type Id } from '@torvek/core/document';
import { figureId, type FigureName } from '@torvek/core/figure';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import PickMany from '../../../parts/PickMany.vue';
import { useJob } from '../../../stores/job';

/** Boxes of modules that a fan may blow outside air through: how much, and how warm their cells settle. */
const job = useJob();
const boxes = computed(() => occupied(job.design).map((id) => [id, job.design.boxes[id]!] as const));
const fig = (name: FigureName<'cooling.air'>, box: Id) => figureId('cooling.air', box, name);
const loads = computed(() => Object.entries(job.design.loads ?? {}).map(([id, { tag }]) => ({ id, tag })));
const switched = switchings.map((value) => ({ value, text: value }));
</script>

<template>
  <section v-if="boxes.length > 0" class="sheet-card" aria-labelledby="air-title" data-air>
    <div class="card-head">
      <h2 id="air-title">Air through boxes</h2>
      <span class="hint">outside air past the cells; what goes through the walls is left out</span>
    </div>
    <div v-for="[id, box] in boxes" :key="id" class="box">
      <PartField
        :path="`boxes.${id}.fan`"
        kind="fan"
        :label="`Fan of ${box.tag}`"
        class="fan"
        none="none: no air is blown through"
      />
      <template v-if="box.fan !== undefined">
        <div class="figures">
          <FigureValue :id="fig('airKgPerS', id)" label="Air" show-label />
          <FigureValue :id="fig('airWPerK', id)" label="Cells to air" show-label />
          <FigureValue :id="fig('outC', id)" label="Leaves at" show-label />
          <FigureValue :id="fig('cellsC', id)" label="Cells settle at" show-label />
        </div>
        <div class="two">
          <ChoiceField
            :path="`boxes.${id}.fanSwitched`"
            label="Switched"
            :options="switched"
            none="always (default)"
          />
          <NumberField :path="`boxes.${id}.airAreaM2`" />
          <NumberField :path="`boxes.${id}.airShareFraction`" />
          <NumberField :path="`boxes.${id}.airFilmWPerM2K`" />
          <NumberField :path="`boxes.${id}.airKgPerS`" />
        </div>
        <PickMany
          :path="`boxes.${id}.fanLoads`"
          :things="loads"
          label="Fed as"
          none="No load of the low voltage feeds it yet."
          ask="which loads"
          :change="`${box.tag}: what feeds its fan`"
        />
      </template>
    </div>
  </section>
</template>

<style scoped>
.box + .box {
  margin-top: 0.6rem;
  padding-top: 0.6rem;
  border-top: 1px solid var(--tv-line);
}

.fan {
  max-width: 28rem;
}

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  margin: 0.5rem 0;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.3rem 1.6rem;
  align-items: end;
  margin-bottom: 0.4rem;
}
</style>
