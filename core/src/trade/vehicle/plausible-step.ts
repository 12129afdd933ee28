import { rulesOf } from '../../ground/finding';
import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';

const rule = rulesOf('vehicle');

export const plausibleRules = {
  wheelbase: rule(
    'wheelbase-over-length',
    'mend',
    'The wheelbase does not fit the vehicle’s length',
    'Axle loads, and the places of everything that is put in, rest on these three lengths.',
    'Measure wheelbase, front overhang and length again; all of them are in metres.',
    'The front overhang and the wheelbase lie within the length',
  ),
  speed: rule(
    'speed-above-top',
    'note',
    'The range is computed at a speed that is not driven',
    'The steady speed of the brief is above the one that drive cycles are held to.',
    'Lower the steady speed, or raise the one that is driven at most.',
    'The brief’s own figures',
  ),
  grossAboveAxles: rule(
    'gross-above-axles',
    'note',
    'The gross limit is above what both axles carry',
    'The axles end first: the gross limit is then no limit.',
    'Read the vehicle’s plate again.',
    'Limits on the vehicle’s plate',
  ),
  overloadedBefore: rule(
    'overloaded-before',
    'note',
    'An axle was over its limit before the work',
    'Either it was weighed with a load, or the plate was misread: every later figure rests on both.',
    'Weigh again without load, and read the plate again.',
    'Limits on the vehicle’s plate',
  ),
  outside: rule(
    'mass-outside',
    'mend',
    'A mass lies outside the vehicle',
    'A place beyond the ends is a slip of the keyboard, and it moves both axle loads.',
    'Measure its place from the front axle: ahead counts up, behind counts down.',
    'Front overhang and length of the vehicle',
  ),
};

/** What of these a comparison lacks. */
const lacking = (...fields: [value: unknown, path: string, label: string][]): Gap[] =>
  fields.flatMap(([value, path, label]) =>
    value === undefined ? [{ kind: 'not-given' as const, path, label }] : [],
  );
const n = formatNumber;

/** Whether what is said of the vehicle can be true together. */
export const plausibleStep: StepDefinition = {
  id: 'vehicle.plausible',
  version: 1,
  subjects: () => ['vehicle'],
  compute(subject, read) {
    const v = read.at('vehicle');
    const { wheelbaseM = 0, lengthM = 0, frontOverhangM = 0, speedKmH = 0, topSpeedKmH = 0 } = v;
    const { grossLimitKg = 0, frontLimitKg = 0, rearLimitKg = 0, frontKg = 0, rearKg = 0 } = v;
    const at = (field: keyof typeof v, label: string): [unknown, string, string] => [
      v[field],
      `vehicle.${field}`,
      label,
    ];
    const lengths = lacking(at('wheelbaseM', 'wheelbase'), at('lengthM', 'length'));
    const limits = lacking(at('frontLimitKg', 'front axle limit'), at('rearLimitKg', 'rear axle limit'));
    const over = [
      ...(frontKg > frontLimitKg ? [`front axle ${n(frontKg, 4)} kg of ${n(frontLimitKg, 4)} kg`] : []),
      ...(rearKg > rearLimitKg ? [`rear axle ${n(rearKg, 4)} kg of ${n(rearLimitKg, 4)} kg`] : []),
    ];
    return {
      figures: [],
      checks: [
        judge(
          plausibleRules.wheelbase,
          [subject],
          lengths,
          frontOverhangM + wheelbaseM > lengthM
            ? `${n(frontOverhangM)} m of overhang and ${n(wheelbaseM)} m of wheelbase are more than the ${n(lengthM)} m of the vehicle.`
            : null,
          [
            { label: 'front overhang', value: frontOverhangM, unit: 'm' },
            { label: 'wheelbase', value: wheelbaseM, unit: 'm' },
            { label: 'length', value: lengthM, unit: 'm' },
          ],
        ),
        judge(
          plausibleRules.speed,
          [subject],
          lacking(at('speedKmH', 'steady speed'), at('topSpeedKmH', 'speed driven at most')),
          speedKmH > topSpeedKmH
            ? `The range is for ${n(speedKmH)} km/h; driven are ${n(topSpeedKmH)} km/h at most.`
            : null,
          [
            { label: 'steady speed', value: speedKmH, unit: 'km/h' },
            { label: 'driven at most', value: topSpeedKmH, unit: 'km/h' },
          ],
        ),
        judge(
          plausibleRules.grossAboveAxles,
          [subject],
          [...lacking(at('grossLimitKg', 'gross limit')), ...limits],
          grossLimitKg > frontLimitKg + rearLimitKg
            ? `The gross limit is ${n(grossLimitKg, 4)} kg; both axles together carry ${n(frontLimitKg + rearLimitKg, 4)} kg.`
            : null,
          [
            { label: 'gross limit', value: grossLimitKg, unit: 'kg' },
            { label: 'both axle limits', value: frontLimitKg + rearLimitKg, unit: 'kg' },
          ],
        ),
        judge(
          plausibleRules.overloadedBefore,
          [subject],
          [
            ...lacking(at('frontKg', 'front axle load before'), at('rearKg', 'rear axle load before')),
            ...limits,
          ],
          over.length > 0 ? `Before the work: ${over.join(', ')}.` : null,
          [
            { label: 'front axle before', value: frontKg, unit: 'kg' },
            { label: 'front axle limit', value: frontLimitKg, unit: 'kg' },
            { label: 'rear axle before', value: rearKg, unit: 'kg' },
            { label: 'rear axle limit', value: rearLimitKg, unit: 'kg' },
          ],
        ),
      ],
    };
  },
};

/** How far beyond bumpers a thing may be put: a hitch, a front carrier. */
const beyondM = 0.5;

/** Each mass within the vehicle. */
export const placesStep: StepDefinition = {
  id: 'vehicle.places',
  version: 1,
  subjects: () => ['vehicle'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const lengthM = read.at('vehicle', 'lengthM');
    const front = read.at('vehicle', 'frontOverhangM') ?? 0;
    const rear = front - (lengthM ?? 0);
    const noLength = lacking([lengthM, 'vehicle.lengthM', 'length']);
    const checks = Object.entries(read.at('masses')).map(([id, { tag, xM }]) => {
      const x = xM ?? 0;
      const out = x > front + beyondM || x < rear - beyondM;
      return judge(
        plausibleRules.outside,
        [id],
        [...lacking([xM, `masses.${id}.xM`, `place of ${tag}`]), ...noLength],
        out
          ? `${tag} lies ${n(Math.abs(x))} m ${x > 0 ? 'ahead of' : 'behind'} the front axle; the vehicle reaches from ${n(front)} m ahead to ${n(-rear)} m behind it.`
          : null,
        [
          { label: 'from the front axle', value: Math.abs(x), unit: 'm' },
          { label: 'front of the vehicle', value: front, unit: 'm' },
          { label: 'tail of the vehicle', value: -rear, unit: 'm' },
        ],
      );
    });
    return { figures: [], checks };
  },
};
