import { switchedCircuits } from '../document';
import { figureId, type Gap } from '../figure';
import { clearingTimeS, meltTimeS } from '../fuse';
import { logSpaced } from '../math';
import type { FuseData } from '../parts';
import { formatNumber } from '../quantity';
import { gapsBehind, judge, type StepDefinition } from '../step';
import { contactorRules as rules } from './rules';

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
export const shortTimeStep: StepDefinition = {
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
