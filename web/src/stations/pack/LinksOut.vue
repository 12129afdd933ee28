<script setup lang="ts">
import { touchLimitOf } from '@torvek/core/document';
import { deriveNetwork, stagesOf, type StageId } from '@torvek/core/network';
import { boardMapOf, plugOrder } from '@torvek/core/monitoring';
import { segments } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import NumberField from '../../parts/NumberField.vue';
import { useJob } from '../../stores/job';

/** Which links stay out at this stage of the build, so that no exposed segment exceeds the touch limit. */
const job = useJob();
const offered: { id: StageId; title: string }[] = [
  { id: 'bench', title: 'on the bench' },
  { id: 'boxes', title: 'in the car' },
  { id: 'locked-off', title: 'ready to close' },
  { id: 'last-link', title: 'closed' },
];
const stage = ref<StageId>('boxes');
const limitV = computed(() => touchLimitOf(job.design));
const network = computed(() => deriveNetwork(job.design));
const open = computed(
  () => new Set(stagesOf(job.design, network.value).find(({ id }) => id === stage.value)?.open ?? []),
);

interface Piece {
  from: number;
  to: number;
  volts: number;
  over: boolean;
}
const strings = computed(() =>
  Object.entries(job.design.strings)
    .filter(([, { modules }]) => modules.length > 0)
    .map(([id, { tag, modules }]) => {
      const own = network.value.elements.filter(({ owner }) => owner === id);
      const volts = modules.map((module) => own.find((one) => one.id === module)?.voltageV ?? 0);
      const cuts = modules.slice(1).map((_, i) => {
        const joint = own.filter((one) => one.joint === i + 1);
        const out = joint.find((one) => open.value.has(one.id));
        const disconnect = joint.some(({ kind }) => kind === 'service-disconnect');
        return { joint: i + 1, out: out !== undefined, disconnect };
      });
      const pieces: Piece[] = [];
      let from = 0;
      modules.forEach((_, i) => {
        if (i < modules.length - 1 && !cuts[i]!.out) return;
        const sum = volts.slice(from, i + 1).reduce((total, one) => total + one, 0);
        pieces.push({ from, to: i, volts: sum, over: sum > limitV.value + 1e-6 });
        from = i + 1;
      });
      const parsed = segments.parse({ moduleMaxV: volts, limitV: limitV.value });
      // Boards of Sense that read on both sides of what stays out: their plugs wait for it.
      const { boards } = boardMapOf(job.design, id);
      const joints = cuts.filter((cut) => cut.out).map(({ joint }) => joint);
      const over = boards === null ? [] : plugOrder(boards, modules, joints).reachOver;
      const answer = parsed.ok ? segments.calculate(parsed.input) : null;
      return {
        id,
        tag,
        pieces,
        cuts,
        tags: modules.map((module) => job.design.modules[module]?.tag ?? ''),
        boxes: modules.map((module) => job.design.modules[module]?.box),
        boards: boards?.length ?? 0,
        over: over.map(
          ({ board, joint }) =>
            `${job.design.boards?.[board]?.tag ?? board} over ${cuts[joint - 1]?.disconnect ? 'the disconnect' : `link ${joint}`}`,
        ),
        least: answer?.result.linksToOpen ?? [],
        findings: answer?.findings.map(({ message }) => message) ?? [],
      };
    }),
);
const short = (tag: string) => tag.replace(/^.*-/, '');
const cutText = (one: (typeof strings.value)[number]) => {
  const out = one.cuts.filter((cut) => cut.out && !cut.disconnect).map(({ joint }) => joint);
  const disconnects = one.cuts.filter((cut) => cut.out && cut.disconnect).map(({ joint }) => joint);
  const parts = [
    out.length === 0
      ? 'no link is left out'
      : `left out: ${out.length === 1 ? 'link' : 'links'} ${out.join(', ')}`,
    disconnects.length === 0 ? '' : `service disconnect out at ${disconnects.join(', ')}`,
  ];
  return parts.filter((part) => part !== '').join('; ');
};
const highest = computed(() =>
  Math.max(0, ...strings.value.flatMap(({ pieces }) => pieces.map(({ volts }) => volts))),
);
</script>

<template>
  <section class="sheet-card links" aria-label="Links out" data-links>
    <div class="card-head">
      <h2>Links out</h2>
      <span class="hint">what a hand can reach between, at the modules’ highest voltage</span>
    </div>
    <div class="ask">
      <div class="btn-group" role="group" aria-label="Stage of the build">
        <button
          v-for="one in offered"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="stage === one.id ? 'btn-primary' : 'btn-quiet'"
          :aria-pressed="stage === one.id"
          @click="stage = one.id"
        >
          {{ one.title }}
        </button>
      </div>
      <NumberField path="settings.touchLimitV" label="Touch limit, DC" />
      <span class="highest" :class="{ over: highest > limitV + 1e-6 }"
        >highest segment <b>{{ formatNumber(highest, 4) }} V</b
        ><template v-if="highest > limitV + 1e-6">, over {{ formatNumber(limitV) }} V</template></span
      >
    </div>
    <p v-if="strings.length === 0" class="soft">No string yet: modules in series come first.</p>
    <div v-for="one in strings" :key="one.id" class="string" :data-string="one.id">
      <h3>
        {{ one.tag }} <span class="soft">{{ cutText(one) }}</span>
      </h3>
      <div
        class="run"
        role="img"
        :aria-label="`${one.tag}: ${one.pieces.map(({ volts }) => `${formatNumber(volts, 4)} V`).join(', ')}`"
      >
        <span class="pole">−</span>
        <template v-for="(piece, p) in one.pieces" :key="piece.from">
          <span v-if="p > 0" class="gap" :class="{ disconnect: one.cuts[piece.from - 1]?.disconnect }">
            <i>{{ piece.from }}</i>
          </span>
          <span class="piece" :class="{ over: piece.over }" :style="{ flexGrow: piece.to - piece.from + 1 }">
            <span class="modules" :class="{ many: one.tags.length > 20 }"
              ><span v-for="i in piece.to - piece.from + 1" :key="i">{{
                one.tags.length > 20 ? '' : short(one.tags[piece.from + i - 1]!)
              }}</span></span
            >
            <small v-if="one.tags.length > 20" class="ends"
              >{{ short(one.tags[piece.from]!)
              }}<template v-if="piece.to > piece.from"> to {{ short(one.tags[piece.to]!) }}</template></small
            >
            <b>{{ formatNumber(piece.volts, 4) }} V</b>
          </span>
        </template>
        <span class="pole">+</span>
      </div>
      <p v-if="one.boards > 0" class="plugs" data-board-ends>
        {{
          one.over.length === 0
            ? 'Sense plugs may be in: every board ends where a link is out.'
            : `Sense plugs out that read on both sides: ${one.over.join(', ')}.`
        }}
      </p>
      <p v-for="text in one.findings" :key="text" class="finding-line">{{ text }}</p>
    </div>
    <p class="small">
      A gap is a link left out, or the service disconnect (double line). Segmenting lowers the hazard, it does
      not remove it: covers on all posts but the ones at hand, insulated tools, no jewellery, and a second
      person. What each box holds at this stage stands in
      <RouterLink :to="{ name: 'network', params: { job: job.id } }">Network</RouterLink>.
    </p>
  </section>
</template>

<style scoped>
.ask {
  display: flex;
  gap: 1.2rem;
  align-items: center;
  flex-wrap: wrap;
}

.ask :deep(.number-field) {
  width: 17rem;
}

.highest.over b,
.highest.over {
  color: var(--tv-hv);
}

.string {
  margin-top: 0.7rem;
}

.run {
  display: flex;
  align-items: stretch;
  margin-top: 0.25rem;
  overflow-x: auto;
}

.pole {
  align-self: flex-start;
  padding: 0.35rem 0.3rem;
  font-weight: 600;
}

.piece {
  display: flex;
  flex-direction: column;
  align-items: center;
  min-width: 3.4rem;
  flex-basis: 0;
}

.piece b {
  font-size: 0.9rem;
  white-space: nowrap;
}

.piece.over b {
  color: var(--tv-hv);
}

.modules {
  display: flex;
  width: 100%;
  border: 2px solid var(--tv-soft);
  border-radius: 2px;
  background: var(--tv-recess);
}

.modules span {
  flex: 1;
  text-align: center;
  padding: 0.35rem 0.1rem;
  font-size: 0.8rem;
  border-left: 1px dotted var(--tv-plate-edge);
  min-width: 1.6rem;
}

.modules.many span {
  min-width: 3px;
  min-height: 2rem;
  padding: 0;
}

.ends {
  font-size: 0.8rem;
  white-space: nowrap;
}

.modules span:first-child {
  border-left: none;
}

.piece.over .modules {
  border-color: var(--tv-hv);
  background: repeating-linear-gradient(45deg, var(--tv-hv-fill) 0 2px, var(--tv-sheet) 2px 7px);
}

.piece.over .modules span {
  text-shadow:
    0 0 3px var(--tv-sheet),
    0 0 3px var(--tv-sheet);
  font-weight: 600;
}

.gap {
  width: 1.5rem;
  flex: none;
  display: flex;
  justify-content: center;
}

.gap i {
  font-style: normal;
  font-size: 0.78rem;
  color: var(--tv-soft);
  padding-top: 0.5rem;
  border-left: 2px dashed var(--tv-soft);
  height: 2.2rem;
  padding-left: 2px;
}

.gap.disconnect i {
  border-left: 4px double var(--tv-ink);
}

.plugs {
  margin: 0.25rem 0 0;
  font-size: 0.9rem;
}

.finding-line {
  color: var(--tv-stop);
  font-weight: 600;
  margin: 0.3rem 0 0;
}

.small {
  margin: 0.6rem 0 0;
  font-size: 0.85rem;
  color: var(--tv-soft);
}
</style>
