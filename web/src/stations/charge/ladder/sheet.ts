import type { LadderAnswer } from '@torvek/core/charging';
import type { Rows } from '../../../parts/csv';

const mv = (value: number) => Math.round(value * 10) / 10;

/** The ladder from the top, with what lies between each step and the next. */
export function ladderRows({ items, result }: LadderAnswer): Rows {
  const byPath = new Map(items.map((one) => [one.path, one]));
  return result.ordered.map(({ id, perCellV }, i) => {
    const item = byPath.get(id)!;
    const next = result.ordered[i + 1];
    return {
      owner: item.owner,
      what: item.what,
      role: item.role,
      reads: item.level,
      'set to, V': item.voltageV,
      'by the cell, V': Math.round(perCellV * 1e5) / 1e5,
      'to the next, mV': next === undefined ? '' : mv((perCellV - next.perCellV) * 1000),
    };
  });
}

/** For whichever device is set by a file. */
export const ladderJson = (job: string, { items, result, marginMv }: LadderAnswer) => ({
  job,
  marginMv,
  thresholds: items.map(({ owner, what, role, level, voltageV, perCellV }) => ({
    owner,
    what,
    role,
    level,
    voltageV,
    perCellV,
  })),
  outOfOrder: result.violations.map(({ gapMv, neededMv, upper, lower }) => {
    const named = (path: string) => items.find((one) => one.path === path)!;
    return {
      upper: `${named(upper).owner} ${named(upper).what}`,
      lower: `${named(lower).owner} ${named(lower).what}`,
      gapMv: mv(gapMv),
      neededMv,
    };
  }),
});
