<script setup lang="ts">
import {
  crimpSchools,
  faces,
  pollutionDegrees,
  preparations,
  stackItems,
  type StackItem,
} from '@torvek/core/document';
import { betweenFaces, galvanicLimitV, galvanicV, springOnFace } from '@torvek/core/joints';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import ChoiceCell from '../../parts/ChoiceCell.vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import TextField from '../../parts/TextField.vue';
import { useJob } from '../../stores/job';

/** One kind of joint: its stack as it lies on the stud, its faces, what is done to it. */
const props = defineProps<{ kind: string }>();
const job = useJob();
const item = computed(() => job.design.joints?.[props.kind]);
const at = (field: string) => `joints.${props.kind}.${field}`;
const stack = computed(() => item.value?.stack ?? []);
/** Breadth and height of each piece in the picture, px. */
const shapes: Record<StackItem, [number, number]> = {
  post: [92, 26],
  bar: [210, 14],
  lug: [150, 12],
  washer: [84, 7],
  spring: [64, 10],
  nut: [70, 24],
  bolt: [74, 22],
};
const carries = (piece: StackItem) => piece === 'post' || piece === 'bar' || piece === 'lug';
const between = computed(() => betweenFaces(stack.value));
/** The top comes first on the screen. */
const shown = computed(() =>
  stack.value
    .map((piece, i) => {
      const next = stack.value[i + 1];
      return {
        piece,
        i,
        shape: shapes[piece],
        /** Current goes from this piece into the one above it. */
        face: next !== undefined && carries(piece) && carries(next),
        wrong:
          (piece === between.value && i > 0 && i < stack.value.findLastIndex(carries)) ||
          (piece === 'spring' && springOnFace(stack.value) && i > 0 && carries(stack.value[i - 1]!)),
      };
    })
    .reverse(),
);
const put = (next: StackItem[], what: string) =>
  job.set(
    at('stack'),
    next.length === 0 ? undefined : next,
    `${what} in the stack of ${item.value?.tag ?? ''}`,
  );
function add(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const piece = stackItems.find((one) => one === select.value);
  select.value = '';
  if (piece !== undefined) put([...stack.value, piece], `${piece} on top`);
}
const remove = (i: number) =>
  put(
    stack.value.filter((_, k) => k !== i),
    `${stack.value[i]} taken out`,
  );
function lift(i: number): void {
  const next = [...stack.value];
  [next[i], next[i + 1]] = [next[i + 1]!, next[i]!];
  put(next, `${stack.value[i]} one up`);
}
const metals = computed(() => {
  const { face, otherFace, pollution = 2 } = item.value ?? {};
  if (face === undefined || otherFace === undefined) return 'Both faces are asked for.';
  return `${formatNumber(galvanicV(face, otherFace))} V between them; ${formatNumber(galvanicLimitV(pollution))} V are allowed here.`;
});
const options = (all: readonly string[]) => all.map((value) => ({ value, text: value }));
const words = {
  none: 'none',
  brushed: 'brushed',
  'brushed-paste': 'brushed under paste',
  crimp: 'crimp alone',
  'crimp-solder': 'crimp, then solder',
} as const;
const degrees = pollutionDegrees.map((value) => ({
  value,
  text: ['1, sealed', '2, in a box', '3, wet or dirty'][value - 1]!,
}));
</script>

<template>
  <div v-if="item !== undefined" class="detail" data-joint-detail>
    <figure
      class="stack"
      :aria-label="`Stack of ${item.tag}, from the top: ${[...stack].reverse().join(', ')}`"
    >
      <figcaption>
        <b>{{ item.tag }}</b> <span class="soft">from the top; current goes through orange faces</span>
      </figcaption>
      <p v-if="stack.length === 0" class="soft">No stack yet: add its pieces from the bottom.</p>
      <ol v-else>
        <li v-for="one in shown" :key="one.i" :class="{ wrong: one.wrong }">
          <span class="picture"
            ><span
              class="piece"
              :class="{ carries: carries(one.piece), face: one.face }"
              :style="{ width: `${one.shape[0]}px`, height: `${one.shape[1]}px` }"
            ></span
          ></span>
          <span class="name">{{ one.piece }}<span v-if="one.wrong"> ✕</span></span>
          <button
            type="button"
            class="btn btn-quiet btn-sm"
            :disabled="!job.editable || one.i === stack.length - 1"
            :aria-label="`${one.piece} one up`"
            @click="lift(one.i)"
          >
            ↑
          </button>
          <button
            type="button"
            class="btn btn-quiet btn-sm"
            :disabled="!job.editable"
            :aria-label="`Take ${one.piece} out`"
            @click="remove(one.i)"
          >
            ✕
          </button>
        </li>
      </ol>
      <select
        class="form-select add"
        aria-label="Piece put on top"
        :data-path="at('stack')"
        :disabled="!job.editable"
        @change="add"
      >
        <option value="">put on top …</option>
        <option v-for="one in stackItems" :key="one" :value="one">{{ one }}</option>
      </select>
    </figure>
    <div class="facts">
      <div class="pick">
        <span>Faces that meet</span>
        <span class="two">
          <ChoiceCell :path="at('face')" label="First face" :options="options(faces)" none="?" />
          <ChoiceCell :path="at('otherFace')" label="Second face" :options="options(faces)" none="?" />
        </span>
      </div>
      <p class="soft">{{ metals }}</p>
      <ChoiceField
        :path="at('preparation')"
        label="Prepared"
        :options="preparations.map((value) => ({ value, text: words[value] }))"
        none="?"
      />
      <ChoiceField :path="at('pollution')" label="Pollution degree" :options="degrees" none="2, default" />
      <template v-if="item.on === 'lugs'">
        <ChoiceField
          :path="at('crimp')"
          label="Crimped"
          :options="crimpSchools.map((value) => ({ value, text: words[value] }))"
          none="crimp alone, default"
        />
        <TextField :path="at('die')" label="Die" />
      </template>
      <NumberField :path="at('retorqueDays')" />
      <NumberField :path="at('limitOhm')" />
      <div class="figure-row">
        <FigureValue :id="`joints.kind:${kind}:forceN`" show-label />
        <FigureValue :id="`joints.kind:${kind}:proofShare`" show-label />
      </div>
    </div>
  </div>
</template>

<style scoped>
.detail {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 1.6rem;
  margin-top: 0.9rem;
}

.stack {
  margin: 0;
}

ol {
  list-style: none;
  margin: 0.5rem 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 220px 4.6rem auto auto 1fr;
  align-items: center;
  min-height: 1.9rem;
  gap: 0 0.3rem;
}

/* The stud goes through all of them. */
.picture {
  display: flex;
  justify-content: center;
  align-items: center;
  align-self: stretch;
  background: linear-gradient(90deg, transparent 100px, var(--tv-line) 100px 120px, transparent 120px);
}

.piece {
  display: block;
  background: var(--tv-grey-fill);
  border: 1px solid var(--tv-soft);
}

.carries {
  background: var(--tv-hv-fill);
  border-color: var(--tv-hv);
}

.face {
  border-top: 3px solid var(--tv-hv);
}

.wrong .name {
  color: var(--tv-stop);
  font-weight: 600;
}

.add {
  width: 11rem;
  height: 1.9rem;
  padding-top: 0.1rem;
  padding-bottom: 0.1rem;
}

.pick {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
  align-items: center;
  min-height: 2rem;
  font-size: 0.9rem;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
}

.facts p {
  margin: 0 0 0.2rem;
  font-size: 0.85rem;
  text-align: right;
}

@media (max-width: 900px) {
  .detail {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
