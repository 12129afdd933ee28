import type { Gap } from '../../ground/figure';
import type { Design, Id } from '../../model/document';
import { bmsMap, type MappedBoard } from './bms-map';
import { mapInput } from './map-inputs';

/** Which boards read which cells of a string: the map without what a break costs in millivolts. */
export function boardMapOf(
  design: Pick<Design, 'strings' | 'modules' | 'parts' | 'boards' | 'sensing' | 'pack'>,
  string: Id,
): { boards: MappedBoard[] | null; gaps: Gap[] } {
  const { input, gaps } = mapInput(design, string, () => 0);
  if (gaps.length > 0 || input.boards.length === 0) return { boards: null, gaps };
  const parsed = bmsMap.parse({ ...input, peakCurrentA: 0 });
  return parsed.ok
    ? { boards: bmsMap.calculate(parsed.input).result.boards, gaps: [] }
    : { boards: null, gaps: [] };
}
