import type { Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { touchLimitOf, type Design, type Id } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { segments } from '../pack';
import type { MappedBoard } from './bms-map';
import { boardMapsView } from './board-map';
import { watchedStrings } from './map-step';
import { plugOrder, type PlugOrder } from './plug-order';
import { monitoringRules } from './rules';

const n = formatNumber;

/** Joints of a string that stay out until the end of the build: for the touch limit, and its disconnect. */
export function jointsLeftOut(
  { strings, modules, parts, settings }: Pick<Design, 'strings' | 'modules' | 'parts' | 'settings'>,
  string: Id,
): number[] {
  const { modules: ids, disconnectAt } = strings[string]!;
  const moduleMaxV = ids.map((id) => {
    const part = parts[modules[id]?.part ?? ''];
    return part?.kind === 'module' ? part.data.cell.maxV * part.data.cellsInSeries : 0;
  });
  const parsed = segments.parse({ moduleMaxV, limitV: touchLimitOf({ settings }) });
  const links = parsed.ok ? segments.calculate(parsed.input).result.linksToOpen : [];
  return [...new Set([...links, ...(disconnectAt === undefined ? [] : [disconnectAt])])].sort(
    (a, b) => a - b,
  );
}

/** In which order plugs and links of a string go in. */
export function plugOrderOf(
  design: Pick<Design, 'strings' | 'modules' | 'parts' | 'settings'>,
  string: Id,
  boards: readonly MappedBoard[],
): PlugOrder {
  return plugOrder(boards, design.strings[string]!.modules, jointsLeftOut(design, string));
}

/** Boards against the links that stay out: one that reads on both sides of such a link cannot go in before it. */
export const orderStep: StepDefinition = {
  id: 'monitoring.order',
  version: 1,
  subjects: watchedStrings,
  compute(subject, read) {
    const strings = read.at('strings');
    const design = {
      strings,
      modules: read.at('modules'),
      parts: read.at('parts'),
      boards: read.at('boards') ?? {},
      sensing: read.at('sensing') ?? {},
      pack: read.at('pack'),
      settings: read.at('settings'),
    };
    const { tag, disconnectAt } = strings[subject]!;
    const { boards, gaps: mapGaps } = read.shared(boardMapsView)[subject] ?? { boards: null, gaps: [] };
    const gaps: Gap[] =
      boards === null && mapGaps.length === 0
        ? [{ kind: 'not-given', path: 'boards', label: `boards for ${tag}` }]
        : mapGaps;
    const named = (id: Id) => design.boards[id]?.tag ?? id;
    const soft =
      boards === null
        ? []
        : plugOrderOf(design, subject, boards).reachOver.filter(({ joint }) => joint !== disconnectAt);
    const v = (label: string, value: number): CheckValue => ({ label, value, unit: '' });
    return {
      figures: [],
      checks: [
        judge(
          monitoringRules.end,
          [subject],
          gaps,
          soft.length > 0
            ? soft
                .map(
                  ({ board, joint, cellsBefore }) =>
                    `${named(board)} reads on both sides of link ${n(joint)} of ${tag}; ending after ${n(cellsBefore)} of its cells it need not wait for it.`,
                )
                .join(' ')
            : null,
          soft.flatMap(({ board, joint, cellsBefore }) => [
            v(`link within ${named(board)}`, joint),
            v(`cells of ${named(board)} before it`, cellsBefore),
          ]),
        ),
      ],
    };
  },
};
