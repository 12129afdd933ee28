<script setup lang="ts">
import { canOpen, pathFaults, type DerivedElement, type Network } from '@torvek/core/network';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { goToPath } from '../../parts/go-to-path';
import { useJob } from '../../stores/job';
import type { WhatIf } from './what-if';

/** The picked symbol: its switches for the what-if, its fuses towards the sources, the fault current there. */
const props = defineProps<{ network: Network; picked: string | null; whatIf: WhatIf }>();
const emit = defineEmits<{ pick: [id: string | null] }>();
const job = useJob();
const router = useRouter();
const symbol = computed(() => props.network.symbols.find(({ id }) => id === props.picked) ?? null);
const elements = computed(() => {
  const ids = new Set(symbol.value?.elements ?? []);
  return props.network.elements.filter(({ id }) => ids.has(id));
});
const switches = computed(() => elements.value.filter(canOpen));
const tagOf = (id: string) => props.network.elements.find((one) => one.id === id)?.tag ?? id;

/** Where a short is thought of: across both poles at the symbol, or across a group of modules. */
const poles = computed<[minus: string, plus: string] | null>(() => {
  const one = symbol.value;
  if (one === null) return null;
  const load = elements.value.find(({ kind }) => kind === 'load');
  if (load !== undefined) return [load.a, load.b];
  if (one.kind === 'modules') {
    const modules = elements.value.filter(({ kind }) => kind === 'module');
    return [modules[0]!.a, modules.at(-1)!.b];
  }
  const line =
    props.network.lines.find(({ from, poles: count }) => from === one.id && count === 2) ??
    props.network.lines.find(({ to, poles: count }) => to === one.id && count === 2);
  const [plus, minus] = line?.terminals ?? [];
  return plus === undefined || minus === undefined ? null : [minus, plus];
});

interface Fault {
  amps: number;
  volts: number;
  ohms: number | null;
  fuses: string[];
  unprotected: boolean;
  /** Elements counted with no resistance, for it is not known. */
  unknown: number;
}
/** Asked for by a click: a solved network is more than a glance needs. */
const fault = shallowRef<Fault | string | null>(null);
watch([() => props.picked, () => props.network], () => (fault.value = null));

function computeFault(): void {
  if (poles.value === null) return;
  const [a, b] = poles.value;
  const at: DerivedElement = {
    id: '(fault)',
    kind: 'load',
    a,
    b,
    closed: true,
    reach: '(fault)',
    tag: '',
    symbol: '',
    owner: '',
    resistanceOhm: 0,
    resistanceGiven: true,
  };
  const parsed = pathFaults.parse({
    elements: [...props.network.elements, at].map((one) => ({
      id: one.id,
      kind: one.kind,
      a: one.a,
      b: one.b,
      closed: true,
      reach: one.reach,
      ...(one.voltageV !== undefined && { voltageV: one.voltageV }),
      ...(one.kind !== 'load' && { resistanceOhm: one.resistanceOhm }),
    })),
    from: '(fault)',
  });
  if (!parsed.ok) {
    fault.value = `Not computed: ${parsed.issues[0]?.message ?? 'the network is not complete'}`;
    return;
  }
  const { result } = pathFaults.calculate(parsed.input);
  const counted = props.network.elements.filter(
    ({ kind, resistanceGiven }) =>
      !resistanceGiven && kind !== 'load' && kind !== 'link' && kind !== 'connector' && kind !== 'resistor',
  );
  fault.value = {
    amps: result.prospectiveA,
    volts: result.sourceVoltageV,
    ohms: result.pathResistanceOhm,
    fuses: result.fuses,
    unprotected: result.unprotected,
    unknown: counted.length,
  };
}

const place = computed(() => (symbol.value === null ? null : symbol.value.path));
</script>

<template>
  <div class="detail" data-detail>
    <p v-if="symbol === null" class="soft">
      Choose a symbol: its way to the sources lights up, and its switches can be tried. Double click, or Enter
      twice, switches it.
    </p>
    <template v-else>
      <div class="name">
        <b>{{ symbol.tag }}</b>
        <span>{{ [symbol.words, symbol.rating].filter((text) => text !== '').join(', ') }}</span>
        <button
          v-if="place"
          type="button"
          class="btn btn-quiet btn-sm"
          @click="goToPath(router, job.id, place)"
        >
          where it is decided
        </button>
        <button
          type="button"
          class="btn btn-quiet btn-sm close"
          aria-label="Choose nothing"
          @click="emit('pick', null)"
        >
          ×
        </button>
      </div>
      <div v-if="switches.length > 0" class="switches">
        <label v-for="one in switches" :key="one.id"
          ><input
            type="checkbox"
            class="form-check-input"
            :checked="!whatIf.open.value.has(one.id)"
            @change="whatIf.toggle([one.id], !whatIf.open.value.has(one.id))"
          />
          {{ one.tag }} {{ whatIf.open.value.has(one.id) ? 'open' : 'closed' }}</label
        >
      </div>
      <div v-if="poles" class="fault">
        <button v-if="fault === null" type="button" class="btn btn-quiet btn-sm" @click="computeFault">
          Short circuit here?
        </button>
        <span v-else-if="typeof fault === 'string'">{{ fault }}</span>
        <span v-else-if="fault.amps === 0">Nothing feeds a short here.</span>
        <span v-else>
          A short here, every switch closed: <b>{{ formatNumber(fault.amps, 3) }} A</b> from
          {{ formatNumber(fault.volts, 4) }} V over {{ formatQuantity(fault.ohms ?? 0, 'Ω') }};
          {{
            fault.fuses.length === 0
              ? 'no fuse sees it.'
              : `fuses from the source on: ${fault.fuses.map(tagOf).join(', ')}.`
          }}
          <b v-if="fault.unprotected" class="bad">Fed past every fuse.</b>
          <span v-if="fault.unknown > 0" class="soft"
            >{{ fault.unknown }} resistances are not known and count as nothing: less may flow, not
            more.</span
          >
        </span>
      </div>
    </template>
  </div>
</template>

<style scoped>
.detail {
  min-height: 2.6rem;
  border-top: 1px solid var(--tv-line);
  border-bottom: 1px solid var(--tv-line);
  padding: 0.35rem 0;
  margin-bottom: 0.5rem;
  display: grid;
  gap: 0.3rem;
}

.detail p {
  margin: 0;
}

.name {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  flex-wrap: wrap;
}

.close {
  margin-left: auto;
}

.switches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  font-size: 0.9rem;
}

.switches label {
  display: flex;
  gap: 0.35rem;
  align-items: center;
}

.bad {
  color: var(--tv-stop);
}
</style>
