import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { saysSensing } from './map-step';
import { monitoringRules } from './rules';

const n = formatNumber;
/** A range beyond so many times the peak is used in its lowest part alone. */
const coarseOver = 5;

/** What tells the current: which strings it sees, how far it reads, and which way round. */
export const currentStep: StepDefinition = {
  id: 'monitoring.current',
  version: 1,
  subjects: (design) =>
    saysSensing(design) || Object.keys(design.currentSensors ?? {}).length > 0 ? ['pack'] : [],
  compute(subject, read) {
    const sensors = Object.entries(read.at('currentSensors') ?? {}).map(([id, sensor]) => ({
      id,
      ...sensor,
    }));
    const strings = Object.entries(read.at('strings')).filter(([, { modules }]) => modules.length > 0);
    const { peakCurrentA } = read.at('pack');
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    const none =
      sensors.length === 0
        ? [{ kind: 'not-given' as const, path: 'currentSensors', label: 'current sensors' }]
        : [];
    const whole = sensors.some(({ string }) => string === undefined);
    // Of one string the pack’s sensor sees all; of several the strings’ own tell which of them carries how much.
    const seen = new Set(sensors.map(({ string }) => string));
    const unseen = strings.filter(([id]) => !seen.has(id) && !(whole && strings.length === 1));
    const compared = sensors.flatMap(({ id, tag, string, rangeA }) => {
      if (rangeA === undefined || peakCurrentA === undefined) return [];
      const peakA = string === undefined ? peakCurrentA : peakCurrentA / Math.max(1, strings.length);
      return [{ id, tag, rangeA, peakA }];
    });
    const short = compared.filter(({ rangeA, peakA }) => rangeA < peakA - 1e-9);
    const coarse = compared.filter(({ rangeA, peakA }) => peakA > 0 && rangeA > peakA * coarseOver);
    const unsaid = (field: 'rangeA' | 'sign', label: string) =>
      sensors.flatMap((sensor) =>
        sensor[field] === undefined
          ? [
              {
                kind: 'not-given' as const,
                path: `currentSensors.${sensor.id}.${field}`,
                label: `${label} of ${sensor.tag}`,
              },
            ]
          : [],
      );
    const ranges = unsaid('rangeA', 'range');
    const signs = new Set(sensors.flatMap(({ sign }) => (sign === undefined ? [] : [sign])));
    const charge = sensors.filter(({ sign }) => sign === 'positive in charge').length;
    return {
      figures: [],
      checks: [
        judge(
          monitoringRules.unseenCurrent,
          [subject],
          none,
          unseen.length > 0
            ? `${n(unseen.length)} of ${n(strings.length)} strings without one of their own: ${unseen.map(([, { tag }]) => tag).join(', ')}.`
            : null,
          [v('strings without', unseen.length), v('strings', strings.length)],
          { also: unseen.map(([id]) => id) },
        ),
        judge(
          monitoringRules.shortRange,
          [subject],
          // What is known to be short is said, whatever is missing of the others.
          short.length > 0
            ? []
            : [
                ...none,
                ...ranges,
                ...(peakCurrentA === undefined
                  ? [{ kind: 'not-given' as const, path: 'pack.peakCurrentA', label: 'peak current' }]
                  : []),
              ],
          short.length > 0
            ? short
                .map(
                  ({ tag, rangeA, peakA }) =>
                    `${tag} reads up to ${n(rangeA)} A; ${n(peakA)} A flow at the peak.`,
                )
                .join(' ')
            : null,
          short.flatMap(({ tag, rangeA, peakA }) => [
            v(`range of ${tag}`, rangeA, 'A'),
            v(`peak at ${tag}`, peakA, 'A'),
          ]),
          { also: short.map(({ id }) => id) },
        ),
        judge(
          monitoringRules.coarse,
          [subject],
          coarse.length > 0 ? [] : [...none, ...ranges],
          coarse.length > 0
            ? coarse
                .map(
                  ({ tag, rangeA, peakA }) =>
                    `${tag} reads up to ${n(rangeA)} A; ${n(peakA)} A flow at the peak.`,
                )
                .join(' ')
            : null,
          coarse.flatMap(({ tag, rangeA, peakA }) => [
            v(`range of ${tag}`, rangeA, 'A'),
            v(`peak at ${tag}`, peakA, 'A'),
          ]),
          { also: coarse.map(({ id }) => id) },
        ),
        judge(
          monitoringRules.signs,
          [subject],
          signs.size > 1 ? [] : [...none, ...unsaid('sign', 'direction')],
          signs.size > 1
            ? `${n(charge)} of ${n(sensors.length)} read positive in charge, the rest in drive.`
            : null,
          [v('positive in charge', charge), v('current sensors', sensors.length)],
        ),
      ],
    };
  },
};
