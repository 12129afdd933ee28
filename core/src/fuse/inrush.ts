import { rulesOf } from '../finding';
import { figureId, type Gap } from '../figure';
import type { FuseData } from '../parts';
import { ownBuses } from '../precharge';
import { formatNumber, formatQuantity } from '../quantity';
import { gapsBehind, judge, type StepDefinition } from '../step';

const inrushRule = rulesOf('fuse')(
  'inrush',
  'mend',
  'The capacitors of a branch melt its fuse',
  'Without pre-charge empty capacitors are a short for a moment: its I²t reaches the fuse’s melting, at the first closing or after some.',
  'A pre-charge of its own for the branch, contacts that close with the bus empty, or a fuse with a larger melting I²t.',
  'I²t of a first-order RC circuit; pre-arcing I²t at the last point of the curve, least by its tolerance',
);

/** The least pre-arcing I²t of a fuse at large currents, A²s. */
export const leastI2t = ({ curve, currentToleranceFraction }: FuseData): number => {
  const [currentA, timeS] = curve.at(-1)!;
  return (currentA * (1 - currentToleranceFraction)) ** 2 * timeS;
};

/** Branches that close onto empty capacitors, against their fuse. */
export const inrushStep: StepDefinition = {
  id: 'fuse.inrush',
  version: 1,
  subjects: (design) => ownBuses(design).filter((id) => design.circuits[id]!.resistor === undefined),
  compute(subject, read) {
    const key = read.at('circuits', subject, 'fuse');
    const part = key === undefined ? undefined : read.at('parts', key);
    const pulse = read.figure(figureId('precharge.direct', subject, 'i2tA2s'));
    const gaps: Gap[] = [
      ...(part?.kind === 'fuse'
        ? []
        : [{ kind: 'not-given' as const, path: `circuits.${subject}.fuse`, label: 'fuse' }]),
      ...(pulse.value === null ? gapsBehind(pulse) : []),
    ];
    const least = part?.kind === 'fuse' ? leastI2t(part.data) : 0;
    const value = pulse.value ?? 0;
    return {
      figures: [],
      checks: [
        judge(
          inrushRule,
          [subject],
          gaps,
          value > least && part?.kind === 'fuse'
            ? `${formatQuantity(value, 'A²s')} rush in, ${formatNumber(value / least)} times the ${formatQuantity(least, 'A²s')} at which ${part.label} may melt.`
            : null,
          [
            { label: 'I²t of the inrush', value, unit: 'A²s' },
            { label: 'least melting I²t', value: least, unit: 'A²s' },
          ],
        ),
      ],
    };
  },
};
