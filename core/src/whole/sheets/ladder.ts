import { formatNumber } from '../../ground/quantity';
import type { LadderAnswer } from '../../trade/charging';
import { findings, type SheetContext } from './context';
import type { Sheet } from './sheet';

/** Every threshold of the car from the top, with what lies between each and the next. */
export function ladderSheet(context: SheetContext): Sheet {
  const answer = (context.evaluation.runs['charge.ladder:vehicle']?.result ?? null) as LadderAnswer | null;
  const items = new Map((answer?.items ?? []).map((one) => [one.path, one]));
  const ordered = answer?.result.ordered ?? [];
  return {
    id: 'ladder',
    title: 'Cut-off ladder',
    about: 'Every voltage at which something warns, ends or cuts, by the cell, from the top.',
    blocks: [
      {
        kind: 'table',
        columns: [
          { title: 'owner' },
          { title: 'what' },
          { title: 'reads' },
          { title: 'set to, V', align: 'right' },
          { title: 'by the cell, V', align: 'right' },
          { title: 'to the next, mV', align: 'right' },
          { title: 'tried, day', handMm: 24 },
        ],
        rows: ordered.map(({ id, perCellV }, i) => {
          const item = items.get(id)!;
          const next = ordered[i + 1];
          return [
            item.owner,
            item.what,
            item.level,
            formatNumber(item.voltageV, 5),
            formatNumber(perCellV, 5),
            next === undefined ? '' : formatNumber((perCellV - next.perCellV) * 1000, 4),
            '',
          ];
        }),
      },
      {
        kind: 'text',
        tone: 'soft',
        text: 'Limits of the cells and of each device are their makers’. Each cut is tried once on purpose before the vehicle is used; see the record.',
      },
      ...findings(context, ['charge']),
    ],
  };
}
