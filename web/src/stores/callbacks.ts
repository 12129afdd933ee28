import { useNow, useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';

/** Something that takes its time: a hold, a charge, a rest; called back when it is over. */
export interface Callback {
  id: string;
  job: string;
  jobName: string;
  step: string;
  title: string;
  /** Instant, ms. */
  endsAt: number;
  /** Somebody has seen that it is over. */
  seen: boolean;
}

/** What is left of a time, in words that fit a button. */
export function leftText(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  if (s >= 3600) return `${Math.floor(s / 3600)} h ${Math.round((s % 3600) / 60)} min`;
  return s >= 60 ? `${Math.floor(s / 60)} min ${s % 60} s` : `${s} s`;
}

/** Of some callbacks those that are over and nobody has seen, and those that still run, the next one first. */
export function sorted(all: readonly Callback[], now: number): { over: Callback[]; running: Callback[] } {
  const inOrder = [...all].sort((a, b) => a.endsAt - b.endsAt);
  return {
    over: inOrder.filter(({ endsAt, seen }) => endsAt <= now && !seen),
    running: inOrder.filter(({ endsAt }) => endsAt > now),
  };
}

/** A tone: three short ones, loud enough for a shop. */
function tone(sound: AudioContext): void {
  for (let i = 0; i < 3; i += 1) {
    const at = sound.currentTime + i * 0.35;
    const source = sound.createOscillator();
    const level = sound.createGain();
    source.frequency.value = 880;
    level.gain.setValueAtTime(0.0001, at);
    level.gain.exponentialRampToValueAtTime(0.4, at + 0.02);
    level.gain.exponentialRampToValueAtTime(0.0001, at + 0.25);
    source.connect(level).connect(sound.destination);
    source.start(at);
    source.stop(at + 0.3);
  }
}

/** Times that run, on every page that is open in this browser. */
export const useCallbacks = defineStore('callbacks', () => {
  const all = useStorage<Callback[]>('torvek.callbacks', []);
  const now = useNow({ interval: 1000 });
  const state = computed(() => sorted(all.value, now.value.getTime()));
  let sound: AudioContext | null = null;
  const rung = new Set<string>();

  /** Begins a time; the press that does so lets the page make a sound later. */
  function begin(one: Omit<Callback, 'id' | 'endsAt' | 'seen'>, minutes: number): void {
    sound ??= typeof AudioContext === 'undefined' ? null : new AudioContext();
    const endsAt = Date.now() + minutes * 60_000;
    // One of a step: begun again it starts over. What was seen long ago goes.
    const kept = all.value.filter(
      (other) =>
        !(other.job === one.job && other.step === one.step) &&
        !(other.seen && other.endsAt < Date.now() - 3.6e6),
    );
    all.value = [...kept, { ...one, id: crypto.randomUUID(), endsAt, seen: false }];
  }

  const drop = (id: string) => (all.value = all.value.filter((one) => one.id !== id));
  const see = (id: string) =>
    (all.value = all.value.map((one) => (one.id === id ? { ...one, seen: true } : one)));

  /** Rings once for each that is over. */
  function ring(): void {
    const fresh = state.value.over.filter(({ id }) => !rung.has(id));
    for (const { id } of fresh) rung.add(id);
    if (fresh.length > 0 && sound !== null) tone(sound);
  }

  return { all, now, state, begin, drop, see, ring };
});
