import type { Check, Gap } from '../../ground/figure';
import type { CheckValue, Rule } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { judge } from '../../model/step';
import { caseNames, type CoolingCase } from './cases';
import { coreBandWPerK } from './core-band';
import { fitDrop } from './fit-drop';
import { leastOf, shortText, shortValues } from './lack';
import { isPlate, type LoopInCase } from './loop-answer';
import { most, type LoopState } from './loop-state';
import { coolingRules } from './rules';

const n = formatNumber;
const c = (value: number) => formatQuantity(value, '°C');
/** Readings that miss their curve by more than this do not lie on one. */
const unfitAbove = 0.15;

/** What is wrong about the temperatures of a loop, its pieces, and the modules on its plates. */
export function heatChecks(
  subject: Id,
  {
    slices,
    tag,
    pieces,
    nameOf,
    limits,
    noPump,
    cases,
    cold,
    standing,
    indexOf,
    surfaceOf,
    known,
    lack,
    cooled,
    platesC,
    cellsC,
    byCore,
  }: LoopState,
): Check[] {
  /** What is found in one case is said, whatever is missing for another; clear it is only once all are known. */
  const judgeCases = (
    rule: Rule,
    subjects: string[],
    message: string | null,
    values: CheckValue[],
    also: readonly Id[] = [],
    more: Gap[] = [],
  ): Check =>
    judge(rule, subjects, message === null ? [...standing, ...more] : [], message, values, { also });

  return [
    ...temperatureChecks(),
    ...coreChecks(),
    ...leastFlowChecks(),
    ...pieceChecks(),
    ...leftOutChecks(),
  ];

  /** One for each core without a sheet; a loop without a radiator has nothing to say of it. */
  function coreChecks(): Check[] {
    return pieces.flatMap(({ id, item }): Check[] => {
      if (item.kind !== 'radiator') return [];
      const isGuessed = byCore.some((one) => one.id === id);
      const ends = isGuessed ? coreBandWPerK(item, coreAirOf(id)) : null;
      return [
        judge(
          coolingRules.byCore,
          [id],
          isGuessed && ends === null ? standing : [],
          ends !== null
            ? `${item.tag} exchanges ${n(ends[0])} to ${n(ends[1])} W/K by the size of its core; it is judged by the least.`
            : null,
          [
            { label: 'least', value: ends?.[0] ?? 0, unit: 'W/K' },
            { label: 'most', value: ends?.[1] ?? 0, unit: 'W/K' },
          ],
          { also: [subject] },
        ),
      ];
    });
  }

  /** Air through a radiator in the case in which it has most. */
  function coreAirOf(id: Id): number | null {
    return most(cases.map((one) => one.radiators[id]?.airKgPerS ?? null));
  }

  function leastFlowChecks(): Check[] {
    if (pieces.every((piece) => leastOf(piece, slices.parts) === undefined)) return [];
    const told = lack.short.slice(0, 6);
    return [
      judge(
        coolingRules.leastFlow,
        [subject],
        cold === null ? noPump : [],
        told.length > 0
          ? `${told.map(shortText).join('; ')}${lack.short.length > told.length ? '; and more' : ''}.`
          : null,
        [
          { label: 'pieces with less than they need', value: lack.short.length, unit: '' },
          ...told.flatMap(shortValues),
        ],
        { also: lack.short.map(({ piece }) => piece.id), parts: lack.short.map(({ piece }) => piece.id) },
      ),
    ];
  }

  function heatOf({ heatW }: LoopInCase): number {
    return Object.values(heatW).reduce((sum, own) => sum + own, 0);
  }
  function temperatureChecks(): Check[] {
    const stands = lack.stands.map((one) => ({ ...one, text: `${nameOf(one.id)} (${caseNames[one.at]})` }));
    // A pump of which nobody says when it runs is counted as running: that is not known.
    const unswitched = pieces.flatMap(({ id, item }): Gap[] =>
      item.kind === 'pump' && item.switched === undefined
        ? [{ kind: 'not-given', path: `plumbing.${id}.switched`, label: `what switches ${item.tag}` }]
        : [],
    );
    const stuck = known.filter(
      (one) => one.settled.temperatures === null && Object.values(one.heatW).some((heat) => heat > 0),
    );
    const at = (name: string) => caseNames[name as CoolingCase];
    const where = (value: number | null, of: (one: LoopInCase) => (number | null)[]) =>
      at(known.find((one) => value !== null && of(one).includes(value))?.at ?? 'hill');
    const plateIn = (one: LoopInCase) =>
      cooled.map((piece) => one.settled.temperatures?.elements[indexOf.get(piece.id)!]?.inC ?? null);
    const plateSurface = (one: LoopInCase) => cooled.map((piece) => surfaceOf(piece, one));
    const limit = { label: 'cells at most', value: limits.maxC, unit: '°C' };
    return [
      judgeCases(
        coolingRules.stands,
        [subject],
        stands.length > 0
          ? `Coolant stands in ${stands
              .slice(0, 6)
              .map(({ text, heatW }) => `${text}, ${n(heatW)} W`)
              .join('; ')}${stands.length > 6 ? ' and more' : ''}.`
          : null,
        [
          { label: 'places where it stands', value: stands.length, unit: '' },
          ...stands.slice(0, 6).map(({ text, heatW }) => ({ label: text, value: heatW, unit: 'W' })),
        ],
        stands.map(({ id }) => id),
        unswitched,
      ),
      judgeCases(
        coolingRules.noWayOut,
        [subject],
        stuck.length > 0
          ? `${tag}: ${stuck.map((one) => `${n(heatOf(one))} W, ${caseNames[one.at]}`).join('; ')}.`
          : null,
        [
          { label: 'cases without a way out', value: stuck.length, unit: '' },
          ...stuck.map((one) => ({ label: caseNames[one.at], value: heatOf(one), unit: 'W' })),
        ],
      ),
      ...(cooled.length === 0
        ? []
        : [
            judgeCases(
              coolingRules.coolantHot,
              [subject],
              platesC !== null && platesC > limits.maxC
                ? `Coolant comes to the cells with ${c(platesC)} (${where(platesC, plateIn)}); they may get ${c(limits.maxC)}.`
                : null,
              [{ label: 'coolant at the cells', value: platesC ?? 0, unit: '°C' }, limit],
            ),
            judgeCases(
              coolingRules.cellsHot,
              [subject],
              cellsC !== null && cellsC > limits.maxC
                ? `Cells on the hottest plate would settle at ${c(cellsC)} (${where(cellsC, plateSurface)}); they may get ${c(limits.maxC)}.`
                : null,
              [{ label: 'cells', value: cellsC ?? 0, unit: '°C' }, limit],
            ),
          ]),
    ];
  }
  function pieceChecks(): Check[] {
    return pieces.flatMap((piece): Check[] => {
      const { id, item } = piece;
      const pumpPart = slices.parts[item.pump ?? ''];
      const hosePart = slices.parts[item.hose ?? ''];
      const maxC =
        item.coolantMaxC ??
        (pumpPart?.kind === 'pump'
          ? pumpPart.data.coolantMaxC
          : hosePart?.kind === 'hose'
            ? hosePart.data.maxC
            : undefined);
      const top = most(
        known.map((one) => {
          const here = one.settled.temperatures?.elements[indexOf.get(id)!] ?? null;
          return here === null ? null : item.kind === 'jacket' ? here.inC : Math.max(here.inC, here.outC);
        }),
      );
      const readings = item.readings;
      const fitted = readings === undefined ? null : fitDrop(readings);
      return [
        ...(maxC === undefined && item.kind === 'jacket'
          ? [
              judge(
                coolingRules.partHot,
                [id],
                [
                  {
                    kind: 'not-given',
                    path: `plumbing.${id}.coolantMaxC`,
                    label: `hottest coolant that ${item.tag} takes`,
                  },
                ],
                null,
              ),
            ]
          : []),
        ...(maxC === undefined
          ? []
          : [
              judgeCases(
                coolingRules.partHot,
                [id],
                top !== null && top > maxC
                  ? `Coolant at ${item.tag} reaches ${c(top)}; ${c(maxC)} are allowed.`
                  : null,
                [
                  { label: 'coolant', value: top ?? 0, unit: '°C' },
                  { label: 'allowed', value: maxC, unit: '°C' },
                ],
              ),
            ]),
        ...(readings === undefined
          ? []
          : [
              judge(
                coolingRules.unfit,
                [id],
                fitted === null
                  ? [
                      {
                        kind: 'invalid',
                        path: `plumbing.${id}.readings`,
                        label: `readings of ${item.tag}`,
                        message: 'need two flows at least, above 0',
                      },
                    ]
                  : [],
                fitted !== null && fitted.worstFraction > unfitAbove
                  ? `${item.tag}: readings miss their curve by up to ${n(100 * fitted.worstFraction)} %.`
                  : null,
                [{ label: 'largest miss', value: fitted?.worstFraction ?? 0, unit: 'fraction' }],
              ),
            ]),
      ];
    });
  }
  function leftOutChecks(): Check[] {
    if (!pieces.some(isPlate)) return [];
    const on = new Set(
      Object.values(slices.plumbing ?? {}).flatMap(({ kind, modules = [] }) =>
        kind === 'plate' ? modules : [],
      ),
    );
    const out = Object.entries(slices.modules).filter(([id]) => !on.has(id));
    return [
      judge(
        coolingRules.leftOut,
        [subject],
        [],
        on.size > 0 && out.length > 0
          ? `${out.length === 1 ? 'A module lies' : `${n(out.length)} modules lie`} on no plate: ${out
              .slice(0, 6)
              .map(([, { tag: own }]) => own)
              .join(', ')}${out.length > 6 ? ' and more' : ''}.`
          : null,
        [{ label: 'modules on no plate', value: on.size > 0 ? out.length : 0, unit: '' }],
        { also: out.map(([id]) => id) },
      ),
    ];
  }
}
