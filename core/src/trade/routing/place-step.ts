import { formatNumber } from '../../ground/quantity';
import { vehicleDefaults, type Design } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { runRules } from './rules';
import { placeGaps, solidOf, type Solid } from './solids';

const n = formatNumber;
/** What may be from rounding, m. */
const withinM = 0.005;

/** How far two reach into each other along the axis on which they do so least, m; below 0: they are apart. */
const intoM = (a: Solid, b: Solid): number =>
  Math.min(...[0, 1, 2].map((i) => Math.min(a.high[i]!, b.high[i]!) - Math.max(a.low[i]!, b.low[i]!)));
const liesIn = (a: Solid, b: Solid): boolean =>
  [0, 1, 2].every((i) => a.low[i]! >= b.low[i]! - withinM && a.high[i]! <= b.high[i]! + withinM);

/** How far something reaches beyond the vehicle, m, along its length and above its roof. */
function beyondVehicle({ low, high }: Solid, vehicle: Design['vehicle']) {
  const { frontOverhangM = 0, lengthM, heightM } = vehicle;
  return [
    { label: 'beyond the front', value: high[0]! - frontOverhangM, unit: 'm' },
    ...(lengthM === undefined
      ? []
      : [{ label: 'beyond the tail', value: frontOverhangM - lengthM - low[0]!, unit: 'm' }]),
    ...(heightM === undefined ? [] : [{ label: 'above the roof', value: high[2]! - heightM, unit: 'm' }]),
  ];
}

/** Each device that has a place, against the other devices and the boxes: in a box it lies whole, or beside it. */
export const placeStep: StepDefinition = {
  id: 'routing.place',
  version: 1,
  // Of what has no place at all nothing is asked here.
  subjects: ({ devices }) =>
    Object.keys(devices).filter((id) =>
      (['xM', 'yM', 'zM'] as const).some((axis) => devices[id]![axis] !== undefined),
    ),
  compute(subject, read) {
    const devices = read.at('devices');
    const boxes = read.at('boxes');
    const { tag, ...own } = devices[subject]!;
    const solid = solidOf(own);
    if (solid === null) {
      const gaps = placeGaps(`devices.${subject}`, devices[subject]!);
      return {
        figures: [],
        checks: [runRules.outside, runRules.deviceLow, runRules.overlap].map((rule) =>
          judge(rule, [subject], gaps, null),
        ),
      };
    }
    const met = [
      ...Object.entries(devices)
        // The pair is one finding, said at the first of the two.
        .filter(([id]) => id > subject)
        .map(([id, thing]) => ({ id, thing, mayHold: false })),
      ...Object.entries(boxes).map(([id, thing]) => ({ id, thing, mayHold: true })),
    ].flatMap(({ id, thing, mayHold }) => {
      const other = solidOf(thing);
      if (other === null || (mayHold && liesIn(solid, other))) return [];
      const byM = intoM(solid, other);
      return byM > withinM ? [{ id, tag: thing.tag, byM }] : [];
    });
    const vehicle = read.at('vehicle');
    const beyond = beyondVehicle(solid, vehicle);
    // Of what lies in a box the box is judged.
    const boxed = Object.values(boxes).some((box) => {
      const around = solidOf(box);
      return around !== null && liesIn(solid, around);
    });
    const out = boxed ? [] : beyond.filter(({ value }) => value > withinM);
    const clearanceM = vehicle.clearanceM ?? vehicleDefaults.clearanceM;
    const lowM = solid.low[2]!;
    return {
      figures: [],
      checks: [
        judge(
          runRules.outside,
          [subject],
          vehicle.lengthM === undefined && !boxed
            ? [{ kind: 'not-given', path: 'vehicle.lengthM', label: 'length' }]
            : [],
          out.length > 0
            ? `${tag} reaches ${out.map(({ label, value }) => `${n(value)} m ${label}`).join(' and ')}.`
            : null,
          beyond,
        ),
        judge(
          runRules.deviceLow,
          [subject],
          [],
          !boxed && lowM < clearanceM - 1e-9
            ? `${tag} ends ${n(lowM)} m above the ground; ${n(clearanceM)} m are asked.`
            : null,
          [
            { label: 'lower edge', value: lowM, unit: 'm' },
            { label: 'ground clearance asked', value: clearanceM, unit: 'm' },
          ],
        ),
        judge(
          runRules.overlap,
          [subject],
          [],
          met.length > 0
            ? `${tag} reaches ${met.map((one) => `${n(one.byM * 1000)} mm into ${one.tag}`).join(', ')}.`
            : null,
          met.map((one) => ({ label: `into ${one.tag}`, value: one.byM, unit: 'm' })),
          { also: met.map(({ id }) => id) },
        ),
      ],
    };
  },
};
