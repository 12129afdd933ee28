import { rulesOf } from '../../ground/finding';
import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { vehicleDefaults, type BoxItem } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';

const rule = rulesOf('pack');

export const placingRules = {
  outside: rule(
    'box-outside',
    'mend',
    'A box reaches out of the vehicle',
    'What stands out is hit first, and a slip of the keyboard moves both axle loads.',
    'Measure its middle and its size again, in metres from the front axle, the middle line and the ground.',
    'Length, front overhang and height of the vehicle',
  ),
  low: rule(
    'box-low',
    'mend',
    'A box hangs below the ground clearance',
    'A kerb, a ramp or a stone reaches cells and cables first.',
    'Raise the box, make it flatter, or guard it by something that is made to be hit.',
    'Lower edge of the box against the ground clearance asked',
  ),
  overlap: rule(
    'boxes-overlap',
    'mend',
    'Two boxes lie in the same place',
    'One of them was measured wrongly, or will not go in.',
    'Move one of them, or measure both again.',
    'Middle and size of each box',
  ),
};

const axes = [
  ['xM', 'lengthM'],
  ['yM', 'widthM'],
  ['zM', 'heightM'],
] as const;
const sides: [field: keyof BoxItem, label: string][] = [
  ['xM', 'place along the vehicle'],
  ['zM', 'height above the ground'],
  ['lengthM', 'length'],
  ['heightM', 'height'],
];

/** How far two boxes reach into each other, m; 0 or less: they do not. */
function overlapM(a: BoxItem, b: BoxItem): number {
  return Math.min(
    ...axes.map(
      ([middle, size]) => (a[size]! + b[size]!) / 2 - Math.abs((a[middle] ?? 0) - (b[middle] ?? 0)),
    ),
  );
}
const measured = (box: BoxItem) =>
  (['xM', 'zM', 'lengthM', 'widthM', 'heightM'] as const).every((field) => box[field] !== undefined);

/** Boxes that touch are not in the same place. */
const touchM = 0.005;

/** Each box in the vehicle: within it, above the road, and clear of the others. */
export const placingStep: StepDefinition = {
  id: 'pack.placing',
  version: 1,
  subjects: (design) => Object.keys(design.boxes),
  compute(subject, read) {
    const boxes = read.at('boxes');
    const box = boxes[subject]!;
    const vehicle = read.at('vehicle');
    const { tag, xM = 0, zM = 0, lengthM = 0, heightM = 0 } = box;
    const clearanceM = vehicle.clearanceM ?? vehicleDefaults.clearanceM;
    const own: Gap[] = sides.flatMap(([field, label]) =>
      box[field] === undefined
        ? [{ kind: 'not-given' as const, path: `boxes.${subject}.${field}`, label: `${label} of ${tag}` }]
        : [],
    );
    const ends: Gap[] =
      vehicle.lengthM === undefined ? [{ kind: 'not-given', path: 'vehicle.lengthM', label: 'length' }] : [];
    const front = vehicle.frontOverhangM ?? 0;
    const rear = front - (vehicle.lengthM ?? 0);
    const n = formatNumber;
    const beyond = [
      { label: 'beyond the front', value: xM + lengthM / 2 - front, unit: 'm' },
      { label: 'beyond the tail', value: rear - xM + lengthM / 2, unit: 'm' },
      { label: 'above the roof', value: zM + heightM / 2 - (vehicle.heightM ?? Infinity), unit: 'm' },
    ];
    const out = beyond.filter(({ value }) => value > 0).map(({ label, value }) => `${n(value)} m ${label}`);
    const lowM = zM - heightM / 2;
    // Each pair is judged at the later of the two.
    const ids = Object.keys(boxes);
    const into = ids.slice(0, ids.indexOf(subject)).flatMap((id) => {
      const other = boxes[id]!;
      const byM = measured(box) && measured(other) ? overlapM(box, other) : 0;
      return byM > touchM ? [{ tag: other.tag, byM }] : [];
    });
    return {
      figures: [],
      checks: [
        judge(
          placingRules.outside,
          [subject],
          [...own, ...ends],
          out.length > 0 ? `${tag} reaches ${out.join(' and ')}.` : null,
          beyond.filter(({ value }) => Number.isFinite(value)),
        ),
        judge(
          placingRules.low,
          [subject],
          own,
          lowM < clearanceM
            ? `${tag} ends ${n(lowM)} m above the ground; ${n(clearanceM)} m are asked.`
            : null,
          [
            { label: 'lower edge', value: lowM, unit: 'm' },
            { label: 'ground clearance asked', value: clearanceM, unit: 'm' },
          ],
        ),
        judge(
          placingRules.overlap,
          [subject],
          own,
          into.length > 0
            ? `${tag} reaches ${into.map(({ tag: other, byM }) => `${n(byM)} m into ${other}`).join(' and ')}.`
            : null,
          into.map(({ tag: other, byM }) => ({ label: `into ${other}`, value: byM, unit: 'm' })),
        ),
      ],
    };
  },
};
