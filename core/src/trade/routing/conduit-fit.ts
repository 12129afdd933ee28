import { defineCalculator } from '../../ground/calculator';
import { list, number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';

export interface ConduitFitInput {
  innerDiameterMm: number;
  cables: { outerDiameterMm: number }[];
  lugWidthMm?: number;
  totalBendDeg: number;
  elbowRadiusMm?: number;
  minCableRadiusMm: number;
}

export interface ConduitFitResult {
  fillFraction: number;
  allowedFraction: number;
  fits: boolean;
  jamRisk: boolean;
  bendsOk: boolean;
  radiusOk: boolean | null;
  terminateAfterPull: boolean;
}

const rule = rulesOf('conduit-fit');
const source =
  'Fill of one, two and more cables, jam ratio, and bends between pulls: usual limits of conduit work';

export const conduitFitRules = {
  full: rule(
    'too-full',
    'mend',
    'The conduit is too full',
    'What is packed does not slide, does not cool, and is not pulled out again.',
    'A wider conduit, or one for each cable.',
    source,
  ),
  jam: rule(
    'jam',
    'mend',
    'Three cables may jam in a bend',
    'At this ratio of bore to cable the middle one is wedged between its neighbours when they flatten out in a bend.',
    'Another bore, or the cables tied together before they are pulled.',
    source,
  ),
  bends: rule(
    'too-many-bends',
    'mend',
    'More than a full turn between two pull points',
    'Friction multiplies from bend to bend: the last ones take most of the pull.',
    'A box or a fitting that opens, half way.',
    source,
  ),
  radius: rule(
    'elbow-radius',
    'mend',
    'An elbow bends the cable tighter than it allows',
    'A cable under tension hugs the inside of the bend, and lies on a smaller radius than the elbow’s middle.',
    'A longer elbow, or a more flexible cable.',
    'Cable maker’s least bend radius; inside of the bend',
  ),
  lug: rule(
    'lug-does-not-pass',
    'note',
    'The lug does not pass the bore',
    'It is crimped at the place of work: tools, hands and light have to get there.',
    'Pull first, terminate after; plan room for the crimping tool.',
    'Width of the lug against the bore',
  ),
};

const area = (diameter: number) => (Math.PI / 4) * diameter ** 2;
const mostBendDeg = 360;

/** The share of a bore that this many cables may take. */
export const allowedFill = (cables: number) => (cables === 1 ? 0.53 : cables === 2 ? 0.31 : 0.4);

/**
 * Whether cables go into a conduit, pass its bends, and come out with their lugs.
 *
 * Source: fill by areas; jam ratio 1.05·ID/OD of three equal cables between 2.8 and 3.2; 360° between pull points.
 */
export const conduitFit = defineCalculator<ConduitFitInput, ConduitFitResult>({
  name: 'conduit-fit',
  version: 1,
  title: 'Cables in a conduit',
  rules: Object.values(conduitFitRules),
  door: {
    schema: record({
      innerDiameterMm: number({ above: 0, max: 10_000 }),
      cables: list(record({ outerDiameterMm: number({ above: 0, max: 10_000 }) }), {
        minRows: 1,
        maxRows: 200,
      }),
      lugWidthMm: number.optional({ above: 0 }),
      totalBendDeg: number({ min: 0 }),
      elbowRadiusMm: number.optional({ above: 0 }),
      minCableRadiusMm: number({ min: 0 }),
    }),
  },
  compute(input, { sheet, raise }) {
    const {
      innerDiameterMm: bore,
      cables,
      lugWidthMm,
      totalBendDeg,
      elbowRadiusMm,
      minCableRadiusMm,
    } = input;
    const diameters = cables.map(({ outerDiameterMm }) => outerDiameterMm);
    const fillFraction = sheet.add({
      symbol: 'f',
      label: 'Fill',
      formula: 'A_c/A_i',
      inputs: [
        { symbol: 'A_c', value: diameters.reduce((sum, one) => sum + area(one), 0), unit: 'mm²' },
        { symbol: 'A_i', value: area(bore), unit: 'mm²' },
      ],
      value: diameters.reduce((sum, one) => sum + area(one), 0) / area(bore),
      unit: 'fraction',
      source,
    });
    const allowedFraction = allowedFill(cables.length);
    const fits = fillFraction <= allowedFraction + 1e-12;
    if (!fits)
      raise(
        conduitFitRules.full,
        `${formatNumber(fillFraction * 100)} % of the bore; ${formatNumber(allowedFraction * 100)} % are allowed for ${cables.length === 1 ? 'one cable' : `${cables.length} cables`}.`,
      );
    const jamRatio = (1.05 * bore) / diameters[0]!;
    const three = diameters.length === 3 && diameters.every((one) => one === diameters[0]);
    const jamRisk = three && jamRatio >= 2.8 - 1e-12 && jamRatio <= 3.2 + 1e-12;
    if (jamRisk)
      raise(
        conduitFitRules.jam,
        `Jam ratio ${formatNumber(jamRatio)}; between 2.8 and 3.2 three cables wedge.`,
      );
    const bendsOk = totalBendDeg <= mostBendDeg + 1e-9;
    if (!bendsOk)
      raise(
        conduitFitRules.bends,
        `${formatNumber(totalBendDeg)}° of bends; ${mostBendDeg}° are usual at most.`,
      );
    const radiusOk = elbowRadiusMm === undefined ? null : elbowRadiusMm >= minCableRadiusMm - 1e-9;
    if (elbowRadiusMm !== undefined) {
      const insideMm = sheet.add({
        symbol: 'r_i',
        label: 'Radius on which a pulled cable lies',
        formula: 'r − (D − d)/2',
        inputs: [
          { symbol: 'r', value: elbowRadiusMm, unit: 'mm', from: 'elbowRadiusMm' },
          { symbol: 'D', value: bore, unit: 'mm', from: 'innerDiameterMm' },
          { symbol: 'd', value: Math.max(...diameters), unit: 'mm' },
        ],
        value: elbowRadiusMm - (bore - Math.max(...diameters)) / 2,
        unit: 'mm',
        source: 'It hugs the inside of the bend',
      });
      if (insideMm < minCableRadiusMm - 1e-9)
        raise(
          conduitFitRules.radius,
          `On the inside of the elbow the cable lies on ${formatNumber(insideMm)} mm; it allows ${formatNumber(minCableRadiusMm)} mm.`,
        );
    }
    const terminateAfterPull = lugWidthMm !== undefined && lugWidthMm > bore;
    if (terminateAfterPull)
      raise(
        conduitFitRules.lug,
        `The lug is ${formatNumber(lugWidthMm)} mm wide, the bore ${formatNumber(bore)} mm.`,
      );
    return { fillFraction, allowedFraction, fits, jamRisk, bendsOk, radiusOk, terminateAfterPull };
  },
});
