import { defineCalculator } from '../../ground/calculator';
import { list, number, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';
import { exactCuts, exactReels, layWell } from './lay-well';
import { layExactly, same } from './place-cuts';

export interface CutPlanInput {
  reels: { id: string; lengthM: number }[];
  cuts: { id: string; lengthM: number }[];
  kerfM: number;
}

export interface CutPlanResult {
  assignments: { reelId: string; cutIds: string[]; leftM: number }[];
  unplaced: string[];
  reelsUsed: number;
}

const rule = rulesOf('cut-plan');

export const cutPlanRules = {
  notExact: rule(
    'not-exact',
    'note',
    'The cut plan is a good one, not the best for certain',
    'With so many cuts and reels not every way of laying them is looked at.',
    'Plan one area of cable at a time; then it is exact up to 15 cuts on 4 reels.',
    'Simple layings, improved reel by reel',
  ),
  unplaced: rule(
    'unplaced',
    'mend',
    'A cut does not fit on the reels in stock',
    'A joint in a high-voltage cable is no way out: it is cut from one piece.',
    'Another reel, or measure whether the run can be shorter.',
    'Lengths of reels and cuts with the kerf',
  ),
};

/**
 * Lays cuts on reels: the most cuts, then the greatest length, on the fewest reels, with the longest left-overs.
 *
 * Source: exact by dynamic programming over sets of cuts up to 15 cuts on 4 reels; beyond that improved first-fit and best-fit.
 */
export const cutPlan = defineCalculator<CutPlanInput, CutPlanResult>({
  name: 'cut-plan',
  version: 1,
  title: 'Cuts on reels',
  rules: Object.values(cutPlanRules),
  door: {
    schema: record({
      reels: list(record({ id: text(80), lengthM: number({ min: 0 }) }), { maxRows: 100 }),
      cuts: list(record({ id: text(80), lengthM: number({ above: 0 }) }), { maxRows: 300 }),
      kerfM: number.optional({ min: 0 }),
    }),
    defaults: { kerfM: 0.005 },
    cross({ reels, cuts }: CutPlanInput, issue) {
      for (const [name, those] of [
        ['reels', reels],
        ['cuts', cuts],
      ] as const) {
        const seen = new Set<string>();
        those.forEach(({ id }, i) => {
          if (seen.has(id)) issue(`${name}.${i}.id`, 'is taken by an earlier one');
          seen.add(id);
        });
      }
    },
  },
  isLong(body) {
    const { cuts, reels } = body as Partial<Record<'cuts' | 'reels', unknown>>;
    return Array.isArray(cuts) && Array.isArray(reels) && cuts.length > 11 && reels.length > 2;
  },
  compute({ reels, cuts, kerfM }, { sheet, raise }) {
    const lengths = reels.map(({ lengthM }) => lengthM);
    const longest = Math.max(0, ...lengths);
    // What fits on no reel is out before anything is laid.
    const fitting = cuts.flatMap(({ lengthM }, i) => (lengthM + kerfM <= longest + same ? [i] : []));
    const wanted = fitting.map((i) => cuts[i]!.lengthM);
    const exact = fitting.length <= exactCuts && reels.length <= exactReels;
    const simple = layWell(lengths, wanted, kerfM, 0);
    const { reelOf } =
      fitting.length === 0
        ? { reelOf: [] }
        : exact
          ? layExactly(lengths, wanted, kerfM, !simple.reelOf.includes(-1))
          : layWell(lengths, wanted, kerfM);
    const on = new Map<number, number[]>();
    fitting.forEach((cut, i) => {
      const reel = reelOf[i]!;
      if (reel >= 0) on.set(reel, [...(on.get(reel) ?? []), cut]);
    });
    const assignments = reels.flatMap(({ id, lengthM }, i): CutPlanResult['assignments'] => {
      const own = on.get(i);
      if (own === undefined) return [];
      const usedM = own.reduce((sum, cut) => sum + cuts[cut]!.lengthM + kerfM, 0);
      const leftM = sheet.add({
        symbol: `r_${i + 1}`,
        label: `Left of ${id}`,
        formula: 'l − Σ(c + k)',
        inputs: [
          { symbol: 'l', value: lengthM, unit: 'm', from: `reels.${i}.lengthM` },
          { symbol: 'Σ(c + k)', value: usedM, unit: 'm' },
        ],
        value: Math.max(0, lengthM - usedM),
        unit: 'm',
        source: 'Each cut costs its length and the kerf',
      });
      return [{ reelId: id, cutIds: own.map((cut) => cuts[cut]!.id), leftM }];
    });
    const placed = new Set(assignments.flatMap(({ cutIds }) => cutIds));
    const unplaced = cuts.filter(({ id }) => !placed.has(id));
    sheet.add({
      symbol: 'n',
      label: 'Cuts placed',
      formula: 'N − u',
      inputs: [
        { symbol: 'N', value: cuts.length, unit: '' },
        { symbol: 'u', value: unplaced.length, unit: '' },
      ],
      value: placed.size,
      unit: '',
      source: exact ? 'Every way of laying them was compared' : 'The best of those that were tried',
    });
    for (const { id, lengthM } of unplaced)
      raise(
        cutPlanRules.unplaced,
        `${id}, ${formatQuantity(lengthM, 'm')}, fits on no reel with the others.`,
      );
    if (!exact)
      raise(
        cutPlanRules.notExact,
        `${fitting.length} cuts on ${reels.length} reels: exact are up to ${exactCuts} on ${exactReels}.`,
      );
    return { assignments, unplaced: unplaced.map(({ id }) => id), reelsUsed: assignments.length };
  },
});
