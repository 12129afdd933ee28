import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { computed, ref, watch } from 'vue';
import { momentOf } from '../../../parts/dates';
import { useJob } from '../../../stores/job';
import { levelling, newcomerOf, restOf } from './into-string';

export const timeText = (hours: number) =>
  hours < 1 ? `${formatNumber(hours * 60, 2)} min` : `${formatNumber(hours, 3)} h`;

const read = (text: string, unit: string) => {
  if (text.trim() === '') return undefined;
  const found = parseQuantity(text, unit);
  return found.ok && found.value > 0 && found.value <= 1e6 ? found.value : null;
};

/** One module that goes in series with others: where they stand, what it is off by, and how it rests. */
export function useIntoString() {
  const job = useJob();
  const candidates = computed(() =>
    Object.values(job.design.strings).flatMap(({ tag, modules }) =>
      modules.length < 2
        ? []
        : modules.map((id) => ({ id, tag: job.design.modules[id]?.tag ?? id, string: tag })),
    ),
  );
  const chosen = ref('');
  /** Unless one is chosen: the one that was fitted last. */
  const module = computed(() => {
    const ids = new Set(candidates.value.map(({ id }) => id));
    if (ids.has(chosen.value)) return chosen.value;
    const fitted = job.present.findLast(({ body }) => body.kind === 'fit' && ids.has(body.place));
    return (fitted?.body.kind === 'fit' ? fitted.body.place : candidates.value[0]?.id) ?? '';
  });
  const tag = computed(() => job.design.modules[module.value]?.tag ?? '');
  const slices = computed(() => {
    const { strings, modules, parts, pack } = job.design;
    return { strings, modules, parts, pack };
  });
  const newcomer = computed(() => newcomerOf(slices.value, job.present, module.value));
  const typed = ref({ volts: '', load: '', supply: '', reading: '' });
  watch(module, () => (typed.value = { ...typed.value, volts: '', reading: '' }));
  const numbers = computed(() => ({
    volts: read(typed.value.volts, 'V'),
    load: read(typed.value.load, 'Ω'),
    supply: read(typed.value.supply, 'A'),
    reading: read(typed.value.reading, 'V'),
  }));
  const wrong = computed(() => Object.values(numbers.value).includes(null));
  const answer = computed(() =>
    newcomer.value === null
      ? null
      : levelling(slices.value, newcomer.value, module.value, {
          moduleV: numbers.value.volts ?? undefined,
          loadOhm: numbers.value.load ?? undefined,
          supplyA: numbers.value.supply ?? undefined,
        }),
  );
  const outlook = computed(() =>
    newcomer.value === null || answer.value === null || newcomer.value.rest.length === 0
      ? null
      : restOf(slices.value, newcomer.value, answer.value),
  );
  const known = computed(
    () =>
      newcomer.value?.modules.filter(({ id, voltageV }) => id !== module.value && voltageV !== null).length ??
      0,
  );
  const verb = computed(() => (answer.value?.way === 'charge up' ? 'charged up' : 'drawn down'));
  const since = computed(() => {
    const ms = newcomer.value?.sinceMs ?? null;
    return ms === null ? '' : momentOf(ms, job.design.settings.zone);
  });

  return {
    candidates,
    chosen,
    module,
    tag,
    newcomer,
    typed,
    numbers,
    wrong,
    answer,
    outlook,
    known,
    verb,
    since,
  };
}
