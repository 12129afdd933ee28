import { defineCalculator } from '../../ground/calculator';
import { list, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { crossLoop, fluidOf, groundOf, loopFields, type LoopInput } from './door';
import { pumpPoints, raiseOfLoop, hydraulicRules } from './hydraulic';
import { lawOf } from './laws';
import { solveLoop } from './solve';

export interface LoopBalanceInput extends LoopInput {
  /** Elements that should carry alike, at least two, none a pump. */
  branches: string[];
}

export interface LoopBalanceResult {
  meanLPerMin: number;
  shares: { id: string; flowLPerMin: number; ratioToMean: number | null }[];
  worstImbalanceFraction: number | null;
  /** Strictly below a fifth of the mean. */
  starved: string[];
  /** What a throttle in each branch has to take for all to carry the mean; null without flow, or where it cannot be said. */
  balancingKPa: { id: string; addKPa: number | null }[];
  /** What the branches carry together over what the first pump does; null where it does nothing. */
  branchShareOfPumpFraction: number | null;
}

/** A branch with less than this share of the mean is starved. */
export const starvedBelow = 0.2;
/** Branches that differ by more are to be evened out. */
export const imbalanceAbove = 0.15;
/** Below this share of the pump’s flow, something bypasses the branches. */
export const bypassBelow = 0.8;
/** L/min: less is rounding. */
const noFlow = 1e-7;

const rule = rulesOf('loop-balance');
const source = 'Flow of each branch over the mean of all';

export const balanceRules = {
  bypass: rule(
    'bypass',
    'mend',
    'Flow bypasses the branches',
    'Headers that are joined, or a hose to the wrong end: the pump is busy, and the plates stand still, unseen.',
    'Follow the hoses: no way may lead from the feed to the return but through a plate.',
    'Sum of the branches over the flow of the first pump, at least 80 %',
  ),
  starved: rule(
    'starved',
    'mend',
    'A branch has almost no flow',
    'What it should cool is not cooled, while the pump’s flow looks right.',
    'A valve nearly shut, a kinked hose, air, or a header joined to the other: see its pressure.',
    `${source}, at least 20 %`,
  ),
  imbalance: rule(
    'imbalance',
    'mend',
    'Branches share the flow unevenly',
    'The weakest decides how hot the hottest module gets.',
    'Reverse return, wider headers, or throttles in the branches that carry most.',
    `${source}, within 15 %`,
  ),
  noThrottle: rule(
    'no-throttle',
    'note',
    'What throttles would have to take cannot be said',
    'Branches lie in one line or join without a way between them: their flows cannot all be the mean.',
    'Name the branches that lie side by side.',
    'Network with each branch held at the mean',
  ),
};

/**
 * How evenly branches share the flow, and the throttling that evens them out.
 *
 * Source: each branch replaced by the mean flow in its direction, and the rest solved again.
 */
export const loopBalance = defineCalculator<LoopBalanceInput, LoopBalanceResult>({
  name: 'loop-balance',
  version: 1,
  title: 'Balance of branches',
  rules: [...Object.values(balanceRules), ...Object.values(hydraulicRules)],
  door: {
    schema: record({ ...loopFields, branches: list(text(), { minRows: 2, maxRows: 500 }) }),
    cross(input: LoopBalanceInput, issue) {
      crossLoop(input, issue);
      const seen = new Set<string>();
      input.branches.forEach((id, i) => {
        const at = `branches.${i}`;
        const element = input.elements.find((one) => one.id === id);
        if (element === undefined) issue(at, 'is no element of this loop');
        else if (element.kind === 'pump') issue(at, 'is a pump');
        if (seen.has(id)) issue(at, 'stands twice');
        seen.add(id);
      });
    },
  },
  isLong: (body) => {
    const { elements } = body as { elements?: unknown };
    return Array.isArray(elements) && elements.length > 200;
  },
  compute(input, { sheet, raise }) {
    const fluid = fluidOf(input.fluid);
    const { elements } = input;
    const ground = groundOf(input);
    const solved = solveLoop(elements, fluid, ground)!;
    const pumps = pumpPoints(input, solved.flows);
    raiseOfLoop(input, solved, pumps, raise);
    const indices = input.branches.map((id) => elements.findIndex((one) => one.id === id));
    const flows = indices.map((i) => solved.flows[i]!);
    const total = flows.reduce((sum, q) => sum + Math.abs(q), 0);
    const meanLPerMin = sheet.add({
      symbol: 'Q_m',
      label: 'Mean flow of a branch',
      formula: 'ΣQ/n',
      inputs: [
        { symbol: 'ΣQ', value: total, unit: 'L/min' },
        { symbol: 'n', value: flows.length, unit: '' },
      ],
      value: total / flows.length,
      unit: 'L/min',
      source,
    });
    const stands = meanLPerMin <= noFlow;
    const ratios = flows.map((q) => (stands ? null : Math.abs(q) / meanLPerMin));
    const worstImbalanceFraction = stands ? null : Math.max(...ratios.map((ratio) => Math.abs(ratio! - 1)));
    if (worstImbalanceFraction !== null)
      sheet.add({
        symbol: 'worst',
        label: 'Largest imbalance',
        formula: '|Q/Q_m − 1|',
        inputs: [
          { symbol: 'Q', value: worstOf(flows, meanLPerMin), unit: 'L/min' },
          { symbol: 'Q_m', value: meanLPerMin, unit: 'L/min' },
        ],
        value: worstImbalanceFraction,
        unit: 'fraction',
        source,
      });
    const starved = input.branches.filter(
      (_, i) => stands || Math.abs(flows[i]!) < starvedBelow * meanLPerMin,
    );
    const pumpLPerMin = pumps[0]!.flowLPerMin;
    const branchShareOfPumpFraction =
      Math.abs(pumpLPerMin) <= noFlow
        ? null
        : sheet.add({
            symbol: 'share',
            label: 'Of the pump’s flow through the branches',
            formula: 'ΣQ/Q_p',
            inputs: [
              { symbol: 'ΣQ', value: total, unit: 'L/min' },
              { symbol: 'Q_p', value: pumpLPerMin, unit: 'L/min' },
            ],
            value: total / pumpLPerMin,
            unit: 'fraction',
            source,
          });
    const spare = stands ? null : spareOf(input, indices, flows, meanLPerMin);
    if (spare === null && !stands)
      raise(
        balanceRules.noThrottle,
        `With ${formatQuantity(meanLPerMin, 'L/min')} in each branch there is no way for the flow.`,
      );
    const least = Math.min(...(spare ?? []).filter((one) => one !== null));
    if (branchShareOfPumpFraction !== null && branchShareOfPumpFraction < bypassBelow)
      raise(
        balanceRules.bypass,
        `Of ${formatQuantity(pumpLPerMin, 'L/min')} only ${formatNumber(100 * branchShareOfPumpFraction)} % go through the branches.`,
      );
    if (starved.length > 0)
      raise(
        balanceRules.starved,
        `${starved.slice(0, 8).join(', ')}${starved.length > 8 ? ' and more' : ''}.`,
      );
    if (worstImbalanceFraction !== null && worstImbalanceFraction > imbalanceAbove)
      raise(
        balanceRules.imbalance,
        `${formatNumber(100 * worstImbalanceFraction)} % off the mean at the most.`,
      );
    return {
      meanLPerMin,
      shares: input.branches.map((id, i) => ({ id, flowLPerMin: flows[i]!, ratioToMean: ratios[i]! })),
      worstImbalanceFraction,
      starved,
      balancingKPa: input.branches.map((id, i) => {
        const own = spare?.[i] ?? null;
        return { id, addKPa: own === null ? null : own - least };
      }),
      branchShareOfPumpFraction,
    };
  },
});

const worstOf = (flows: readonly number[], mean: number) =>
  flows.reduce((worst, q) => (Math.abs(Math.abs(q) - mean) > Math.abs(Math.abs(worst) - mean) ? q : worst));

/**
 * Pressure left across each branch beyond its own drop, where all that carry flow carry the mean; null for those without flow.
 *
 * @returns null where the mean cannot go through all of them
 */
function spareOf(
  input: LoopBalanceInput,
  indices: readonly number[],
  flows: readonly number[],
  meanLPerMin: number,
): (number | null)[] | null {
  const fluid = fluidOf(input.fluid);
  const carrying = indices.map((_, i) => Math.abs(flows[i]!) > noFlow);
  const held = new Set(indices.filter((_, i) => carrying[i]));
  const injected = new Map<string, number>();
  const put = (node: string, lPerMin: number) => injected.set(node, (injected.get(node) ?? 0) + lPerMin);
  indices.forEach((index, i) => {
    if (!carrying[i]) return;
    const { from, to } = input.elements[index]!;
    const q = Math.sign(flows[i]!) * meanLPerMin;
    put(from, -q);
    put(to, q);
  });
  const rest = input.elements.filter((_, i) => !held.has(i));
  const solved = solveLoop(rest, fluid, groundOf(input), injected);
  if (solved === null) return null;
  const spare = indices.map((index, i) => {
    if (!carrying[i]) return null;
    const element = input.elements[index]!;
    const across = solved.across(element.from, element.to);
    if (across === null) return undefined;
    return Math.sign(flows[i]!) * across - lawOf(element, fluid).at(meanLPerMin).dropKPa;
  });
  return spare.includes(undefined) ? null : (spare as (number | null)[]);
}
