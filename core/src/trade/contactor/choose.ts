import type { Suggestion } from '../../ground/finding';
import { firstUncovered, shortTimeRule } from '../fuse';
import { partKey, type ContactorData, type FuseData, type PartOf } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { problemsOf, type Criterion } from '../../model/step';
import { coilOf, coilRules, pullInAtV } from './coil';
import { contactorRules as rules } from './rules';

/** What contactors in one place have to hold; null where it is not known. */
export interface ContactorPlace {
  busVoltageV: number | null;
  loadA: number | null;
  /** What flows when they close. */
  inrushA: number | null;
  /** Whether that is after a pre-charge. */
  filled: boolean;
  faultMinA: number | null;
  faultMaxA: number | null;
  /** The fuse in their path. */
  fuse: FuseData | null;
  startLowV: number;
  coilC: number;
}

const n = formatNumber;

/** Contactors against their place: voltage, load, inrush, the fuse in their path, the 12 V of a start. */
export function contactorCriteria(data: ContactorData, place: ContactorPlace): Criterion[] {
  const { busVoltageV, loadA, inrushA, faultMinA, faultMaxA, fuse, startLowV, coilC } = place;
  const coil = coilOf(data);
  const pullInV = coil === null ? null : pullInAtV(coil, coilC);
  const bad =
    data.shortTime === undefined || fuse === null || faultMinA === null || faultMaxA === null
      ? null
      : firstUncovered(fuse, data.shortTime, faultMinA, faultMaxA);
  return [
    {
      rule: rules.voltage,
      problem:
        busVoltageV !== null && busVoltageV > data.ratedVoltageV
          ? `is made for ${n(data.ratedVoltageV)} V, the pack reaches ${n(busVoltageV)} V`
          : null,
      values: [
        { label: 'highest pack voltage', value: busVoltageV ?? 0, unit: 'V' },
        { label: 'rated voltage of the contactors', value: data.ratedVoltageV, unit: 'V' },
      ],
    },
    {
      rule: rules.carry,
      problem:
        loadA !== null && loadA > data.continuousA
          ? `carries ${n(data.continuousA)} A of the ${n(loadA)} A asked`
          : null,
      values: [
        { label: 'load', value: loadA ?? 0, unit: 'A' },
        { label: 'rated current of the contactors', value: data.continuousA, unit: 'A' },
      ],
    },
    {
      rule: rules.make,
      problem:
        inrushA !== null && inrushA > data.makeA
          ? `makes ${n(data.makeA)} A where ${n(inrushA)} A rush in ${place.filled ? 'after pre-charge' : 'without pre-charge'}`
          : null,
      values: [
        { label: 'inrush', value: inrushA ?? 0, unit: 'A' },
        { label: 'making capacity', value: data.makeA, unit: 'A' },
      ],
    },
    {
      rule: shortTimeRule,
      problem:
        bad === null
          ? null
          : `stands ${n(bad.currentA)} A for ${formatQuantity(bad.carryS, 's')}, the fuse ${bad.clearingS === null ? 'never clears it' : `takes ${formatQuantity(bad.clearingS, 's')}`}`,
      values:
        bad === null
          ? [
              { label: 'largest fault', value: faultMaxA ?? 0, unit: 'A' },
              { label: 'smallest fault', value: faultMinA ?? 0, unit: 'A' },
            ]
          : [
              { label: 'largest fault', value: faultMaxA!, unit: 'A' },
              { label: 'smallest fault', value: faultMinA!, unit: 'A' },
              { label: 'first fault not stood', value: bad.currentA, unit: 'A' },
              { label: 'the contacts stand it for', value: bad.carryS, unit: 's' },
              ...(bad.clearingS === null
                ? []
                : [{ label: 'the fuse takes', value: bad.clearingS, unit: 's' }]),
            ],
    },
    {
      rule: coilRules.pullIn,
      problem:
        pullInV !== null && pullInV > startLowV
          ? `pulls in at ${n(pullInV)} V when its coil is at ${n(coilC)} °C, a start may leave ${n(startLowV)} V`
          : null,
      values: [
        { label: 'pull-in', value: pullInV ?? 0, unit: 'V' },
        { label: 'lowest 12 V at start', value: startLowV, unit: 'V' },
        { label: 'coils at', value: coilC, unit: '°C' },
      ],
    },
  ];
}

/** Contactors for a place: those that hold first, then those with the fewest faults, the smallest first among them. */
export function rankContactors(parts: readonly PartOf<'contactor'>[], place: ContactorPlace): Suggestion[] {
  return parts
    .map((part) => ({ part, reasons: problemsOf(contactorCriteria(part.data, place)) }))
    .sort(
      (a, b) =>
        a.reasons.length - b.reasons.length ||
        a.part.data.continuousA - b.part.data.continuousA ||
        a.part.data.coilHoldW - b.part.data.coilHoldW,
    )
    .map(({ part, reasons }) => ({
      partKey: partKey(part),
      label: part.label,
      fits: reasons.length === 0,
      reasons,
    }));
}

/**
 * What contactors must have to hold in a place, in numbers.
 *
 * @param data of those that fail: by which ampere and which second
 */
export function contactorNeeds(place: ContactorPlace, data: ContactorData | null = null): string[] {
  const { busVoltageV, loadA, inrushA, faultMinA, faultMaxA, startLowV, coilC, fuse } = place;
  const bad =
    data?.shortTime === undefined || fuse === null || faultMinA === null || faultMaxA === null
      ? null
      : firstUncovered(fuse, data.shortTime, faultMinA, faultMaxA);
  return [
    ...(busVoltageV === null ? [] : [`${n(busVoltageV)} V DC or more`]),
    ...(loadA === null ? [] : [`to carry ${n(loadA)} A`]),
    ...(inrushA === null ? [] : [`to make ${n(inrushA)} A`]),
    ...(faultMaxA === null ? [] : [`to stand ${n(faultMaxA)} A until the fuse has cleared`]),
    ...(bad === null || bad.clearingS === null
      ? []
      : [`to stand ${n(bad.currentA)} A for ${formatQuantity(bad.clearingS, 's')}`]),
    `to pull in at ${n(startLowV)} V with coils of ${n(coilC)} °C`,
  ];
}
