import type { Check } from '../../ground/figure';
import type { Rule } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { judge } from '../../model/step';
import { fluidAt } from './fluid';
import { hydraulicRules, pumpPoints, raiseOfLoop } from './hydraulic';
import { isUneven, shortText } from './lack';
import { balanceRules, bypassBelow } from './loop-balance';
import type { LoopState } from './loop-state';
import { coolingRules } from './rules';

const n = formatNumber;

/** What is wrong about the flows of a loop. */
export function flowChecks(
  subject: Id,
  {
    slices,
    tag,
    pieces,
    elements,
    gaps,
    table,
    nameOf,
    airC,
    pumps,
    noPump,
    cold,
    balance,
    flowOf,
    pumpFlow,
    share,
    worst,
    lack,
  }: LoopState,
): Check[] {
  const noPumpCheck = judge(
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
  );
  return [noPumpCheck, ...hydraulicChecks(), ...balanceChecks()];

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
        lack.starved,
      ),
      of(
        balanceRules.imbalance,
        unevenMessage(),
        [worstValue, ...unevenValues()],
        lack.shortOfUneven.map(({ piece }) => piece.id),
      ),
    ];
  }
  function starvedMessage(): string | null {
    const starved = balance.flatMap(({ result }) =>
      result.starved.filter(isStarved).map((id) => ({ id, mean: result.meanLPerMin })),
    );
    if (starved.length === 0) return null;
    return `Starved: ${starved
      .slice(0, 6)
      .map(({ id }) => `${nameOf(id)}, ${n(Math.abs(flowOf(id) ?? 0))} L/min`)
      .join(
        ', ',
      )}${starved.length > 6 ? ' and more' : ''}; like plates have ${n(starved[0]!.mean)} on average.`;
  }
  function isStarved(id: Id): boolean {
    return lack.starved.includes(id);
  }
  function unevenMessage(): string | null {
    const uneven = balance.flatMap(({ result }) => {
      // What stands or is starved is said as that.
      if (!isUneven(result) || result.starved.length > 0) return [];
      const far = result.shares.reduce((most, one) =>
        Math.abs(one.ratioToMean! - 1) > Math.abs(most.ratioToMean! - 1) ? one : most,
      );
      return [
        `${nameOf(far.id)} gets ${n(Math.abs(far.flowLPerMin))} L/min where like plates have ${n(result.meanLPerMin)} on average.`,
      ];
    });
    const short = lack.shortOfUneven.slice(0, 6).map(shortText);
    if (short.length > 0) uneven.push(`${short.join('; ')}.`);
    return uneven.length === 0 ? null : uneven.join(' ');
  }
  function unevenValues() {
    return [
      ...balance.flatMap(({ result }) => [
        { label: 'on average', value: result.meanLPerMin, unit: 'L/min' },
        ...result.shares
          .slice(0, 40)
          .map(({ id, flowLPerMin }) => ({ label: nameOf(id), value: Math.abs(flowLPerMin), unit: 'L/min' })),
      ]),
      ...lack.shortOfUneven.slice(0, 6).map(({ piece, leastLPerMin }) => ({
        label: `${piece.item.tag} needs`,
        value: leastLPerMin,
        unit: 'L/min',
      })),
    ];
  }
  function starvedValues() {
    return balance.flatMap(({ result }) =>
      result.starved
        .filter(isStarved)
        .slice(0, 12)
        .map((id) => ({ label: `flow of ${nameOf(id)}`, value: flowOf(id) ?? 0, unit: 'L/min' })),
    );
  }
}
