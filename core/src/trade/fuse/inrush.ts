import { figureId, type Gap } from '../../ground/figure';
import { partKey } from '../../model/parts';
import { ownBuses } from '../precharge';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { leastI2t } from './melting';
import { inrushRule } from './rules';

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
            { label: 'times the melting', value: least > 0 ? value / least : 0, unit: '' },
          ],
          { parts: part?.kind === 'fuse' ? [partKey(part)] : [] },
        ),
      ],
    };
  },
};
