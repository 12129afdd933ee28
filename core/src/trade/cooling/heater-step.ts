import type { Check } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { placedHeaters, type Design, type Id } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { coolingRules } from './rules';

const n = formatNumber;

const onPack = ({ boxes, plumbing, parts }: Pick<Design, 'boxes' | 'plumbing' | 'parts'>) =>
  placedHeaters({ boxes, plumbing, parts }).filter(({ fed }) => fed === 'pack');

/** Each heater that the pack feeds: it is a device of the network, with a branch of its own. */
export const heaterStep: StepDefinition = {
  id: 'cooling.heater',
  version: 1,
  subjects: (design) => onPack(design).map(({ id }) => id),
  compute(subject: Id, read): { figures: []; checks: Check[] } {
    const { tag, data, device } = onPack({
      boxes: read.at('boxes'),
      plumbing: read.at('plumbing'),
      parts: read.at('parts'),
    }).find(({ id }) => id === subject)!;
    const named = device === undefined ? undefined : read.at('devices')[device];
    const isHeater = named?.kind === 'heater';
    return {
      figures: [],
      checks: [
        judge(
          coolingRules.heaterNoBranch,
          [subject],
          [],
          isHeater
            ? null
            : named === undefined
              ? `${tag} takes ${n(data.ratedW)} W of the pack; no device of the network is named for it.`
              : `${tag} takes ${n(data.ratedW)} W of the pack; ${named.tag}, which is named for it, is no heater.`,
          [
            { label: 'takes', value: data.ratedW, unit: 'W' },
            { label: 'heaters of the network', value: isHeater ? 1 : 0, unit: '' },
          ],
          device === undefined ? {} : { also: [device] },
        ),
      ],
    };
  },
};
