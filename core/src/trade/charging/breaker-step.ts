import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { BreakerData } from '../../model/parts';
import { judge, type StepDefinition } from '../../model/step';
import { chargersView, onSupply } from './chargers';
import { ofParts } from './of-parts';
import { chargeRules } from './rules';
import { fuseHoldsTimes, halfWaveS, opensAloneToA, opensFrom } from './upstream';
import { mainsWay, type MainsWay } from './supply-inputs';

const n = formatNumber;

/** IEC 60898-1: so many times its rated current it holds for an hour, and with so many it is open by then. */
const holdsTimes = 1.13;
const tripsTimes = 1.45;

/** What the inrush hangs on, beside the chargers themselves. */
const inrushPaths = new Set([
  ...['phases', 'otherA', 'other1A', 'other2A', 'other3A'].map((field) => `supply.${field}`),
  'devices',
]);

/** Inrush of all chargers that a phase feeds, added up: nobody says that they start one after the other. */
function inrushOf({ serving, phases, othersA }: MainsWay): {
  peakA: number;
  chargersA: number;
  othersA: number;
  unknown: string[];
} {
  const unknown = serving.filter(({ inrushA }) => inrushA === null).map(({ id }) => id);
  const onPhase = [1, 2, 3].map((phase) => ({
    othersA: othersA[phase - 1]!,
    chargersA: serving.reduce((sum, charger) => {
      const at = onSupply(charger, phases)!.phase;
      return at === '3ph' || at === phase ? sum + (charger.inrushA ?? 0) : sum;
    }, 0),
  }));
  const peakOf = (one: (typeof onPhase)[number]) => one.chargersA + Math.SQRT2 * one.othersA;
  const fullest = onPhase.reduce((most, one) => (peakOf(one) > peakOf(most) ? one : most));
  return { peakA: peakOf(fullest), ...fullest, unknown };
}

/** The breaker of a supply: what it takes for a short circuit, what it breaks, and whether the one before it waits for it. */
export const breakerStep: StepDefinition = {
  id: 'charge.breaker',
  version: 1,
  subjects: ({ supplies = {} }) => Object.keys(supplies).filter((id) => supplies[id]!.kind !== 'station'),
  compute(subject, read) {
    const supply = read.at('supplies')![subject]!;
    const { tag, upstreamA, upstreamTrip, faultA } = supply;
    const at = `supplies.${subject}`;
    const way = mainsWay(subject, read);
    const part = read.at('parts')[supply.breaker ?? ''];
    const data = part?.kind === 'breaker' ? part.data : null;
    const trip = supply.trip ?? data?.trip ?? null;
    const { breakerA } = way;
    const given = (value: unknown, field: string, label: string): Gap[] =>
      value === null || value === undefined
        ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${tag}` }]
        : [];
    const own = [...given(breakerA, 'breakerA', 'breaker'), ...given(trip, 'trip', 'curve of the breaker')];
    const opensFromA = breakerA === null || trip === null ? null : Math.SQRT2 * opensFrom[trip] * breakerA;
    const { peakA, chargersA, othersA, unknown } = inrushOf(way);
    const devices = read.at('devices');
    // What pilot, cable and wires allow does not bound an inrush.
    const inrushGaps: Gap[] = [
      ...read.shared(chargersView).flatMap(({ gaps }) => gaps),
      ...way.gaps.filter((gap) => 'path' in gap && inrushPaths.has(gap.path.replace(at, 'supply'))),
      ...unknown.map((id): Gap => ({
        kind: 'not-given',
        path: `devices.${id}.charger`,
        label: `inrush of ${devices[id]?.tag ?? id}`,
      })),
    ];
    const v = (label: string, value: number, unit = 'A'): CheckValue => ({ label, value, unit });
    const figure = (
      name: 'inrushPeakA' | 'opensFromA' | 'aloneToA',
      label: string,
      value: number | null,
      gaps: Gap[],
      working: Figure['working'],
    ): Figure => ({
      id: figureId('charge.breaker', subject, name),
      label,
      unit: 'A',
      value: gaps.length > 0 ? null : value,
      gaps,
      working: gaps.length > 0 || value === null ? [] : working,
    });
    // Without anything said of what lies before it, nothing is asked.
    const hasBefore = upstreamA !== undefined || upstreamTrip !== undefined;
    const before: Gap[] = hasBefore
      ? [
          ...given(upstreamA, 'upstreamA', 'breaker before that'),
          ...given(upstreamTrip, 'upstreamTrip', 'curve of the breaker before that'),
          ...(upstreamA !== undefined && !(upstreamA > 0)
            ? [
                {
                  kind: 'invalid' as const,
                  path: `${at}.upstreamA`,
                  label: `breaker before that of ${tag}`,
                  message: 'must be above 0',
                },
              ]
            : []),
        ]
      : [];
    const isFuse = upstreamTrip === 'gG fuse';
    const aloneToA = hasBefore && before.length === 0 ? opensAloneToA(upstreamA!, upstreamTrip!) : null;
    if (hasBefore && before.length === 0 && aloneToA === null)
      before.push({
        kind: 'invalid',
        path: `${at}.upstreamA`,
        label: `fuse before that of ${tag}`,
        message: 'must lie between 16 and 400 A for a gG fuse',
      });
    const fault = given(faultA, 'faultA', 'short circuit at the breaker');
    const overloads =
      aloneToA !== null &&
      breakerA !== null &&
      (isFuse ? fuseHoldsTimes : holdsTimes) * upstreamA! < tripsTimes * breakerA;
    const shorts = aloneToA !== null && faultA !== undefined && faultA > aloneToA;
    const parts = [supply.breaker, ...way.chargers.map(({ id }) => devices[id]?.charger)].filter(
      (key) => key !== undefined,
    );
    const rated = breakerA ?? 0;
    return {
      figures: [
        figure('inrushPeakA', 'Inrush of the chargers, peak', peakA, inrushGaps, [
          {
            symbol: 'Î',
            label: 'Inrush of the chargers, peak',
            formula: 'Î_c + √2·I_o',
            inputs: [
              {
                symbol: 'Î_c',
                value: chargersA,
                unit: 'A',
                origin: { kind: 'constant', source: 'chargers on the fullest phase, all at once' },
              },
              {
                symbol: 'I_o',
                value: othersA,
                unit: 'A',
                origin:
                  supply.otherA === undefined
                    ? { kind: 'default', path: `${at}.otherA` }
                    : { kind: 'document', path: `${at}.otherA` },
              },
            ],
            value: peakA,
            unit: 'A',
            source: 'Sheets of the chargers',
          },
        ]),
        figure(
          'opensFromA',
          'Its breaker may open at once from, peak',
          opensFromA,
          own,
          opensFromA === null
            ? []
            : [
                {
                  symbol: 'Î_m',
                  label: 'Its breaker may open at once from, peak',
                  formula: '√2·k·I_n',
                  inputs: [
                    {
                      symbol: 'k',
                      value: opensFrom[trip!],
                      unit: '',
                      origin: { kind: 'constant', source: `curve ${trip!}` },
                    },
                    {
                      symbol: 'I_n',
                      value: rated,
                      unit: 'A',
                      origin:
                        supply.breakerA === undefined
                          ? { kind: 'part', key: supply.breaker!, path: 'ratedA' }
                          : { kind: 'document', path: `${at}.breakerA` },
                    },
                  ],
                  value: opensFromA,
                  unit: 'A',
                  source: 'IEC 60898-1',
                },
              ],
        ),
        ...(hasBefore
          ? [
              figure(
                'aloneToA',
                'It opens alone up to',
                aloneToA,
                before,
                aloneToA === null
                  ? []
                  : [
                      {
                        symbol: 'I_s',
                        label: 'It opens alone up to',
                        formula: isFuse ? '√(J_m/t_h)' : 'k·I_n',
                        inputs: [
                          ...(isFuse
                            ? [
                                {
                                  symbol: 'J_m',
                                  value: aloneToA ** 2 * halfWaveS,
                                  unit: 'A²s',
                                  origin: {
                                    kind: 'constant' as const,
                                    source: 'least melting I²t of a gG fuse of that rating, IEC 60269-1',
                                  },
                                },
                                {
                                  symbol: 't_h',
                                  value: halfWaveS,
                                  unit: 's',
                                  origin: { kind: 'constant' as const, source: 'half a wave' },
                                },
                              ]
                            : [
                                {
                                  symbol: 'k',
                                  value: opensFrom[upstreamTrip as BreakerData['trip']],
                                  unit: '',
                                  origin: {
                                    kind: 'constant' as const,
                                    source: `curve ${upstreamTrip!} of the one before it`,
                                  },
                                },
                              ]),
                          {
                            symbol: 'I_n',
                            value: upstreamA!,
                            unit: 'A',
                            origin: { kind: 'document', path: `${at}.upstreamA` },
                          },
                        ],
                        value: aloneToA,
                        unit: 'A',
                        source: isFuse ? 'IEC 60269-1; makers’ tables decide' : 'IEC 60898-1',
                      },
                    ],
              ),
            ]
          : []),
      ],
      checks: [
        judge(
          chargeRules.inrush,
          [subject],
          [...inrushGaps, ...own],
          opensFromA !== null && peakA > opensFromA * (1 + 1e-9)
            ? `At ${tag} up to ${n(peakA)} A flow for a moment; the ${trip} breaker of ${n(rated)} A may open from ${n(opensFromA)} A (peaks).`
            : null,
          [v('inrush', peakA), v('breaker', rated), v('may open from', opensFromA ?? 0)],
        ),
        judge(
          chargeRules.breaking,
          [subject],
          [...fault, ...given(data, 'breaker', 'breaker, as a part,')],
          data !== null && faultA !== undefined && faultA > data.breakingA
            ? `At ${tag} a short circuit has ${formatQuantity(faultA, 'A')}; the breaker breaks ${formatQuantity(data.breakingA, 'A')}.`
            : null,
          [v('short circuit', faultA ?? 0), v('breaks', data?.breakingA ?? 0)],
        ),
        judge(
          chargeRules.poles,
          [subject],
          [
            ...given(data, 'breaker', 'breaker, as a part,'),
            ...(supply.phases === undefined && supply.kind === 'wall box'
              ? given(undefined, 'phases', 'phases')
              : []),
          ],
          data !== null && data.poles < way.phases
            ? `At ${tag} the breaker parts ${n(data.poles)} of ${n(way.phases)} phases.`
            : null,
          [v('poles', data?.poles ?? 0, ''), v('phases', way.phases, '')],
        ),
        ...(hasBefore
          ? [
              judge(
                chargeRules.selective,
                [subject],
                overloads || shorts ? [] : [...before, ...given(breakerA, 'breakerA', 'breaker'), ...fault],
                shorts
                  ? `At ${tag} a short circuit of ${formatQuantity(faultA, 'A')} ${isFuse ? `may melt the gG fuse of ${n(upstreamA!)} A` : `opens the ${upstreamTrip!} breaker of ${n(upstreamA!)} A`} as well: the one of ${n(rated)} A opens alone up to ${n(aloneToA)} A.`
                  : overloads
                    ? `At ${tag} the ${isFuse ? 'fuse' : 'breaker'} before that of ${n(rated)} A has ${n(upstreamA!)} A: an overload may open either.`
                    : null,
                [
                  v('short circuit', faultA ?? 0),
                  v('breaker', rated),
                  v('before it', upstreamA ?? 0),
                  v('opens alone up to', aloneToA ?? 0),
                ],
              ),
            ]
          : []),
      ].map((check) => ofParts(check, parts)),
    };
  },
};
