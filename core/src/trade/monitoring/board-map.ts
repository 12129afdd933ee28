import type { Gap } from '../../ground/figure';
import type { Design, Id } from '../../model/document';
import { bmsMap, type MappedBoard } from './bms-map';
import type { SharedView } from '../../model/step';
import { boardsOf, mapInput } from './map-inputs';

/** Boards of a string with the cells that each reads; null: not known, or none. */
export interface BoardMap {
  boards: MappedBoard[] | null;
  gaps: Gap[];
}

/** Which boards read which cells of a string: the map without what a break costs in millivolts. */
export function boardMapOf(
  design: Pick<Design, 'strings' | 'modules' | 'parts' | 'boards' | 'sensing' | 'pack'>,
  string: Id,
): BoardMap {
  const { input, gaps } = mapInput(design, string, () => 0);
  if (gaps.length > 0 || input.boards.length === 0) return { boards: null, gaps };
  const parsed = bmsMap.parse({ ...input, peakCurrentA: 0 });
  return parsed.ok
    ? { boards: bmsMap.calculate(parsed.input).result.boards, gaps: [] }
    : { boards: null, gaps: [] };
}

/** The same of every string, once per design. */
export const boardMapsView: SharedView<Record<Id, BoardMap>> = {
  id: 'monitoring.board-maps',
  make: (design) =>
    Object.fromEntries(
      Object.keys(design.strings)
        .filter((id) => boardsOf(design, id).length > 0)
        .map((id) => [id, boardMapOf(design, id)]),
    ),
};
