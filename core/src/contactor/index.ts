import { mainCircuit, switchedCircuits } from '../document';
import { rulesOf } from '../finding';
import { figureId, type Gap } from '../figure';
import { clearingTimeS, meltTimeS } from '../fuse';
import { logSpaced } from '../math';
import type { FuseData } from '../parts';
import { formatNumber } from '../quantity';
import { coilStep } from './coil';
import { gapsBehind, judge, type StepDefinition } from '../step';

export {
  coilDefaults,
  coilOf,
  coilRules,
  decayS,
  holdCurrentA,
  pullInAtV,
  releaseMs,
  type Coil,
} from './coil';

const rule = rulesOf('contactor');
const source = 'Contactor makers’ DC ratings';

const rules = {
  voltage: rule(
    'voltage',
    'stop',
    'The contactors are not made for this voltage',
    'A DC arc that the contactor cannot blow out keeps the circuit closed and burns the contacts.',
    'Choose contactors whose DC rating is at or above the highest pack voltage.',
    source,
  ),
  make: rule(
    'make',
    'mend',
    'The main closes on more than it makes',
    'Contacts that close on a current above their making capacity bounce, melt and weld.',
    'A higher threshold of pre-charge, more resistance in the loop that is really there, or contactors that make more.',
    source,
  ),
  carry: rule(
    'carry',
    'stop',
    'The contactors carry more than their rating',
    'Contacts that run hot weld or lose their spring.',
    'Choose a larger contactor, or lower the load.',
    source,
  ),
  shortTime: rule(
    'short-time',
    'mend',
    'The contacts give out before the fuse has cleared',
    'Contacts that carry a fault for too long lift, arc and weld: the circuit stays closed just when it must open.',
    'A faster fuse, or contactors whose short-time curve lies above its clearing over all faults.',
    'Contactor makers’ short-time curves; the fuse’s longest clearing',
  ),
  faultBreak: rule(
    'fault-above-break',
    'note',
    'The largest fault is above what the contactors break',
    'A contactor that opens on this current may weld or burn: the fuse has to clear first.',
    'See that the controller does not open on over-current before the fuse has cleared.',
    source,
  ),
};

/** Time for which contacts carry a current; null: for ever. Log-log between points, I²t of the last beyond it. */
export const carryTimeS = meltTimeS;

/**
 * The first of 40 currents over the range of faults at which the fuse takes longer than the contacts carry it.
 *
 * @returns null when the fuse is always done before
 */
export function firstUncovered(
  fuse: FuseData,
  shortTime: [number, number][],
  faultMinA: number,
  faultMaxA: number,
): { currentA: number; clearingS: number | null; carryS: number } | null {
  for (const currentA of faultMinA < faultMaxA ? logSpaced(faultMinA, faultMaxA, 40) : [faultMaxA]) {
    const carryS = carryTimeS(shortTime, currentA);
    const clearingS = clearingTimeS(fuse, currentA);
    if (carryS !== null && (clearingS === null || clearingS > carryS)) return { currentA, clearingS, carryS };
  }
  return null;
}

/** Contactors against the fuse in their path: it has to clear before they weld. */
const shortTimeStep: StepDefinition = {
  id: 'contactor.short-time',
  version: 1,
  subjects: switchedCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const contactor = read.at('parts', circuit.contactor ?? '');
    const fuse = read.at('parts', circuit.fuse ?? '');
    const largest = read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA'));
    const smallest = read.figure(figureId('fuse.fault', `${subject}/smallest`, 'prospectiveA'));
    const at = `circuits.${subject}`;
    const gaps: Gap[] = [
      ...(contactor?.kind !== 'contactor'
        ? [{ kind: 'not-given' as const, path: `${at}.contactor`, label: 'contactors' }]
        : contactor.data.shortTime === undefined
          ? [
              {
                kind: 'not-given' as const,
                path: `${at}.contactor`,
                label: 'short-time curve of the contactor',
              },
            ]
          : []),
      ...(fuse?.kind !== 'fuse' ? [{ kind: 'not-given' as const, path: `${at}.fuse`, label: 'fuse' }] : []),
      ...[largest, smallest].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : [])),
    ];
    const uncovered =
      gaps.length > 0 || fuse?.kind !== 'fuse' || contactor?.kind !== 'contactor'
        ? null
        : firstUncovered(fuse.data, contactor.data.shortTime!, smallest.value!, largest.value!);
    return {
      figures: [],
      checks: [
        judge(
          rules.shortTime,
          [subject],
          gaps,
          uncovered === null
            ? null
            : `At ${formatNumber(uncovered.currentA)} A the contacts stand ${formatNumber(uncovered.carryS, 2)} s; the fuse ${uncovered.clearingS === null ? 'never clears' : `takes ${formatNumber(uncovered.clearingS, 2)} s`}.`,
          [
            { label: 'largest fault', value: largest.value ?? 0, unit: 'A' },
            { label: 'smallest fault', value: smallest.value ?? 0, unit: 'A' },
          ],
        ),
      ],
    };
  },
};

/** The contactors against voltage, load and fault. */
const contactorStep: StepDefinition = {
  id: 'contactor.main',
  version: 1,
  subjects: switchedCircuits,
  compute(subject, read) {
    const key = read.at('circuits', subject, 'contactor');
    const part = key === undefined ? undefined : read.at('parts', key);
    const chosen = part?.kind === 'contactor' ? part.data : null;
    const missing: Gap[] =
      chosen === null
        ? [{ kind: 'not-given', path: `circuits.${subject}.contactor`, label: 'contactors' }]
        : [];
    const compare = (
      which: keyof typeof rules,
      figure: ReturnType<typeof read.figure>,
      limit: number,
      unit: string,
      name: string,
      what: string,
    ) => {
      const gaps = [...missing, ...(figure.value === null ? gapsBehind(figure) : [])];
      const value = figure.value ?? 0;
      const message =
        value > limit
          ? `${name} ${formatNumber(value)} ${unit}; the contactors ${what} ${formatNumber(limit)} ${unit}.`
          : null;
      return judge(rules[which], [subject], gaps, message, [
        { label: figure.label, value, unit },
        { label: 'rating', value: limit, unit },
      ]);
    };
    return {
      figures: [],
      checks: [
        compare(
          'voltage',
          read.figure(figureId('pack.pack', 'pack', 'voltageMaxV')),
          chosen?.ratedVoltageV ?? 0,
          'V',
          'The pack reaches',
          'are made for',
        ),
        compare(
          'carry',
          read.figure(figureId('network.load', subject, 'rmsA')),
          chosen?.continuousA ?? 0,
          'A',
          'The load is',
          'carry',
        ),
        ...(subject === mainCircuit
          ? [
              compare(
                'make',
                read.figure(figureId('precharge.run', subject, 'inrushA')),
                chosen?.makeA ?? 0,
                'A',
                'The inrush after pre-charge is',
                'make',
              ),
            ]
          : []),
        compare(
          'faultBreak',
          read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA')),
          chosen?.breakA ?? 0,
          'A',
          'The largest fault is',
          'break',
        ),
      ],
    };
  },
};

export const contactorSteps: StepDefinition[] = [contactorStep, shortTimeStep, coilStep];
