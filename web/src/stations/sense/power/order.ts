import type { Design, Id } from '@torvek/core/document';
import type { MappedBoard, PlugMove } from '@torvek/core/monitoring';
import { plugOrderOf } from '@torvek/core/monitoring';
import { formatNumber } from '@torvek/core/quantity';

export interface OrderRow {
  what: string;
  /** Modules that hang together then. */
  segment: string;
  /** At the cells’ highest. */
  segmentV: number;
  above: boolean;
  note: string;
  board: Id | null;
}

/** The order in which plugs and links go in, as rows for the bench. */
export function orderRows(
  design: Pick<Design, 'strings' | 'modules' | 'parts' | 'settings' | 'boards'>,
  string: Id,
  boards: readonly MappedBoard[],
  touchV: number,
): OrderRow[] {
  const { modules, disconnectAt } = design.strings[string]!;
  const tag = (place: number) => design.modules[modules[place - 1]!]?.tag ?? `${place}`;
  const named = (id: Id) => design.boards?.[id]?.tag ?? id;
  const volts = modules.map((id) => {
    const part = design.parts[design.modules[id]?.part ?? ''];
    return part?.kind === 'module' ? part.data.cell.maxV * part.data.cellsInSeries : 0;
  });
  const rowOf = ({ do: act, board, joint, segment: [from, to], waitedFor }: PlugMove): OrderRow => {
    const segmentV = volts.slice(from - 1, to).reduce((sum, one) => sum + one, 0);
    return {
      what:
        act === 'plug'
          ? `Ladder of ${named(board!)}, then its plug`
          : joint === disconnectAt
            ? `Service disconnect in, between ${tag(joint!)} and ${tag(joint! + 1)}`
            : `Link ${joint} in, between ${tag(joint!)} and ${tag(joint! + 1)}`,
      segment: from === to ? tag(from) : `${tag(from)} to ${tag(to)}`,
      segmentV,
      above: segmentV > touchV + 1e-6,
      note: [
        waitedFor.length > 0
          ? `waited for ${waitedFor.map((one) => (one === disconnectAt ? 'the disconnect' : `link ${one}`)).join(', ')}`
          : '',
        act === 'link' && segmentV > touchV + 1e-6
          ? `${formatNumber(segmentV, 3)} V hang together from here on: gloves, second person`
          : '',
      ]
        .filter((one) => one !== '')
        .join('; '),
      board,
    };
  };
  return plugOrderOf(design, string, boards).moves.map(rowOf);
}
