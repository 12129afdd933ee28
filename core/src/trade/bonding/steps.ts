import { mainCircuit, type BondItem, type Id } from '../../model/document';
import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { faultPoints, faultRange, uncoveredAt } from '../fuse';
import { feedingCircuit } from '../network';
import { partKey } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { gapsBehind, judge, type Reader, type SharedView, type StepDefinition } from '../../model/step';
import { bodiesOf, bondOhm, bondPath, defaultContactOhm, type Body, type BodySlices } from './bodies';
import { cableStep, senseStep, sourceStep } from './cable-steps';
import { notGiven } from './lacks';
import { bondingRules as rules, mostBondOhm } from './rules';
import { supplyStep } from './supply-step';

const n = formatNumber;
/** Of a copper strap, A√s/mm². */
const strapK = 143;

const bodies = (design: BodySlices) => bodiesOf(design, mainCircuit, (id) => feedingCircuit(design, id));

const bodiesView: SharedView<Body[]> = { id: 'bonding.bodies', make: bodies };

const bodyStep: StepDefinition = {
  id: 'bonding.body',
  version: 1,
  subjects: (design) => bodies(design).map(({ id }) => id),
  compute(subject, read) {
    const bonds = read.at('bonds') ?? {};
    const body = read.shared(bodiesView).find(({ id }) => id === subject)!;
    const own = bonds[subject];
    const exempt = own?.by === 'not-conductive';
    const unsaid = own?.by === undefined ? [notGiven(`bonds.${subject}.by`, `bond of ${body.tag}`)] : [];
    const way = wayOf(subject, bonds, body.tag);
    const gaps = exempt || own?.by === 'none' ? [] : [...unsaid, ...way.gaps];
    const allowed = { label: 'allowed', value: mostBondOhm, unit: 'Ω' };
    const none = judge(
      rules.none,
      [subject],
      unsaid,
      own?.by === 'none'
        ? `${body.tag} has no bond to the chassis; below ${n(mostBondOhm)} Ω is asked.`
        : null,
      [allowed],
    );
    if (exempt || own?.by === 'none') return { figures: [], checks: [none] };
    const figure: Figure = {
      id: figureId('bonding.body', subject, 'pathOhm'),
      label: 'Way to the chassis',
      unit: 'Ω',
      value: gaps.length > 0 ? null : way.ohm,
      gaps,
      limit: { max: mostBondOhm },
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'R_b',
                label: 'Way to the chassis',
                formula: 'Σ(l·r + R_c)',
                inputs: way.path.map((id, i) => ({
                  symbol: `R_${i + 1}`,
                  value: bondOhm(bonds[id]!)!,
                  unit: 'Ω',
                  origin: { kind: 'document' as const, path: `bonds.${id}` },
                })),
                value: way.ohm,
                unit: 'Ω',
                source: `IEC 60228 at 20 °C; ${n(defaultContactOhm * 1000)} mΩ for both ends where not given`,
              },
            ],
    };
    const resistance = judge(
      rules.resistance,
      [subject],
      gaps,
      way.ohm > mostBondOhm
        ? `${body.tag} has ${formatQuantity(way.ohm, 'Ω')} to the chassis; ${n(mostBondOhm)} Ω are allowed.`
        : null,
      [{ label: 'way to the chassis', value: way.ohm, unit: 'Ω' }, allowed],
    );
    return { figures: [figure], checks: [none, resistance, withstand(body, own, unsaid, read)] };
  },
};

/** Bonds one after another up to the chassis, their sum, and what is missing on the way. */
function wayOf(
  body: Id,
  bonds: Readonly<Record<Id, BondItem>>,
  tag: string,
): { path: Id[]; ohm: number; gaps: Gap[] } {
  const path = bondPath(bonds, body);
  if (path === null)
    return {
      path: [],
      ohm: 0,
      gaps: [
        {
          kind: 'invalid',
          path: `bonds.${body}.to`,
          label: `bond of ${tag}`,
          message: 'leads in a circle and never to the chassis',
        },
      ],
    };
  const gaps = path.flatMap((id) => {
    const bond = bonds[id];
    if (bond?.by === 'none' || bond?.by === 'not-conductive')
      return [
        {
          kind: 'invalid' as const,
          path: `bonds.${body}.to`,
          label: `bond of ${tag}`,
          message: 'leads to a body that has none itself',
        },
      ];
    return bond === undefined || bondOhm(bond) === null ? lacksOf(id, bond) : [];
  });
  const ohm = gaps.length > 0 ? 0 : path.reduce((sum, id) => sum + bondOhm(bonds[id]!)!, 0);
  return { path, ohm, gaps };
}

function lacksOf(id: Id, bond: BondItem | undefined): Gap[] {
  const at = `bonds.${id}`;
  if (bond?.by === undefined) return [notGiven(`${at}.by`, 'bond')];
  const gaps: Gap[] = [];
  if (bond.areaMm2 === undefined) gaps.push(notGiven(`${at}.areaMm2`, 'area of the strap'));
  if (bond.lengthM === undefined) gaps.push(notGiven(`${at}.lengthM`, 'length of the strap'));
  return gaps.length > 0
    ? gaps
    : [
        {
          kind: 'invalid',
          path: `${at}.areaMm2`,
          label: 'strap',
          message: 'needs an area of IEC 60228, a length and a contact of 0 or more',
        },
      ];
}

/** A strap against what the fuse lets through in a double fault. */
function withstand(body: Body, own: BondItem | undefined, unsaid: Gap[], read: Reader): Check {
  const { areaMm2, by } = own ?? {};
  if (by === 'bolted') return judge(rules.withstand, [body.id], [], null);
  const key = read.at('circuits', body.circuit, 'fuse');
  const part = key === undefined ? undefined : read.at('parts', key);
  const [largest, smallest] = (['largest', 'smallest'] as const).map((which) =>
    read.figure(figureId('fuse.fault', `${body.circuit}/${which}`, 'prospectiveA')),
  ) as [Figure, Figure];
  const gaps: Gap[] = [
    ...unsaid,
    ...(by === 'strap' && areaMm2 === undefined
      ? [notGiven(`bonds.${body.id}.areaMm2`, `area of the strap of ${body.tag}`)]
      : []),
    ...(by === 'strap' && areaMm2 !== undefined && !(areaMm2 > 0)
      ? [
          {
            kind: 'invalid' as const,
            path: `bonds.${body.id}.areaMm2`,
            label: `area of the strap of ${body.tag}`,
            message: 'must be above 0',
          },
        ]
      : []),
    ...(part?.kind === 'fuse' ? [] : [notGiven(`circuits.${body.circuit}.fuse`, 'fuse')]),
    ...[largest, smallest].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : [])),
  ];
  if (gaps.length > 0 || part?.kind !== 'fuse') return judge(rules.withstand, [body.id], gaps, null);
  const limitA2s = (strapK * (areaMm2 ?? 0)) ** 2;
  const uncovered = uncoveredAt(
    { ...part.data, faultMinA: smallest.value!, faultMaxA: Math.max(smallest.value!, largest.value!) },
    limitA2s,
  );
  return judge(
    rules.withstand,
    [body.id],
    [],
    uncovered.length > 0
      ? `At ${uncovered.length} of ${faultPoints} fault currents, ${faultRange(uncovered)}, ${part.label} lets through more than the strap of ${n(areaMm2 ?? 0)} mm² at ${body.tag} bears, ${formatQuantity(limitA2s, 'A²s')}, or takes too long.`
      : null,
    [
      { label: 'fault currents not covered', value: uncovered.length, unit: '' },
      { label: 'what the strap bears', value: limitA2s, unit: 'A²s' },
      { label: 'lowest not covered', value: uncovered[0] ?? 0, unit: 'A' },
      { label: 'highest not covered', value: uncovered.at(-1) ?? 0, unit: 'A' },
      { label: 'area of the strap', value: areaMm2 ?? 0, unit: 'mm²' },
    ],
    { parts: [partKey(part)] },
  );
}

export const bondingSteps: StepDefinition[] = [bodyStep, cableStep, senseStep, sourceStep, supplyStep];
