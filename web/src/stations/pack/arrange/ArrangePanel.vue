<script setup lang="ts">
import type { Design, Id } from '@torvek/core/document';
import { partKey } from '@torvek/core/parts';
import { pin, unpinUnused } from '@torvek/core/pack';
import { computed, ref, shallowRef } from 'vue';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { alongString, beforeModule, intoBox, tallyOf, tried } from './moves';
import PlanView from './PlanView.vue';
import ProposalList from './ProposalList.vue';
import TallyLine from './TallyLine.vue';

/** Which module sits in which box, and in which order the string runs through them. */
const job = useJob();
const shelf = useLibrary();
const chosen = shallowRef<ReadonlySet<Id>>(new Set());
/** Carried by mouse or by keys; where to. */
const carrying = ref(false);
const target = ref<string | null>(null);
const zoom = ref<Id | null>(null);
const plan = ref<InstanceType<typeof PlanView>>();
const said = ref('');

const boxes = computed(() => Object.entries(job.design.boxes));
const targets = computed(() => [...boxes.value.map(([id]) => id), 'none']);
const boxTag = (id: string | null) =>
  id === null || id === 'none' ? 'no box' : (job.design.boxes[id]?.tag ?? '');
const moving = computed(() => [...chosen.value].filter((id) => job.design.modules[id] !== undefined));
const move = (draft: Design) => intoBox(draft, moving.value, target.value === 'none' ? null : target.value);

const now = computed(() => tallyOf(job.design));
/** As it would be if what is carried were put down here. */
const then = computed(() =>
  carrying.value && target.value !== null ? tallyOf(tried(job.design, move)) : now.value,
);
const shown = computed(() => [
  {
    name: 'front axle',
    value: then.value.axles?.frontKg,
    was: now.value.axles?.frontKg,
    unit: 'kg',
    digits: 4,
    limit: job.design.vehicle.frontLimitKg,
  },
  {
    name: 'rear axle',
    value: then.value.axles?.rearKg,
    was: now.value.axles?.rearKg,
    unit: 'kg',
    digits: 4,
    limit: job.design.vehicle.rearLimitKg,
  },
  {
    name: 'shift',
    value: then.value.axles?.shiftPoints,
    was: now.value.axles?.shiftPoints,
    unit: 'points',
    digits: 3,
  },
  { name: 'boxes, full', value: then.value.totalKg, was: now.value.totalKg, unit: 'kg', digits: 4 },
  { name: 'joints in boxes', value: then.value.linksInside, was: now.value.linksInside, unit: '', digits: 3 },
  { name: 'box to box', value: then.value.linksBetween, was: now.value.linksBetween, unit: '', digits: 3 },
  { name: 'cable, about', value: then.value.wayM, was: now.value.wayM, unit: 'm', digits: 3 },
]);

function choose(module: Id, add: boolean): void {
  const next = new Set(add ? chosen.value : []);
  if (add && next.has(module)) next.delete(module);
  else next.add(module);
  chosen.value = next;
}

function carry(module: Id): void {
  if (!chosen.value.has(module)) chosen.value = new Set([module]);
  carrying.value = true;
  target.value = job.design.modules[module]?.box ?? 'none';
}

const names = () =>
  moving.value.length === 1
    ? (job.design.modules[moving.value[0]!]?.tag ?? '')
    : `${moving.value.length} modules`;

function drop({ box, before }: { box: string | null; before: Id | null }): void {
  carrying.value = false;
  target.value = null;
  if (box === null) return;
  const modules = moving.value;
  const isHome = modules.every((id) => (job.design.modules[id]?.box ?? 'none') === box);
  const beforeTag = before === null ? undefined : job.design.modules[before]?.tag;
  const label =
    isHome && beforeTag !== undefined ? `${names()} before ${beforeTag}` : `${names()} into ${boxTag(box)}`;
  job.change(label, (draft) => {
    intoBox(draft, modules, box === 'none' ? null : box);
    if (before !== null && !modules.includes(before) && isHome) beforeModule(draft, modules, before);
  });
  said.value = label;
}

/** Space picks up and puts down; arrows choose the box meanwhile, or walk along the string. */
function key(event: KeyboardEvent, module: Id): void {
  const { key: name } = event;
  const handled = () => {
    event.preventDefault();
    event.stopPropagation();
  };
  if (name === ' ' || name === 'Enter') {
    handled();
    if (carrying.value) {
      drop({ box: target.value, before: null });
      plan.value?.focus(module);
    } else if (job.editable) {
      carry(module);
      said.value = `${names()} picked up; arrows choose the box, Space puts down, Esc leaves it`;
    }
    return;
  }
  if (name === 'Escape' && carrying.value) {
    handled();
    carrying.value = false;
    target.value = null;
    said.value = 'left where it was';
    return;
  }
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[name];
  if (step === undefined) return;
  handled();
  if (event.altKey) {
    reorder(module, step as 1 | -1);
    return;
  }
  if (carrying.value) {
    const at = targets.value.indexOf(target.value ?? 'none');
    target.value = targets.value[(at + step + targets.value.length) % targets.value.length]!;
    said.value = `over ${boxTag(target.value)}`;
    return;
  }
  const all = [
    ...Object.values(job.design.strings).flatMap(({ modules }) => modules),
    ...Object.keys(job.design.modules),
  ];
  const next = all[(all.indexOf(module) + step + all.length) % all.length]!;
  chosen.value = new Set([next]);
  plan.value?.focus(next);
}

function reorder(module: Id, by: 1 | -1): void {
  const { tag } = job.design.modules[module]!;
  job.change(`${tag} one place ${by > 0 ? 'later' : 'earlier'} in its string`, (draft) =>
    alongString(draft, module, by),
  );
  plan.value?.focus(module);
}

const one = computed(() => (moving.value.length === 1 ? job.design.modules[moving.value[0]!] : undefined));
const kinds = computed(() => shelf.library.of('module'));
function setKind(event: Event): void {
  const part = kinds.value.find((kind) => partKey(kind) === (event.target as HTMLSelectElement).value);
  if (part === undefined) return;
  job.change(`${names()}: ${part.label}`, (draft) => {
    const keyOfPart = pin(draft, part);
    for (const id of moving.value) draft.modules[id]!.part = keyOfPart;
    unpinUnused(draft);
  });
}
const staying = computed(() => moving.value.filter((id) => job.design.modules[id]!.stays === true).length);
function setStays(event: Event): void {
  const stays = (event.target as HTMLInputElement).checked;
  job.change(`${names()} ${stays ? 'stays in its box' : 'may go to another box'}`, (draft) => {
    for (const id of moving.value) {
      if (stays) draft.modules[id]!.stays = true;
      else delete draft.modules[id]!.stays;
    }
  });
}
function setBox(event: Event): void {
  target.value = (event.target as HTMLSelectElement).value;
  drop({ box: target.value, before: null });
}
</script>

<template>
  <section class="sheet-card arrange" aria-label="Arrange" data-arrange>
    <div class="card-head">
      <h2>Arrange</h2>
      <span class="hint">drag modules between boxes; on another module of its string: before it</span>
      <label v-if="boxes.length > 1" class="zoom"
        >show
        <select v-model="zoom" class="form-select" aria-label="Part of the vehicle shown">
          <option :value="null">whole vehicle</option>
          <option v-for="[id, box] in boxes" :key="id" :value="id">{{ box.tag }}</option>
        </select>
      </label>
    </div>
    <TallyLine :items="shown" />
    <p v-if="boxes.length === 0" class="soft">No box yet: add one below, with its place and sizes.</p>
    <PlanView
      v-else
      ref="plan"
      :chosen="chosen"
      :target="target"
      :box-kg="then.boxKg"
      :zoom="zoom ?? (boxes.length === 1 ? boxes[0]![0] : null)"
      @choose="choose"
      @carry="carry"
      @over="target = $event"
      @drop="drop"
      @key="key"
    />
    <div class="chosen">
      <template v-if="moving.length === 0"
        ><span class="soft"
          >Nothing chosen. With keys: arrows walk along the string, Space picks up, Alt+arrows reorder.</span
        ></template
      >
      <template v-else>
        <b>{{ one === undefined ? `${moving.length} modules` : one.tag }}</b>
        <label
          >in
          <select
            class="form-select"
            aria-label="Box of the chosen"
            :disabled="!job.editable"
            @change="setBox"
          >
            <option value="none" :selected="one?.box === undefined">no box</option>
            <option v-for="[id, box] in boxes" :key="id" :value="id" :selected="one?.box === id">
              {{ box.tag }}
            </option>
          </select>
        </label>
        <template v-if="one !== undefined && job.editable">
          <button type="button" class="btn btn-quiet btn-sm" @click="reorder(moving[0]!, -1)">earlier</button>
          <button type="button" class="btn btn-quiet btn-sm" @click="reorder(moving[0]!, 1)">later</button>
        </template>
        <label
          >kind
          <select
            class="form-select kind"
            aria-label="Kind of the chosen"
            :disabled="!job.editable"
            @change="setKind"
          >
            <option v-if="one === undefined" value="">as they are</option>
            <option
              v-for="kind in kinds"
              :key="partKey(kind)"
              :value="partKey(kind)"
              :selected="one?.part === partKey(kind)"
            >
              {{ kind.label }}
            </option>
          </select>
        </label>
        <label title="Proposals leave it there"
          ><input
            type="checkbox"
            class="form-check-input"
            aria-label="Stays in its box"
            :checked="staying === moving.length"
            :indeterminate="staying > 0 && staying < moving.length"
            :disabled="!job.editable"
            @change="setStays"
          />stays</label
        >
        <button type="button" class="btn btn-quiet btn-sm" @click="chosen = new Set()">choose none</button>
      </template>
    </div>
    <p class="visually-hidden" role="status">{{ said }}</p>
    <ProposalList />
  </section>
</template>

<style scoped>
.zoom {
  margin-left: auto;
  display: flex;
  gap: 0.4rem;
  align-items: center;
  font-size: 0.9rem;
}

.zoom select,
.chosen select {
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
  width: 11rem;
}

.chosen select.kind {
  width: 13rem;
}

.chosen {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.6rem;
  align-items: center;
  min-height: 2.3rem;
  margin-top: 0.3rem;
}

.chosen label {
  display: flex;
  gap: 0.35rem;
  align-items: center;
}
</style>
