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

/** As a page for the book. */
export async function printLadder(job: string, answer: LadderAnswer): Promise<void> {
  const { makePdf, savePdf } = await import('../../../parts/pdf');
  const rows = ladderRows(answer);
  const head = Object.keys(rows[0] ?? {});
  const { violations } = answer.result;
  const blob = await makePdf({
    pageSize: 'A4',
    content: [
      { text: 'Cut-off ladder', fontSize: 16, bold: true },
      { text: job, color: '#555', margin: [0, 0, 0, 8] },
      {
        text:
          violations.length === 0
            ? `Every step is at least ${answer.marginMv} mV of a cell above the next, where a margin is asked.`
            : `${violations.length} pairs are not in their order, or nearer than ${answer.marginMv} mV.`,
        margin: [0, 0, 0, 8],
      },
      {
        table: {
          headerRows: 1,
          body: [head, ...rows.map((row) => head.map((key) => String(row[key] ?? '')))],
        },
        layout: 'lightHorizontalLines',
      },
      {
        text: 'Limits of the cells and of each device are their makers’. Each cut is tried once on purpose before the vehicle is used; see the record.',
        color: '#555',
        margin: [0, 10, 0, 0],
      },
    ],
  });
  savePdf(blob, job, 'ladder');
}
