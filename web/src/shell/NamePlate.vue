<script setup lang="ts">
import { useNow } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import FigureValue from '../parts/FigureValue.vue';
import Icon from '../parts/Icon.vue';
import { useJob } from '../stores/job';
import { useSession } from '../stores/session';
import { dayOf } from '../parts/dates';

/** Like the plate on a machine: what this vehicle is, always true, always there. */
const emit = defineEmits<{ find: [] }>();
const job = useJob();
const session = useSession();
const position = computed(() => job.assessment.position);
const saveText = computed(() => {
  const waiting = job.pending.length;
  switch (job.saveState) {
    case 'saved':
      return 'saved';
    case 'saving':
      return 'saving …';
    case 'waiting':
      return `waiting for the server, ${waiting} not saved`;
    case 'clash':
      return 'meets another change';
    default:
      return 'not saved';
  }
});
/** Somebody else's change, for a while after it arrived. */
const now = useNow({ interval: 5000 });
const others = computed(() =>
  job.heard !== null && now.value.getTime() - job.heard.at < 20_000 ? job.heard : null,
);
const day = (instant: string) => dayOf(instant, job.design.settings.zone);
const saveMark = computed(() =>
  job.saveState === 'saved' ? 'ok' : job.saveState === 'saving' ? 'busy' : 'bad',
);
</script>

<template>
  <header class="nameplate" aria-label="Nameplate">
    <div class="title">
      <h1 :title="job.name">{{ job.name }}</h1>
      <p>
        <span v-if="job.demo" class="demo">demo</span>
        <span>version {{ job.version }}</span>
        <span class="save" :class="saveMark" role="status" data-save-state :data-state="job.saveState">{{
          saveText
        }}</span>
        <span v-if="others" class="others" role="status" :title="`${others.by}: ${others.label}`" data-heard
          >{{ others.by }}: {{ others.label }}</span
        >
      </p>
    </div>
    <dl class="figures">
      <div>
        <dt>pack window</dt>
        <dd class="hv">
          <FigureValue id="pack.pack:pack:voltageMinV" /><span class="soft"> to </span
          ><FigureValue id="pack.pack:pack:voltageMaxV" />
        </dd>
      </div>
      <div>
        <dt>energy, usable</dt>
        <dd><FigureValue id="pack.pack:pack:usableEnergyKWh" /></dd>
      </div>
      <div>
        <dt>at peak</dt>
        <dd>
          <span v-if="job.design.pack.peakCurrentA !== undefined"
            ><b>{{ job.design.pack.peakCurrentA }}</b
            ><span class="unit">&nbsp;A</span> → </span
          ><FigureValue id="pack.pack:pack:voltageAtPeakV" />
        </dd>
      </div>
      <div>
        <dt>mass</dt>
        <dd><FigureValue id="vehicle.axles:vehicle:totalKg" :digits="4" /></dd>
      </div>
      <div class="wide-only">
        <dt>axle shift</dt>
        <dd><FigureValue id="vehicle.axles:vehicle:shiftPoints" /></dd>
      </div>
    </dl>
    <RouterLink
      class="live"
      :class="job.live.shape"
      :to="{ name: 'prove', params: { job: job.id } }"
      title="The vehicle as last recorded; change it in Prove"
    >
      <span class="swatch" aria-hidden="true" />
      <span>
        <b :title="job.live.text">{{ job.live.text }}</b>
        <small>{{
          position === null
            ? job.live.detail
            : [day(position.recordedAt), job.live.gone > 0 ? 'parts of it are gone' : job.live.detail]
                .filter((text) => text !== '')
                .join(', ')
        }}</small>
      </span>
    </RouterLink>
    <div class="tools no-print">
      <button
        type="button"
        class="btn btn-quiet btn-sm"
        title="Find anything ( / )"
        aria-label="Find anything"
        @click="emit('find')"
      >
        <Icon name="search" />
      </button>
      <button
        type="button"
        class="btn btn-quiet btn-sm"
        :disabled="job.undoable.length === 0"
        title="Undo (Ctrl+Z)"
        aria-label="Undo"
        @click="job.undo()"
      >
        <Icon name="counterclockwise" />
      </button>
      <button
        type="button"
        class="btn btn-quiet btn-sm"
        :disabled="job.redoable.length === 0"
        title="Redo (Ctrl+Shift+Z)"
        aria-label="Redo"
        @click="job.redo()"
      >
        <Icon name="clockwise" />
      </button>
      <button
        type="button"
        class="btn btn-quiet btn-sm"
        :title="session.theme === 'dark' ? 'Light theme' : 'Dark theme'"
        aria-label="Change the theme"
        @click="session.theme = session.theme === 'dark' ? 'light' : 'dark'"
      >
        <Icon :name="session.theme === 'dark' ? 'sun' : 'moon'" />
      </button>
      <button
        type="button"
        class="btn btn-quiet btn-sm"
        :aria-pressed="session.slateOpen"
        title="Show or fold the slate"
        aria-label="Show or fold the slate"
        @click="session.slateOpen = !session.slateOpen"
      >
        <Icon name="panel" />
      </button>
    </div>
  </header>
</template>

<style scoped>
.nameplate {
  display: flex;
  align-items: center;
  gap: 0.55rem;
  background: var(--tv-plate);
  border-bottom: 1px solid var(--tv-plate-edge);
  box-shadow:
    inset 0 0 0 3px var(--tv-plate),
    inset 0 0 0 4px var(--tv-plate-edge);
  padding: 0.4rem 0.75rem;
  min-height: 66px;
  flex: none;
}

.title {
  min-width: 0;
  flex: 0 1 14.6rem;
}

h1 {
  font-size: 0.95rem;
  line-height: 1.15;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.title p {
  margin: 0;
  font-size: 0.78rem;
  color: var(--tv-soft);
  display: flex;
  gap: 0.5rem;
  white-space: nowrap;
}

.demo {
  border: 1px solid currentcolor;
  border-radius: 2px;
  padding: 0 0.25rem;
}

.save.ok::before {
  content: '✓ ';
}

.save.bad {
  color: var(--tv-stop);
  font-weight: 600;
}

.figures {
  display: flex;
  gap: 0;
  margin: 0;
  flex: 0 1 auto;
}

.figures > div {
  padding: 0 0.42rem;
  border-left: 1px solid var(--tv-plate-edge);
}

dt {
  font-weight: 400;
  font-size: 0.75rem;
  color: var(--tv-soft);
  white-space: nowrap;
}

dd {
  margin: 0;
  white-space: nowrap;
}

.hv :deep(.digits) {
  color: var(--tv-hv);
}

.live {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  color: var(--tv-ink);
  text-decoration: none;
  line-height: 1.15;
  font-size: 0.84rem;
  min-width: 0;
  /* The state of the vehicle is never cut: it takes what is left, and more lines where it must. */
  flex: 1 1 12.5rem;
}

.live > span:last-child {
  min-width: 0;
}

.live b {
  display: block;
}

.live small {
  display: block;
  color: var(--tv-soft);
  font-size: 0.75rem;
}

.swatch {
  width: 20px;
  height: 28px;
  flex: none;
  border: 1.5px solid var(--tv-ink);
}

.bus .swatch {
  border-color: var(--tv-hv);
  background: repeating-linear-gradient(45deg, var(--tv-hv-fill) 0 3px, transparent 3px 7px);
}

.pack .swatch {
  border-color: var(--tv-hv);
  background:
    linear-gradient(to top, transparent 50%, var(--tv-sheet) 50%),
    repeating-linear-gradient(45deg, var(--tv-hv-fill) 0 3px, transparent 3px 7px);
}

.unknown .swatch {
  border-style: dashed;
}

.tools {
  display: flex;
  gap: 0.25rem;
}

.tools .btn {
  width: 32px;
  height: 32px;
  padding: 0;
  display: grid;
  place-items: center;
}

@media (max-width: 1180px) {
  .wide-only {
    display: none;
  }

  .figures > div {
    padding: 0 0.45rem;
  }
}
.others {
  color: var(--tv-signal);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
</style>
