<script setup lang="ts">
import { serviceKinds, type Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import ChoiceField from '../../../parts/ChoiceField.vue';
import GradeMark from '../../../parts/GradeMark.vue';
import NumberField from '../../../parts/NumberField.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import { yesNo } from '../use-supplies';

/** What the engine did, and what does it now: feed, peak, reserve, and who is told when it fails. */
const job = useJob();
const rows = computed(() => Object.entries(job.design.services ?? {}).map(([id, item]) => ({ id, item })));
const at = (id: Id, field: string) => `services.${id}.${field}`;
const loads = computed(() =>
  Object.entries(job.design.loads ?? {}).map(([value, { tag }]) => ({ value, text: tag })),
);
const devices = computed(() =>
  Object.entries(job.design.devices)
    .filter(([, { kind }]) => kind === 'heater' || kind === 'compressor' || kind === 'other')
    .map(([value, { tag }]) => ({ value, text: tag })),
);
const n = (value: number) => formatNumber(value, 3);
function fed(load: Id | undefined): string {
  const item = load === undefined ? undefined : job.design.loads?.[load];
  if (item === undefined) return '';
  const amps = job.figure(figureId('low-voltage.load', load!, 'currentA'))?.value ?? null;
  return [
    amps === null ? null : `${n(amps)} A`,
    item.peakW === undefined ? null : `peak ${n(item.peakW)} W`,
    item.fuseA === undefined ? 'no fuse given' : `fuse ${n(item.fuseA)} A`,
  ]
    .filter((one) => one !== null)
    .join(', ');
}
const wrong = computed(() => {
  const found = new Map<Id, string[]>();
  for (const check of job.checks)
    if (check.state === 'raised' && check.rule.id.startsWith('low-voltage.'))
      for (const id of check.subjects)
        if (job.design.services?.[id] !== undefined) found.set(id, [...(found.get(id) ?? []), check.message]);
  return found;
});
function add(): void {
  job.change('Service added', (draft) => {
    const all = (draft.services ??= {});
    all[newId('service')] = { tag: `Service ${Object.keys(all).length + 1}`, kind: 'brake assistance' };
  });
}
const remove = (id: Id, name: string) =>
  job.change(`${name} removed`, (draft) => void delete draft.services?.[id]);
const missing = computed(() =>
  serviceKinds.filter(
    (kind) =>
      ['brake assistance', 'steering assistance', 'cabin heat', 'demisting'].includes(kind) &&
      !rows.value.some(({ item }) => item.kind === kind),
  ),
);
</script>

<template>
  <section class="sheet-card" aria-labelledby="services-title" data-services>
    <div class="card-head">
      <h2 id="services-title">What the engine did</h2>
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">Another service</BButton>
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      An engine gave vacuum, pressure, heat and turning shafts. Name each that this vehicle had, and what does
      it now.
    </p>
    <p v-else-if="missing.length > 0" class="soft">
      Not named here: {{ missing.join(', ') }}. A vehicle that never had it needs none.
    </p>
    <div v-for="{ id, item } in rows" :key="id" class="service" :data-service="id">
      <div class="top">
        <TextField :path="at(id, 'tag')" label="Name" required />
        <TextField :path="at(id, 'successor')" label="Done now by" placeholder="what took over" />
        <RemoveButton :name="item.tag" @remove="remove(id, item.tag)" />
      </div>
      <div class="fields">
        <ChoiceField
          :path="at(id, 'kind')"
          label="Service"
          :options="serviceKinds.map((value) => ({ value, text: value }))"
          none="—"
        />
        <ChoiceField :path="at(id, 'load')" label="Fed as the load" :options="loads" none="none" />
        <ChoiceField :path="at(id, 'device')" label="High-voltage device" :options="devices" none="none" />
        <ChoiceField :path="at(id, 'warns')" label="Warns when it fails" :options="yesNo" none="not said" />
        <NumberField v-if="item.kind === 'brake assistance'" :path="at(id, 'reserveCount')" />
        <NumberField :path="at(id, 'runOnS')" />
        <template v-if="item.device !== undefined">
          <ChoiceField
            :path="at(id, 'withBlower')"
            label="Interlocked with its blower"
            :options="yesNo"
            none="not said"
          />
          <ChoiceField
            :path="at(id, 'cutOut')"
            label="Thermal cut-out of its own"
            :options="yesNo"
            none="not said"
          />
        </template>
      </div>
      <p v-if="item.load !== undefined" class="soft">{{ fed(item.load) }}</p>
      <p v-for="message in wrong.get(id) ?? []" :key="message" class="wrong">
        <GradeMark grade="mend" /> {{ message }}
      </p>
    </div>
    <p class="soft">
      That a failure is noticed is tried on purpose, standing, before the first drive: the pump off, the pedal
      pressed until the warning shows.
    </p>
  </section>
</template>

<style scoped>
.service {
  padding: 0.5rem 0;
  border-top: 1px solid var(--tv-line);
}

.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr) 2.2rem;
  gap: 0.2rem 1.6rem;
  align-items: end;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  margin-top: 0.2rem;
}

.wrong {
  margin: 0.2rem 0 0;
}
</style>
