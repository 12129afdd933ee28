import type { CircuitItem, Id } from '../../model/document';
import type { Check } from '../../ground/figure';
import { partKey, type GlandData, type PartOf } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { judge } from '../../model/step';
import { conduitFill, overfilled } from './conduit';
import { endRules, jacketOf, type CableEnd } from './ends';
import { waysOf } from './ways';

const n = formatNumber;

/** The gland against the heat of the cable and against the screen that is to end in it. */
export function glandChecks(
  subject: Id,
  tag: string,
  gland: { label: string; key: string; data: GlandData },
  end: CableEnd,
): Check[] {
  const { label, key, data } = gland;
  const jacketC = jacketOf(end);
  return [
    judge(
      endRules.glandHeat,
      [subject],
      [],
      jacketC !== null && jacketC > data.maxC
        ? `${label} stands ${n(data.maxC)} °C; the jacket reaches about ${n(jacketC)} °C.`
        : null,
      [
        { label: 'jacket, about', value: jacketC ?? 0, unit: '°C' },
        { label: 'of the gland', value: data.maxC, unit: '°C' },
      ],
      { parts: [key] },
    ),
    judge(
      endRules.glandScreen,
      [subject],
      [],
      (end.screensClamped ?? 0) > 0 && !data.screenContact
        ? `${label} has no contact to the screen, which ${tag} clamps at ${end.screensClamped} of 2 ends.`
        : null,
      [{ label: 'ends clamped', value: end.screensClamped ?? 0, unit: '' }],
      { parts: [key] },
    ),
  ];
}

/** The cables of a circuit in their conduit, in each part of its way. */
export function conduitCheck(subject: Id, circuit: CircuitItem, cable: PartOf<'cable'> | null): Check[] {
  if (cable === null) return [];
  const fills = waysOf(circuit, subject).flatMap(({ own }) => {
    const install = own.install ?? circuit.install ?? 'free-air';
    const conduitInnerMm = own.conduitInnerMm ?? circuit.conduitInnerMm;
    const found = conduitFill(
      { install, parallel: circuit.parallel, ...(conduitInnerMm !== undefined && { conduitInnerMm }) },
      cable.data.outerDiameterMm,
    );
    return found === null ? [] : [found];
  });
  if (fills.length === 0) return [];
  const worst = fills.reduce((most, one) => (one.fill > most.fill ? one : most));
  return [
    judge(
      endRules.conduitFill,
      [subject],
      [],
      overfilled(worst)
        ? `${n(worst.cables)} cables of ${n(cable.data.outerDiameterMm)} mm fill ${n(worst.fill * 100)} % of a conduit of ${n(worst.conduitInnerMm)} mm; ${n(worst.most * 100)} % go in.`
        : null,
      [
        { label: 'cables in the conduit', value: worst.cables, unit: '' },
        { label: 'outer diameter', value: cable.data.outerDiameterMm, unit: 'mm' },
        { label: 'filled', value: worst.fill * 100, unit: '%' },
        { label: 'goes in', value: worst.most * 100, unit: '%' },
        { label: 'conduit inside', value: worst.conduitInnerMm, unit: 'mm' },
      ],
      { parts: [partKey(cable)] },
    ),
  ];
}
