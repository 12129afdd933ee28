<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import {
  restOfCard,
  springbackOf,
  type BendCardInput,
  type BendCardResult,
  type BentBend,
} from '@torvek/core/routing';
import { useStorage } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import { turnText } from './tube-drawing';

/** Bends as they came out: the rest of the card is solved again for where the tube has to end. */
const props = defineProps<{
  tube: string;
  runId: Id;
  input: BendCardInput;
  card: BendCardResult;
  mirror: boolean;
}>();
const job = useJob();
const session = useSession();
/** Typed at the bender: it lies in the browser, by tube and by its twin. */
const typed = useStorage<Record<string, { angle: string; turn: string }[]>>(
  `torvek.bent.${session.person?.id ?? ''}.${job.id}`,
  {},
);
const key = computed(() => `${props.tube}${props.mirror ? ' mirrored' : ''}`);
const rows = computed(() => typed.value[key.value] ?? []);
function type(i: number, field: 'angle' | 'turn', event: Event): void {
  const next = props.card.bends.map((_bend, at) => rows.value[at] ?? { angle: '', turn: '' });
  next[i] = { ...next[i]!, [field]: (event.target as HTMLInputElement).value };
  typed.value = { ...typed.value, [key.value]: next };
}
const read = (text: string | undefined, least: number, most: number) => {
  if (text === undefined || text.trim() === '') return undefined;
  const found = parseQuantity(text, '°');
  return found.ok && found.value >= least && found.value <= most ? found.value : null;
};
/** The bends that are made: those up to the last whose angle is typed. */
const made = computed((): { bends: BentBend[]; wrong: boolean } => {
  const last = rows.value.findLastIndex(({ angle }) => angle.trim() !== '');
  let wrong = false;
  const bends = props.card.bends.slice(0, last + 1).map(({ angleDeg, rotationDeg }, i): BentBend => {
    const angle = read(rows.value[i]?.angle, 0.1, 179);
    const turn = read(rows.value[i]?.turn, -180, 180);
    wrong ||= angle === null || turn === null;
    return { angleDeg: angle ?? angleDeg, rotationDeg: i === 0 ? 0 : (turn ?? rotationDeg) };
  });
  return { bends, wrong };
});
/** A twin is bent by mirrored points: its card is this one with the turns the other way. */
const points = computed(() =>
  props.mirror
    ? {
        ...props.input,
        points: props.input.points.map(([x, y, z]): [number, number, number] => [x, -y, z]),
        mirror: false,
      }
    : { ...props.input, mirror: false },
);
const rest = computed(() =>
  made.value.bends.length === 0 || made.value.wrong ? null : restOfCard(points.value, made.value.bends),
);
const trial = ref({ set: '', out: '' });
const sprung = computed(() => {
  const [set, out] = [read(trial.value.set, 0.1, 200), read(trial.value.out, 0.1, 180)];
  return set == null || out == null ? null : springbackOf(set, out);
});
const use = () =>
  job.set(
    `runs.${props.runId}.springbackFraction`,
    Number(sprung.value!.toFixed(4)),
    `Spring-back: ${formatNumber(sprung.value! * 100)} %`,
  );
const n = (value: number) => value.toFixed(1);
</script>

<template>
  <details class="bent" data-as-bent>
    <summary>As bent: what came out otherwise, and the rest solved again</summary>
    <div class="split">
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col">bend</th>
            <th scope="col">came out at, °</th>
            <th scope="col">turned by, ° clockwise</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(bend, i) in card.bends" :key="bend.number">
            <th scope="row">{{ bend.number }}</th>
            <td>
              <input
                class="form-control"
                inputmode="decimal"
                :value="rows[i]?.angle ?? ''"
                :placeholder="formatNumber(bend.angleDeg, 4)"
                :aria-label="`Bend ${bend.number} came out at`"
                @input="type(i, 'angle', $event)"
              />
            </td>
            <td>
              <input
                v-if="i > 0"
                class="form-control"
                inputmode="decimal"
                :value="rows[i]?.turn ?? ''"
                :placeholder="formatNumber(bend.rotationDeg, 4)"
                :aria-label="`Before bend ${bend.number} turned by`"
                @input="type(i, 'turn', $event)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <div>
        <p v-if="made.wrong" class="bad" role="alert">An angle cannot be read: degrees.</p>
        <p v-else-if="rest === null" class="soft">
          Type what the first bends came out at: marks and angles of the rest follow, so that the tube ends
          where the run ends. Nothing is bent back.
        </p>
        <p v-else-if="rest.kind === 'none'" class="bad" role="alert">Not solved: {{ rest.why }}.</p>
        <p v-else-if="rest.kind === 'ends'" :class="{ bad: rest.missMm > 5 }" data-miss>
          It ends {{ n(rest.missMm) }} mm off, with a last straight of {{ n(rest.lastStraightMm) }} mm.
        </p>
        <table v-else class="grid-table" data-rest>
          <thead>
            <tr>
              <th scope="col">bend</th>
              <th scope="col" class="num">mark at, mm</th>
              <th scope="col" class="num">set to, °</th>
              <th scope="col">turn first</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="bend in rest.bends" :key="bend.number">
              <th scope="row">{{ bend.number }}</th>
              <td class="num">
                <b>{{ n(bend.startMarkMm) }}</b>
              </td>
              <td class="num">
                <b>{{ formatNumber(bend.setAngleDeg, 4) }}</b>
              </td>
              <td>{{ turnText(bend.rotationDeg) }}</td>
            </tr>
          </tbody>
          <caption>
            Cut
            {{
              n(rest.cutLengthMm)
            }}
            mm instead of
            {{
              n(card.cutLengthMm)
            }}
            mm, last straight
            {{
              n(rest.lastStraightMm)
            }}
            mm.
          </caption>
        </table>
        <div v-if="job.editable" class="trial">
          <span>A trial bend set to</span>
          <input
            v-model="trial.set"
            class="form-control"
            inputmode="decimal"
            aria-label="Trial bend set to"
          />
          <span>° came out at</span>
          <input
            v-model="trial.out"
            class="form-control"
            inputmode="decimal"
            aria-label="Trial bend came out at"
          />
          <span>°</span>
          <BButton size="sm" variant="light" :disabled="sprung === null" @click="use">{{
            sprung === null ? 'Spring-back' : `Use ${formatNumber(sprung * 100)} % spring-back`
          }}</BButton>
        </div>
      </div>
    </div>
  </details>
</template>

<style scoped>
.bent {
  margin-top: 0.6rem;
}

summary {
  font-weight: 600;
}

.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 1rem;
  margin-top: 0.4rem;
}

.form-control {
  width: 6rem;
  text-align: right;
}

.trial {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  margin-top: 0.6rem;
  font-size: 0.9rem;
}

.trial .form-control {
  width: 4.5rem;
}

caption {
  font-size: 0.9rem;
  color: var(--tv-ink);
}

.bad {
  color: var(--tv-stop);
}
</style>
