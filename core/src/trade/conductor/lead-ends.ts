import type { Id, LeadItem } from '../../model/document';
import type { Check, Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { partKey, type PartOf } from '../../model/parts';
import { judge, type Reader } from '../../model/step';
import { conduitFill, overfilled } from './conduit';
import { endRules, glandProblem, jacketOf, lugProblems, rankGlands, rankLugs, type CableEnd } from './ends';

const n = formatNumber;
const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });

/** Lugs, gland and conduit of a cable inside the pack. */
export function leadEndChecks(
  subject: Id,
  lead: LeadItem,
  chosen: PartOf<'cable'> | null,
  conductorTemperatureC: number | null,
  heatGaps: readonly Gap[],
  read: Reader,
): Check[] {
  const at = `pack.leads.${subject}`;
  const [lug, gland] = [read.at('parts', lead.lug ?? ''), read.at('parts', lead.gland ?? '')];
  const missing = (field: string, label: string): Gap => ({
    kind: 'not-given',
    path: `${at}.${field}`,
    label: `${label} of ${lead.tag}`,
  });
  const noCable = chosen === null ? [missing('cable', 'cable')] : [];
  const end: CableEnd | null = chosen && {
    areaMm2: chosen.data.areaMm2,
    outerDiameterMm: chosen.data.outerDiameterMm,
    conductorTemperatureC,
    studMm: lead.studMm ?? null,
  };
  const lugData = lug?.kind === 'lug' ? lug.data : null;
  const problems = lugData === null || end === null ? new Map<unknown, string>() : lugProblems(lugData, end);
  const lugParts = read.parts('lug');
  const glandParts = read.parts('gland');
  const lugCheck = (of: typeof endRules.lugArea, gaps: Gap[], values: CheckValue[]) =>
    judge(
      of,
      [subject],
      [...noCable, ...(lugData === null ? [missing('lug', 'cable lugs')] : []), ...gaps],
      problems.has(of) ? `${lug?.label} at ${lead.tag} ${problems.get(of)}.` : null,
      values,
      {
        parts: lugData === null ? [] : [partKey(lug!)],
        ranking: () => ({ suggestions: end === null ? [] : rankLugs(lugParts, end).slice(0, 4) }),
      },
    );
  const glandData = gland?.kind === 'gland' ? gland.data : null;
  const outerMm = end?.outerDiameterMm ?? 0;
  const clamp = glandData === null ? null : glandProblem(glandData, outerMm);
  const jacketC = end === null ? null : jacketOf(end);
  const glandOf = {
    parts: glandData === null ? [] : [partKey(gland!)],
    ranking: () => ({ suggestions: end === null ? [] : rankGlands(glandParts, end).slice(0, 4) }),
  };
  const noGland = glandData === null ? [missing('gland', 'gland')] : [];
  const fill =
    lead.install === 'steel-conduit'
      ? conduitFill(
          {
            install: 'steel-conduit',
            parallel: lead.parallel ?? 1,
            ...(lead.conduitInnerMm !== undefined && { conduitInnerMm: lead.conduitInnerMm }),
          },
          outerMm,
        )
      : null;
  return [
    lugCheck(
      endRules.lugArea,
      [],
      [v('area of the cable', end?.areaMm2 ?? 0, 'mm²'), v('of the lug', lugData?.areaMm2 ?? 0, 'mm²')],
    ),
    lugCheck(endRules.lugStud, lead.studMm === undefined ? [missing('studMm', 'stud of the lugs')] : [], [
      v('stud', lead.studMm ?? 0, 'mm'),
      v('of the lug', lugData?.studMm ?? 0, 'mm'),
    ]),
    lugCheck(
      endRules.lugHeat,
      [...heatGaps],
      [v('conductor', conductorTemperatureC ?? 0, '°C'), v('of the lug', lugData?.maxC ?? 0, '°C')],
    ),
    judge(
      endRules.glandClamp,
      [subject],
      [...noCable, ...noGland],
      clamp === null || end === null ? null : `${gland?.label} at ${lead.tag} ${clamp}.`,
      [v('outer diameter', outerMm, 'mm'), v('clamps to', glandData?.clampMaxMm ?? 0, 'mm')],
      glandOf,
    ),
    judge(
      endRules.glandHeat,
      [subject],
      [...noCable, ...noGland, ...heatGaps],
      jacketC !== null && glandData !== null && jacketC > glandData.maxC
        ? `${gland?.label} at ${lead.tag} stands ${n(glandData.maxC)} °C; the jacket reaches about ${n(jacketC)} °C.`
        : null,
      [v('jacket, about', jacketC ?? 0, '°C'), v('of the gland', glandData?.maxC ?? 0, '°C')],
      glandOf,
    ),
    ...(lead.install === 'steel-conduit'
      ? [
          judge(
            endRules.conduitFill,
            [subject],
            [
              ...noCable,
              ...(lead.conduitInnerMm === undefined
                ? [missing('conduitInnerMm', 'inner diameter of the conduit')]
                : []),
            ],
            overfilled(fill)
              ? `${lead.tag}: ${n(fill!.cables)} cables of ${n(outerMm)} mm fill ${n(fill!.fill * 100)} % of the conduit; ${n(fill!.most * 100)} % go in.`
              : null,
            [v('outer diameter', outerMm, 'mm'), v('filled', (fill?.fill ?? 0) * 100, '%')],
          ),
        ]
      : []),
  ];
}
