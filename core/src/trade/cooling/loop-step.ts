import { figureId, type Check, type Figure, type FigureName, type Gap } from '../../ground/figure';
import type { CheckValue, Rule } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { coolingDefaults, type Id } from '../../model/document';
import type { Part } from '../../model/parts';
import { judge, type StepDefinition } from '../../model/step';
import { cellLimits } from '../charging';
import { readPackLayout } from '../pack';
import {
  caseNames,
  contactKPerW,
  coolingCases,
  demandOf,
  doingIn,
  plateShares,
  readsCase,
  type CoolingCase,
} from './cases';
import { fitDrop } from './fit-drop';
import { fluidAt } from './fluid';
import { hydraulicRules, pumpPoints, raiseOfLoop } from './hydraulic';
import type { LoopElement } from './laws';
import {
  balanceRules,
  bypassBelow,
  imbalanceAbove,
  loopBalance,
  type LoopBalanceResult,
} from './loop-balance';
import type { Piece } from './pieces';
import {
  isPlate,
  platesAlike,
  running,
  slicesOf,
  worked,
  type LoopAnswer,
  type LoopInCase,
} from './loop-answer';
import { coolingRules } from './rules';
import { settle, type SettledLoop } from './settle';
import { solveLoop } from './solve';
import { servedShare, standsBelowLPerMin, type Exchanger } from './temperatures';

const n = formatNumber;
const c = (value: number) => formatQuantity(value, '°C');

/** The flow, the temperatures and the balance of one coolant loop as it is connected. */
export const loopStep: StepDefinition = {
  id: 'cooling.loop',
  version: 1,
  subjects: ({ loops = {} }) => Object.keys(loops),
  compute(subject, read) {
    const slices = slicesOf(read);
    const { tag } = slices.loops![subject]!;
    const { pieces, elements, gaps, table } = worked(slices, subject);
    const nameOf = (id: Id) => pieces.find((one) => one.id === id)?.item.tag ?? id;
    const airC = slices.cooling?.hotC ?? coolingDefaults.hotC;
    const limits = cellLimits(slices.cooling, readPackLayout(read).layout?.part.data.chemistry);
    const pumps = elements.filter(({ kind }) => kind === 'pump');
    const isWhole = gaps.length === 0 && pumps.length > 0;
    const noPump: Gap[] =
      gaps.length > 0 ? gaps : [{ kind: 'not-given', path: `loops.${subject}`, label: `pump of ${tag}` }];
    const ground =
      slices.joins?.[slices.loops![subject]!.tank ?? ''] === undefined
        ? undefined
        : slices.loops![subject]!.tank;
    const groundNode =
      ground !== undefined && elements.some(({ from, to }) => from === ground || to === ground)
        ? ground
        : (pumps[0]?.from ?? '');
    const shares = plateShares(slices.plumbing, slices.modules);

    const cold = isWhole ? solveLoop(elements, fluidAt(table, airC), groundNode) : null;
    const cases = isWhole ? coolingCases.filter((at) => readsCase(read, at)).map((at) => inCase(at)) : [];
    const balance = cold === null ? [] : platesAlike(pieces).map((plates) => balanceOf(plates));
    const loads = pieces.filter(({ item }) => item.kind === 'plate' || item.kind === 'jacket');
    const indexOf = new Map(elements.map(({ id }, i) => [id, i]));

    function inCase(at: CoolingCase): LoopInCase {
      const demand = demandOf(read, at);
      const { doing, gaps: own } = doingIn(at, pieces, demand, shares, slices);
      const present = running(pieces, at);
      const settled = settle(
        present,
        table,
        own.length > 0 ? new Map() : doing,
        airC,
        groundNode,
        present.length === elements.length ? cold!.flows : null,
      );
      const flows = elements.map(({ id }) => {
        const i = present.findIndex((one) => one.id === id);
        return i < 0 ? 0 : settled.solved.flows[i]!;
      });
      return {
        at,
        settled: { ...settled, solved: { ...settled.solved, flows }, temperatures: spread(settled, present) },
        heatW: Object.fromEntries([...doing].map(([id, { heatW = 0 }]: [string, Exchanger]) => [id, heatW])),
        radiators: Object.fromEntries(
          [...doing].flatMap(([id, { radiator }]) =>
            radiator === undefined
              ? []
              : [[id, { uaWPerK: radiator.uaWPerK, airKgPerS: radiator.airKgPerS }]],
          ),
        ),
        gaps: own,
      };
    }
    /** Temperatures by the elements of the whole loop. */
    function spread({ temperatures }: SettledLoop, present: readonly LoopElement[]) {
      if (temperatures === null) return null;
      return {
        ...temperatures,
        elements: elements.map(({ id }) => {
          const i = present.findIndex((one) => one.id === id);
          return i < 0 ? null : temperatures.elements[i]!;
        }),
      };
    }
    function balanceOf(plates: Id[]): { plates: Id[]; result: LoopBalanceResult } {
      const { densityKgM3, viscosityMPaS } = fluidAt(table, airC);
      const { result } = loopBalance.calculate({
        fluid: { densityKgM3, viscosityMPaS },
        elements,
        groundNode,
        branches: plates,
      });
      return { plates, result };
    }

    const flowOf = (id: Id) => (cold === null ? null : cold.flows[indexOf.get(id)!]!);
    const pump = pumps[0];
    const pumpFlow = pump === undefined ? null : flowOf(pump.id);
    const share =
      cold === null || loads.length === 0
        ? null
        : servedShare(elements, cold.flows, new Set(loads.map(({ id }) => id)));
    const worst = balance.reduce<number | null>((most, { result }) => {
      const own = result.worstImbalanceFraction;
      return own === null ? most : Math.max(most ?? 0, own);
    }, null);

    /** Temperature of coolant and cells at each load of a case. */
    const surfaceOf = (piece: Piece, one: LoopInCase) => {
      const at = one.settled.temperatures?.elements[indexOf.get(piece.id)!] ?? null;
      const contact = contactKPerW(piece.item, slices.parts[piece.item.plate ?? ''] as Part | undefined);
      if (at === null || contact === null) return null;
      return (at.inC + at.outC) / 2 + contact * (one.heatW[piece.id] ?? 0);
    };
    const known = cases.filter((one) => one.gaps.length === 0);
    const cooled = pieces.filter((piece) => isPlate(piece) && (shares.get(piece.id) ?? 0) > 0);
    const most = (values: (number | null)[]) =>
      values.reduce<number | null>(
        (top, value) => (value === null ? top : Math.max(top ?? -Infinity, value)),
        null,
      );
    const hottestC = most(known.flatMap((one) => [...(one.settled.temperatures?.nodes.values() ?? [])]));
    const platesC = most(
      known.flatMap((one) =>
        cooled.map((piece) => one.settled.temperatures?.elements[indexOf.get(piece.id)!]?.inC ?? null),
      ),
    );
    const cellsC = most(known.flatMap((one) => cooled.map((piece) => surfaceOf(piece, one))));
    const contacts = cooled.map(({ item }) =>
      contactKPerW(item, slices.parts[item.plate ?? ''] as Part | undefined),
    );
    const coolant = fluidAt(table, airC);
    // A plate takes up no more than its flow can carry: what is starved cools nothing, however good its contact.
    const packUaWPerK =
      cold === null || contacts.includes(null)
        ? null
        : cooled.reduce((sum, { id }, i) => {
            const flowWPerK =
              (Math.abs(flowOf(id) ?? 0) * coolant.densityKgM3 * coolant.specificHeatJPerKgK) / 60_000;
            return flowWPerK === 0 ? sum : sum + flowWPerK * -Math.expm1(-1 / (contacts[i]! * flowWPerK));
          }, 0);
    const caseGaps = cases.flatMap((one) => one.gaps);
    const standing: Gap[] = isWhole ? caseGaps : noPump;
    /** The hottest of all cases is known once each of them is. */
    const ofAllCases = (value: number | null) => (caseGaps.length > 0 ? null : value);
    /** A plate with heat and without flow: its cells settle nowhere. */
    const isUncooled = known.some((one) =>
      cooled.some(
        ({ id }) =>
          (one.heatW[id] ?? 0) > 0 && (one.settled.temperatures?.elements[indexOf.get(id)!] ?? null) === null,
      ),
    );
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

    const told = (
      name: FigureName<'cooling.loop'>,
      label: string,
      unit: string,
      value: number | null,
      missing: Gap[],
    ): Figure => ({
      id: figureId('cooling.loop', subject, name),
      label,
      unit,
      value,
      gaps: value !== null ? [] : missing.length > 0 ? missing : [{ kind: 'never', label: `${label}: none` }],
      working: value === null ? [] : workingOf(name, label, unit, value),
    });
    function workingOf(
      name: FigureName<'cooling.loop'>,
      label: string,
      unit: string,
      value: number,
    ): Figure['working'] {
      const line = (
        formula: string,
        inputs: { symbol: string; value: number; unit: string }[],
        source: string,
      ) => [{ symbol: name === 'flowLPerMin' ? 'Q' : 'x', label, formula, inputs, value, unit, source }];
      const q = { symbol: 'Q', value: pumpFlow ?? 0, unit: 'L/min' };
      switch (name) {
        case 'headKPa':
          return line('curve(Q)', [q], 'Pump maker’s curve at the flow of the loop');
        case 'shareFraction':
          return line(
            '1 − bypassed/Q',
            [{ symbol: 'bypassed', value: (1 - value) * (pumpFlow ?? 0), unit: 'L/min' }, q],
            'What comes back to the pump without having been through a plate or jacket',
          );
        case 'packUaWPerK':
          return line(
            'Σ C·(1 − e^(−1/(R·C)))',
            [{ symbol: 'n', value: cooled.length, unit: 'plates' }],
            'Filler and plate in series to coolant at its inlet; plates side by side, each with its flow',
          );
        default:
          return [
            {
              symbol: 'x',
              label,
              formula: 'balance of the loop',
              inputs: [
                {
                  symbol: 'T_air',
                  value: airC,
                  unit: '°C',
                  origin: { kind: 'document', path: 'cooling.hotC' },
                },
                q,
              ],
              value,
              unit,
              source: hydraulicSourceOf(name),
              ...(cold !== null && {
                solver: {
                  method: 'Newton steps on the flows of the loops',
                  iterations: cold.iterations,
                  residual: cold.residualKPa,
                  residualUnit: 'kPa',
                },
              }),
            },
          ];
      }
    }
    const groups = platesAlike(pieces).length > 0;
    const figures = [
      told('flowLPerMin', 'Flow of the pump', 'L/min', pumpFlow, noPump),
      told(
        'headKPa',
        'Head of the pump',
        'kPa',
        cold === null ? null : pumpPoints({ elements }, cold.flows)[0]!.headKPa,
        noPump,
      ),
      ...(loads.length === 0
        ? []
        : [
            told(
              'shareFraction',
              'Of the pump’s flow through what it serves',
              'fraction',
              share,
              cold === null ? noPump : [],
            ),
          ]),
      ...(groups
        ? [
            told(
              'imbalanceFraction',
              'Largest imbalance of like plates',
              'fraction',
              worst,
              cold === null ? noPump : [],
            ),
          ]
        : []),
      told('hottestC', 'Hottest coolant', '°C', ofAllCases(hottestC), standing),
      ...(cooled.length === 0
        ? []
        : [
            told('platesC', 'Hottest coolant that comes to cells', '°C', ofAllCases(platesC), standing),
            told(
              'cellsC',
              'Hottest cells in the long run',
              '°C',
              isUncooled ? null : ofAllCases(cellsC),
              standing,
            ),
            told('packUaWPerK', 'From cells to coolant', 'W/K', packUaWPerK, noPump),
          ]),
    ];

    const checks: Check[] = [
      judge(
        coolingRules.noPump,
        [subject],
        pieces.length === 0 || gaps.some(({ kind }) => kind === 'invalid') ? noPump : [],
        pieces.some(({ item }) => item.kind === 'pump')
          ? null
          : `${tag}, ${n(pieces.length)} pieces, has no pump.`,
        [
          { label: 'pumps', value: pieces.filter(({ item }) => item.kind === 'pump').length, unit: '' },
          { label: 'pieces', value: pieces.length, unit: '' },
        ],
      ),
      ...hydraulicChecks(),
      ...balanceChecks(),
      ...temperatureChecks(),
      ...pieceChecks(),
      ...leftOutChecks(),
    ];
    const answer: LoopAnswer | null =
      cold === null
        ? null
        : {
            elements,
            groundNode,
            coolC: airC,
            flows: cold.flows,
            residualKPa: cold.residualKPa,
            pressures: Object.fromEntries(cold.pressures),
            cases: cases.map((one) => ({
              at: one.at,
              gaps: one.gaps,
              flows: one.settled.solved.flows,
              radiators: one.radiators,
              nodesC:
                one.gaps.length > 0 || one.settled.temperatures === null
                  ? null
                  : Object.fromEntries(one.settled.temperatures.nodes),
              piecesC:
                one.gaps.length > 0 || one.settled.temperatures === null
                  ? null
                  : Object.fromEntries(
                      pieces.map((piece) => {
                        const at = one.settled.temperatures!.elements[indexOf.get(piece.id)!] ?? null;
                        return [
                          piece.id,
                          at === null
                            ? null
                            : { ...at, surfaceC: surfaceOf(piece, one), heatW: one.heatW[piece.id] ?? 0 },
                        ];
                      }),
                    ),
            })),
            balance: balance.map(({ plates, result }) => ({ plates, result })),
          };
    return {
      figures,
      checks,
      ...(answer !== null && {
        run: { calculator: 'cooling-loop', input: { loop: subject }, result: answer },
      }),
    };

    function hydraulicChecks(): Check[] {
      const found = new Map<Rule, string>();
      if (cold !== null)
        raiseOfLoop(
          { fluid: fluidAt(table, airC), elements },
          cold,
          pumpPoints({ elements }, cold.flows),
          (rule, message) => found.set(rule, named(message)),
        );
      return Object.values(hydraulicRules).map((rule) =>
        judge(rule, [subject], cold === null ? noPump : [], found.get(rule) ?? null, [
          ...flowValues(),
          {
            label: 'nodes apart',
            value: [...(cold?.pressures.values() ?? [])].filter((one) => one === null).length,
            unit: '',
          },
        ]),
      );
    }
    /** Ids in a sentence by what people call them. */
    function named(message: string): string {
      const all = [
        ...pieces.map(({ id, item }) => [id, item.tag]),
        ...Object.entries(slices.joins ?? {}).map(([id, { tag: own }]) => [id, own]),
      ];
      return all.reduce((text, [id, own]) => text.replaceAll(id!, own!), message);
    }
    function flowValues() {
      return pumps
        .slice(0, 4)
        .flatMap((one) => [
          { label: `flow of ${nameOf(one.id)}`, value: flowOf(one.id) ?? 0, unit: 'L/min' },
          ...(one.kind === 'pump'
            ? [{ label: `curve of ${nameOf(one.id)} ends`, value: one.curve.at(-1)![0], unit: 'L/min' }]
            : []),
        ]);
    }
    function balanceChecks(): Check[] {
      const of = (
        rule: Rule,
        message: string | null,
        values: { label: string; value: number; unit: string }[],
        also: readonly Id[] = [],
      ) => judge(rule, [subject], cold === null ? noPump : [], message, values, { also });
      const shareValue = { label: 'share of the pump’s flow', value: share ?? 0, unit: 'fraction' };
      const worstValue = { label: 'largest imbalance', value: worst ?? 0, unit: 'fraction' };
      return [
        of(
          balanceRules.bypass,
          share !== null && share < bypassBelow
            ? `Of ${n(pumpFlow!)} L/min in ${tag} only ${n(100 * share)} % go through what is cooled.`
            : null,
          [shareValue, ...flowValues()],
        ),
        of(
          balanceRules.starved,
          starvedMessage(),
          [
            ...starvedValues(),
            ...balance.map(({ result }) => ({
              label: 'on average',
              value: result.meanLPerMin,
              unit: 'L/min',
            })),
          ],
          balance.flatMap(({ result }) => result.starved),
        ),
        of(balanceRules.imbalance, unevenMessage(), [worstValue, ...unevenValues()]),
      ];
    }
    function starvedMessage(): string | null {
      const starved = balance.flatMap(({ result }) =>
        result.starved.map((id) => ({ id, mean: result.meanLPerMin })),
      );
      if (starved.length === 0) return null;
      return `Starved: ${starved
        .slice(0, 6)
        .map(({ id }) => `${nameOf(id)}, ${n(Math.abs(flowOf(id) ?? 0))} L/min`)
        .join(
          ', ',
        )}${starved.length > 6 ? ' and more' : ''}; like plates have ${n(starved[0]!.mean)} on average.`;
    }
    function unevenMessage(): string | null {
      const uneven = balance.flatMap(({ result }) => {
        // What is starved is said as that.
        if ((result.worstImbalanceFraction ?? 0) <= imbalanceAbove || result.starved.length > 0) return [];
        const far = result.shares.reduce((most, one) =>
          Math.abs(one.ratioToMean! - 1) > Math.abs(most.ratioToMean! - 1) ? one : most,
        );
        return [
          `${nameOf(far.id)} gets ${n(Math.abs(far.flowLPerMin))} L/min where like plates have ${n(result.meanLPerMin)} on average.`,
        ];
      });
      return uneven.length === 0 ? null : uneven.join(' ');
    }
    function unevenValues() {
      return balance.flatMap(({ result }) => [
        { label: 'on average', value: result.meanLPerMin, unit: 'L/min' },
        ...result.shares
          .slice(0, 40)
          .map(({ id, flowLPerMin }) => ({ label: nameOf(id), value: Math.abs(flowLPerMin), unit: 'L/min' })),
      ]);
    }
    function starvedValues() {
      return balance.flatMap(({ result }) =>
        result.starved
          .slice(0, 12)
          .map((id) => ({ label: `flow of ${nameOf(id)}`, value: flowOf(id) ?? 0, unit: 'L/min' })),
      );
    }
    function heatOf({ heatW }: LoopInCase): number {
      return Object.values(heatW).reduce((sum, own) => sum + own, 0);
    }
    function temperatureChecks(): Check[] {
      const stands = loads.flatMap(({ id }) => {
        const when = known.filter(
          (one) =>
            (one.heatW[id] ?? 0) > 0 &&
            Math.abs(one.settled.solved.flows[indexOf.get(id)!]!) < standsBelowLPerMin,
        );
        if (when.length === 0) return [];
        const most = Math.max(...when.map((one) => one.heatW[id]!));
        return [{ id, text: `${nameOf(id)} (${caseNames[when[0]!.at]})`, heatW: most }];
      });
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
        const part = slices.parts[item.plate ?? ''];
        const least = item.leastLPerMin ?? (part?.kind === 'plate' ? part.data.leastLPerMin : undefined);
        const pumpPart = slices.parts[item.pump ?? ''];
        const hosePart = slices.parts[item.hose ?? ''];
        const maxC =
          item.coolantMaxC ??
          (pumpPart?.kind === 'pump'
            ? pumpPart.data.coolantMaxC
            : hosePart?.kind === 'hose'
              ? hosePart.data.maxC
              : undefined);
        const q = flowOf(id);
        const top = most(
          known.map((one) => {
            const here = one.settled.temperatures?.elements[indexOf.get(id)!] ?? null;
            return here === null ? null : item.kind === 'jacket' ? here.inC : Math.max(here.inC, here.outC);
          }),
        );
        const readings = item.readings;
        const fitted = readings === undefined ? null : fitDrop(readings);
        return [
          ...(least === undefined
            ? []
            : [
                judge(
                  coolingRules.leastFlow,
                  [id],
                  cold === null ? noPump : [],
                  q !== null && Math.abs(q) < least
                    ? `${item.tag} gets ${n(Math.abs(q))} L/min; it needs ${n(least)}.`
                    : null,
                  [
                    { label: 'flow', value: Math.abs(q ?? 0), unit: 'L/min' },
                    { label: 'needed', value: least, unit: 'L/min' },
                  ],
                ),
              ]),
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
  },
};

const unfitAbove = 0.15;

const hydraulicSourceOf = (name: string): string =>
  name === 'flowLPerMin' || name === 'imbalanceFraction'
    ? 'Darcy–Weisbach, pump curves, continuity at every node'
    : 'Flows and temperatures of the loop brought together, the hottest of the cases';
