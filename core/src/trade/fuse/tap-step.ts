import { rulesOf } from '../../ground/finding';
import { figureId, type Gap } from '../../ground/figure';
import { logSpaced } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import type { Design } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { faultPoints } from './limits';
import { clearingTimeS } from './melting';
import { upstreamOf } from './selective';

export const tapRule = rulesOf('fuse')(
  'tap-unprotected',
  'mend',
  'The wire from the tap to the fuse is protected by nothing',
  'A short before the fuse is fed through a wire that only the fuse upstream looks after, and that one lets it burn.',
  'The fuse right at the tap, a wire that the fuse upstream protects, or one so laid that it cannot be shorted.',
  '(k·S)² of the wire against what the fuses upstream let through',
);

/** A wire as short as this, laid so that nothing shorts it, may go without a fuse of its own, m. */
const shortTapM = 0.2;

/** Each branch’s wire before its fuse. */
export const tapStep: StepDefinition = {
  id: 'fuse.tap',
  version: 1,
  subjects: ({ circuits }: Pick<Design, 'circuits'>) =>
    Object.keys(circuits).filter((id) => circuits[id]!.tapLengthM !== undefined),
  compute(subject, read) {
    const { tag, tapLengthM = 0, tapAreaMm2, cable: key = '' } = read.at('circuits', subject)!;
    const cable = read.at('parts', key);
    const largest = read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA'));
    const smallest = read.figure(figureId('fuse.fault', `${subject}/smallest`, 'prospectiveA'));
    const long = tapLengthM > shortTapM;
    const missing = (field: string, label: string): Gap => ({
      kind: 'not-given',
      path: `circuits.${subject}.${field}`,
      label,
    });
    const bad: Gap[] =
      tapLengthM >= 0
        ? []
        : [
            {
              kind: 'invalid',
              path: `circuits.${subject}.tapLengthM`,
              label: 'from the tap to the fuse',
              message: 'must be 0 or more',
            },
          ];
    const gaps = [
      ...bad,
      ...(tapAreaMm2 === undefined ? [missing('tapAreaMm2', 'area of the wire to the fuse')] : []),
      ...(cable?.kind === 'cable' ? [] : [missing('cable', 'cable')]),
      ...[largest, smallest].flatMap((one) => (one.value === null ? gapsBehind(one) : [])),
    ];
    const limitA2s = ((cable?.kind === 'cable' ? cable.data.adiabaticK : 0) * (tapAreaMm2 ?? 0)) ** 2;
    const fuses = upstreamOf(
      { circuits: read.at('circuits'), strings: read.at('strings'), parts: read.at('parts') },
      subject,
    );
    const most = gaps.length > 0 || !long ? 0 : leastLetThrough(fuses, smallest.value!, largest.value!);
    const n = formatNumber;
    return {
      figures: [],
      checks: [
        judge(
          tapRule,
          [subject],
          gaps,
          most > limitA2s
            ? `${tag}: ${n(tapLengthM)} m of ${n(tapAreaMm2 ?? 0)} mm² lie before the fuse; they bear ${n(limitA2s)} A²s, and ${fuses.length === 0 ? '0 fuses stand upstream' : Number.isFinite(most) ? `upstream ${n(most)} A²s are let through` : 'upstream nothing clears the smallest fault'}.`
            : null,
          [
            { label: 'from the tap to the fuse', value: tapLengthM, unit: 'm' },
            { label: 'area of the wire', value: tapAreaMm2 ?? 0, unit: 'mm²' },
            { label: 'the wire bears', value: limitA2s, unit: 'A²s' },
            { label: 'let through upstream', value: Number.isFinite(most) ? most : 0, unit: 'A²s' },
            { label: 'fuses upstream', value: fuses.length, unit: '' },
          ],
          { parts: fuses.flatMap(({ partKey }) => partKey ?? []) },
        ),
      ],
    };
  },
};

/** What the best of the fuses upstream lets through at its worst fault, A²s; Infinity: none clears them all. */
function leastLetThrough(fuses: ReturnType<typeof upstreamOf>, minA: number, maxA: number): number {
  const currents = minA < maxA ? logSpaced(minA, maxA, faultPoints) : [maxA];
  return fuses.reduce((least, { data, share }) => {
    const worst = currents.reduce((most, currentA) => {
      const clearS = clearingTimeS(data, currentA * share);
      return Math.max(most, clearS === null ? Infinity : currentA ** 2 * clearS);
    }, 0);
    return Math.min(least, worst);
  }, Infinity);
}
