<script setup lang="ts">
import {
  conduitKinds,
  entryKinds,
  isHoseRun,
  motorPhases,
  runDefaults,
  runPoles,
  type Id,
} from '@torvek/core/document';
import { figureId, type FigureName } from '@torvek/core/figure';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import FlagField from '../../../parts/FlagField.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';

/** What a run carries, where it ends, how it is bent and clipped. */
const props = defineProps<{ runId: Id }>();
const job = useJob();
const at = computed(() => `runs.${props.runId}`);
const run = computed(() => job.design.runs?.[props.runId]);
const ends = computed(() =>
  [...Object.entries(job.design.boxes), ...Object.entries(job.design.devices)].map(([value, { tag }]) => ({
    value,
    text: tag,
  })),
);
const tube = computed(() => run.value?.points?.some(({ after }) => after === 'conduit') === true);
const carried = computed(() => [
  ...Object.entries(job.design.circuits).map(([id, { tag }]) => ({ id, tag, field: 'circuits' as const })),
  ...Object.entries(job.design.pack.leads ?? {}).map(([id, { tag }]) => ({
    id,
    tag,
    field: 'leads' as const,
  })),
  ...Object.entries(job.design.boards ?? {}).map(([id, { tag }]) => ({
    id,
    tag: `sense wires of ${tag}`,
    field: 'boards' as const,
  })),
  ...Object.entries(job.design.plumbing ?? {})
    .filter(([, { kind }]) => kind === 'hose')
    .map(([id, { tag }]) => ({ id, tag, field: 'hoses' as const })),
]);
const coolant = computed(() => run.value !== undefined && isHoseRun(run.value));
type Carried = (typeof carried.value)[number]['field'];
const carries = (id: Id, field: Carried) => run.value?.[field]?.includes(id) === true;
function toggle(id: Id, field: Carried, tag: string): void {
  const has = carries(id, field);
  job.change(`${run.value?.tag ?? 'Run'} ${has ? 'no longer carries' : 'carries'} ${tag}`, (draft) => {
    const own = draft.runs?.[props.runId];
    if (own === undefined) return;
    const next = has ? own[field]?.filter((one) => one !== id) : [...(own[field] ?? []), id];
    if (next === undefined || next.length === 0) delete own[field];
    else own[field] = next;
  });
}
const inverters = computed(() =>
  Object.entries(job.design.devices).flatMap(([value, { kind, tag }]) =>
    kind === 'inverter' ? [{ value, text: tag }] : [],
  ),
);
const phasesKnown = computed(
  () =>
    run.value?.phasesOf !== undefined &&
    job.figure(figureId('routing.phases', run.value.phasesOf, 'longestM')) !== undefined,
);
const what = computed(() =>
  [
    ...carried.value.filter(({ id, field }) => carries(id, field)).map(({ tag }) => tag),
    ...(run.value?.signals === true ? ['pairs of data or sensors'] : []),
    ...inverters.value
      .filter(({ value }) => value === run.value?.phasesOf)
      .map(({ text }) => `motor phases of ${text}`),
  ].join(', '),
);
const figure = (name: FigureName<'routing.run'>) => figureId('routing.run', props.runId, name);
const isMeasured = computed(() => job.figure(figure('toleranceMm')) !== undefined);
const entries = entryKinds.map((value) => ({
  value,
  text: value === 'dry' ? 'stays dry there' : `a ${value}`,
}));
</script>

<template>
  <div class="fields">
    <div class="figure-row">
      <FigureValue :id="figure('cutLengthM')" show-label />
      <FigureValue :id="figure('pathLengthM')" show-label />
      <FigureValue :id="figure('totalBendDeg')" show-label />
      <FigureValue :id="figure('cablesKg')" show-label />
      <FigureValue v-if="isMeasured" :id="figure('toleranceMm')" show-label />
    </div>
    <TextField :path="`${at}.tag`" label="Name" required />
    <details class="carries" :open="what === ''">
      <summary>
        Carries <b>{{ what === '' ? 'nothing yet' : what }}</b>
      </summary>
      <label v-for="one in carried" :key="one.id">
        <input
          type="checkbox"
          class="form-check-input"
          :checked="carries(one.id, one.field)"
          :disabled="!job.editable"
          @change="toggle(one.id, one.field, one.tag)"
        />
        {{ one.tag }}
      </label>
      <label>
        <input
          type="checkbox"
          class="form-check-input"
          :checked="run?.signals === true"
          :disabled="!job.editable"
          @change="
            job.set(`${at}.signals`, run?.signals === true ? undefined : true, 'Pairs of data or sensors')
          "
        />
        pairs of data or sensors
      </label>
    </details>
    <template v-if="inverters.length > 0 && !coolant">
      <ChoiceField :path="`${at}.phasesOf`" label="Motor phases of" :options="inverters" none="none" />
      <template v-if="run?.phasesOf !== undefined">
        <ChoiceField
          :path="`${at}.phase`"
          label="which"
          :options="motorPhases.map((value) => ({ value, text: `${value} alone` }))"
          none="all three, default"
        />
        <PartField
          :path="`devices.${run.phasesOf}.phaseCable`"
          kind="cable"
          label="Cable of each phase"
          none="not chosen"
        />
        <FlagField :path="`devices.${run.phasesOf}.phaseScreened`" label="phases screened" />
        <div v-if="phasesKnown" class="figure-row">
          <FigureValue :id="figureId('routing.phases', run.phasesOf, 'shortestM')" show-label />
          <FigureValue :id="figureId('routing.phases', run.phasesOf, 'longestM')" show-label />
        </div>
      </template>
    </template>
    <p v-if="coolant" class="soft">
      Points lead from where the coolant of the hose comes to where it goes. Its length counts for flow and
      filling; joins without a place of their own lie at its ends.
    </p>
    <ChoiceField
      v-else
      :path="`${at}.poles`"
      label="Poles"
      :options="runPoles.map((value) => ({ value, text: value === 'both' ? 'both' : `${value} alone` }))"
      none="both, default"
    />
    <ChoiceField :path="`${at}.from`" label="Begins at" :options="ends" none="not said" />
    <FlagField :path="`${at}.fromFixed`" label="its beginning can no longer move" />
    <ChoiceField :path="`${at}.fromEntry`" label="enters by" :options="entries" none="not said" />
    <NumberField :path="`${at}.fromLoopMm`" />
    <ChoiceField :path="`${at}.to`" label="Ends at" :options="ends" none="not said" />
    <FlagField :path="`${at}.toFixed`" label="its end can no longer move" />
    <ChoiceField :path="`${at}.toEntry`" label="enters by" :options="entries" none="not said" />
    <NumberField :path="`${at}.toLoopMm`" />
    <NumberField :path="`${at}.bendRadiusMm`" />
    <NumberField :path="`${at}.minBendFactor`" />
    <template v-if="tube">
      <ChoiceField
        :path="`${at}.conduit`"
        label="Conduit"
        :options="conduitKinds.map((value) => ({ value, text: value }))"
        none="not said"
      />
      <NumberField :path="`${at}.conduitInnerMm`" />
      <NumberField :path="`${at}.conduitOuterMm`" />
      <ChoiceField
        v-if="run?.conduit === 'steel' || run?.conduit === 'aluminium'"
        :path="`${at}.fittings`"
        label="Its fittings"
        :options="[
          { value: 'metal', text: 'of metal' },
          { value: 'plastic', text: 'of plastic' },
        ]"
        none="not said"
      />
      <FlagField
        v-if="run?.fittings === 'plastic'"
        :path="`${at}.bondedAcross`"
        label="a strap across each"
      />
      <FlagField :path="`${at}.drained`" label="a drain at its lowest point" />
    </template>
    <NumberField :path="`${at}.clipSpacingMm`" />
    <NumberField :path="`${at}.clipFromEndMm`" />
    <NumberField v-if="job.design.vehicle.noNewHoles" :path="`${at}.freeSpanMm`" />
    <NumberField :path="`${at}.slackFraction`" />
    <NumberField :path="`${at}.terminationMm`" />
    <NumberField :path="`${at}.cutLengthM`" />
    <p class="soft">
      Slack {{ runDefaults.slackFraction * 100 }} % and {{ runDefaults.terminationMm }} mm for each
      termination unless said otherwise. A length measured in place counts instead of what the points give.
    </p>
  </div>
</template>

<style scoped>
.carries {
  margin: 0.3rem 0;
  font-size: 0.9rem;
}

.carries label {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
  margin: 0.2rem 0.8rem 0 0;
}

.figure-row {
  margin: 0 0 0.4rem;
}

p {
  font-size: 0.85rem;
  margin: 0.3rem 0 0;
}
</style>
