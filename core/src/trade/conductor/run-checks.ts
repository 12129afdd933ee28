import type { CircuitItem, Id } from '../../model/document';
import type { Check, Gap } from '../../ground/figure';
import { partKey, type PartOf } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { judge, type Ranking } from '../../model/step';
import { conduitFill, overfilled, type ConduitFill } from './conduit';
import { endRules, jacketOf, type CableEnd } from './ends';
import { waysOf } from './ways';

const n = formatNumber;

/**
 * The gland against the heat of the cable and against the screen that is to end in it.
 *
 * @param gaps what keeps both from being judged, and what keeps the heat from being known
 */
export function glandChecks(
  subject: Id,
  tag: string,
  gland: PartOf<'gland'> | null,
  end: CableEnd | null,
  gaps: { both: Gap[]; heat: Gap[] },
  ranking: Ranking,
): Check[] {
  const jacketC = end === null ? null : jacketOf(end);
  const clamped = end?.screensClamped ?? 0;
  const parts = gland === null ? [] : [partKey(gland)];
  const maxC = gland?.data.maxC ?? 0;
  return [
    judge(
      endRules.glandHeat,
      [subject],
      [...gaps.both, ...gaps.heat],
      jacketC !== null && jacketC > maxC
        ? `${gland?.label} stands ${n(maxC)} °C; the jacket reaches about ${n(jacketC)} °C.`
        : null,
      [
        { label: 'jacket, about', value: jacketC ?? 0, unit: '°C' },
        { label: 'of the gland', value: maxC, unit: '°C' },
      ],
      { ranking, parts },
    ),
    judge(
      endRules.glandScreen,
      [subject],
      gaps.both,
      clamped > 0 && gland?.data.screenContact === false
        ? `${gland.label} has no contact to the screen, which ${tag} clamps at ${clamped} of 2 ends.`
        : null,
      [{ label: 'ends clamped', value: clamped, unit: '' }],
      { ranking, parts },
    ),
  ];
}

/** The cables of a circuit in their conduit, in each part of its way. */
export function conduitCheck(subject: Id, circuit: CircuitItem, cable: PartOf<'cable'> | null): Check[] {
  const inConduit = waysOf(circuit, subject).filter(
    ({ own }) => (own.install ?? circuit.install) === 'steel-conduit',
  );
  if (inConduit.length === 0) return [];
  const gaps: Gap[] = cable === null ? [notGiven(`circuits.${subject}.cable`, 'cable')] : [];
  const fills = inConduit.flatMap(({ at, own }) => {
    const conduitInnerMm = own.conduitInnerMm ?? circuit.conduitInnerMm;
    if (conduitInnerMm === undefined)
      gaps.push(notGiven(`${at}.conduitInnerMm`, 'inner diameter of the conduit'));
    else if (!(conduitInnerMm > 0))
      gaps.push({
        kind: 'invalid',
        path: `${at}.conduitInnerMm`,
        label: 'inner diameter of the conduit',
        message: 'must be above 0',
      });
    const found = conduitFill(
      {
        install: 'steel-conduit',
        parallel: circuit.parallel,
        ...(conduitInnerMm !== undefined && { conduitInnerMm }),
      },
      cable?.data.outerDiameterMm ?? 0,
    );
    return found === null ? [] : [found];
  });
  const worst = fills.reduce<ConduitFill | null>(
    (most, one) => (most === null || one.fill > most.fill ? one : most),
    null,
  );
  const outerMm = cable?.data.outerDiameterMm ?? 0;
  return [
    judge(
      endRules.conduitFill,
      [subject],
      gaps,
      worst !== null && overfilled(worst)
        ? `${n(worst.cables)} cables of ${n(outerMm)} mm fill ${n(worst.fill * 100)} % of a conduit of ${n(worst.conduitInnerMm)} mm; ${n(worst.most * 100)} % go in.`
        : null,
      [
        { label: 'cables in the conduit', value: worst?.cables ?? 0, unit: '' },
        { label: 'outer diameter', value: outerMm, unit: 'mm' },
        { label: 'filled', value: (worst?.fill ?? 0) * 100, unit: '%' },
        { label: 'goes in', value: (worst?.most ?? 0) * 100, unit: '%' },
        { label: 'conduit inside', value: worst?.conduitInnerMm ?? 0, unit: 'mm' },
      ],
      { parts: cable === null ? [] : [partKey(cable)] },
    ),
  ];
}

const notGiven = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });
