import { matchInputOf, matchSides, parallelMatch, type MatchSide } from '@torvek/core/balance';
import { interpolate } from '@torvek/core/math';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { computed, ref, watch } from 'vue';
import { dayOf } from '../../../parts/dates';
import { useJob } from '../../../stores/job';
import { knownVoltage, lastLevelled, type KnownVoltage } from './known-voltage';

/** A number as typed: undefined where nothing is, null where it cannot be read. */
export function typedNumber(text: string, unit: string): number | null | undefined {
  if (text.trim() === '') return undefined;
  const read = parseQuantity(text, unit);
  return read.ok && read.value >= 0 && read.value <= 1e9 ? read.value : null;
}

/** Whether two strings, or a module and its neighbour, may be joined now; which way charge must go before. */
export function useMatch() {
  const job = useJob();
  const sides = computed(() => matchSides(job.design));
  const idA = ref('');
  const idB = ref('');
  const pick = (id: string, place: number): MatchSide | undefined =>
    sides.value.find((side) => side.id === id) ?? sides.value[place];
  const a = computed(() => pick(idA.value, 0));
  const b = computed(() => pick(idB.value, 1));

  /** What the record says of a side. */
  function recorded(side: MatchSide | undefined): KnownVoltage | null {
    if (side === undefined) return null;
    const intakeOf = (id: string) => {
      const entry = job.assessment.steps.find(({ step }) => step.id === `intake-voltage:${id}`)?.entry;
      const measured = entry?.body.measured;
      return measured?.kind === 'value' && measured.over !== true
        ? { voltageV: measured.value, takenAt: entry!.takenAt }
        : null;
    };
    return knownVoltage(side, intakeOf, job.present);
  }
  const typed = ref({ a: '', b: '', link: '', bench: '', hours: '' });
  watch([idA, idB], () => (typed.value = { ...typed.value, a: '', b: '' }));
  const volts = computed(() => ({
    a: typedNumber(typed.value.a, 'V'),
    b: typedNumber(typed.value.b, 'V'),
    link: typedNumber(typed.value.link, 'mΩ'),
    bench: typedNumber(typed.value.bench, 'A'),
    hours: typedNumber(typed.value.hours, 'h'),
  }));
  const wrong = computed(() =>
    (['a', 'b', 'link', 'bench', 'hours'] as const).filter((field) => volts.value[field] === null),
  );
  const fromRecord = computed(() => ({ a: recorded(a.value), b: recorded(b.value) }));
  const day = (at: string) => dayOf(at, job.design.settings.zone ?? 'UTC');
  const whereFrom = (known: KnownVoltage | null) =>
    known === null
      ? 'not measured at intake'
      : known.from === 'intake'
        ? 'sum of the intake voltages'
        : `as it was left on ${day(known.takenAt)}`;
  /** Both were brought level with each other before. */
  const before = computed(() => {
    const last = a.value === undefined ? null : lastLevelled(a.value.id, job.present);
    return last?.body.sides.some(({ id }) => id === b.value?.id) === true ? last : null;
  });
  const used = computed((): [number | undefined, number | undefined] => [
    volts.value.a ?? fromRecord.value.a?.voltageV,
    volts.value.b ?? fromRecord.value.b?.voltageV,
  ]);
  const question = computed(() => {
    if (a.value === undefined || b.value === undefined || a.value.id === b.value.id) return null;
    const { link, bench } = volts.value;
    return matchInputOf(
      job.design,
      a.value,
      b.value,
      used.value,
      link == null ? undefined : link / 1000,
      bench == null || bench === 0 ? undefined : bench,
    );
  });
  const answer = computed(() => {
    const input = question.value?.input;
    if (input == null || wrong.value.length > 0) return null;
    const parsed = parallelMatch.parse(input);
    return parsed.ok
      ? { ok: true as const, input: parsed.input, ...parallelMatch.calculate(parsed.input) }
      : {
          ok: false as const,
          message: parsed.issues.map(({ path, message }) => `${path} ${message}`).join('; '),
        };
  });
  const governing = computed(() => {
    const limits = question.value?.limits ?? [];
    const least = Math.min(...limits.map(({ currentA }) => currentA));
    return limits.find(({ currentA }) => currentA === least);
  });
  const way = computed(() => {
    const found = answer.value;
    if (found === null || !found.ok || found.result.higher === 'equal') return null;
    const [high, low] = found.result.higher === 'a' ? [a.value!, b.value!] : [b.value!, a.value!];
    const hours =
      found.result.benchHours === null
        ? ''
        : `, about ${formatNumber(found.result.benchHours)} h with this gear`;
    return `Charge ${low.tag} up, or discharge ${high.tag} down, by about ${formatNumber(found.result.ahToMove)} Ah${hours}.`;
  });
  /** How much a cell’s voltage says about its charge there: on a flat curve little. */
  const flat = computed(() => {
    const found = answer.value;
    if (found === null || !found.ok) return false;
    const { input } = found;
    const cell = input.a.voltageV / input.series;
    const turned = input.ocvTable.map(([soc, v]): [number, number] => [v, soc]);
    const soc = (v: number) => interpolate(turned, v);
    return Math.abs(soc(cell + 0.005) - soc(cell - 0.005)) > 0.1;
  });

  return {
    sides,
    idA,
    idB,
    a,
    b,
    typed,
    volts,
    wrong,
    fromRecord,
    day,
    whereFrom,
    before,
    used,
    question,
    answer,
    governing,
    way,
    flat,
  };
}
