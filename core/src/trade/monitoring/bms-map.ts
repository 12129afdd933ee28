import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';

export const breakKinds = ['service-disconnect', 'fuse', 'contactor', 'link'] as const;
export type BreakKind = (typeof breakKinds)[number];

export interface BmsMapInput {
  /** In series order, lowest potential first. */
  modules: { id: string; cells: number }[];
  boards: { id: string; channels: number; minChannels?: number }[];
  strategy: 'fill' | 'per-module';
  breaks?: { afterModule: string; kind: BreakKind; resistanceOhm?: number }[];
  peakCurrentA: number;
  avoidStraddlingBreaks: boolean;
}

export interface MappedBoard {
  id: string;
  cells: { channel: number; cell: number; module: string; cellInModule: number }[];
  tiedChannels: number[];
  referenceFrom: { module: string; tap: number };
  jumperFrom: string | null;
}

export interface BmsMapResult {
  feasible: boolean;
  /** Those that serve cells. */
  boards: MappedBoard[];
  unusedBoards: string[];
  cellsLeft: number;
  straddles: { board: string; afterModule: string; kind: BreakKind; mvAtPeak: number }[];
  wires: number;
}

const rule = rulesOf('bms-map');
const source = 'Cells in order of their potential, boards in the order of the list';

export const bmsMapRules = {
  below: rule(
    'below-minimum',
    'mend',
    'A board has fewer cells than it works with',
    'It does not wake, or reads nothing that is right.',
    'Boards of other sizes, another order, or fill them evenly by hand.',
    'Least number of channels by the maker of the board',
  ),
  left: rule(
    'cells-left',
    'mend',
    'Cells are left without a channel',
    'Nobody sees when they are too full, too empty or too hot.',
    'Another board, or larger ones.',
    source,
  ),
  straddle: rule(
    'straddle',
    'note',
    'A board reads over a break between modules',
    'Current through it shows as millivolts on a cell; where it opens, the inputs of the board see the voltage of the whole string.',
    'End the board at the break, or see that it stands that voltage.',
    'Resistance of the break times the peak current',
  ),
};

interface Cell {
  cell: number;
  module: string;
  moduleAt: number;
  cellInModule: number;
}

/** Breaks that open: a board ends at them where it is asked to. */
const opens = (kind: BreakKind) => kind !== 'link';

/**
 * Which cell goes to which channel of which board, with ties, references and jumpers.
 *
 * Source: boards serve in the order of the list, greedily.
 */
export const bmsMap = defineCalculator<BmsMapInput, BmsMapResult>({
  name: 'bms-map',
  version: 1,
  title: 'Channel map',
  rules: Object.values(bmsMapRules),
  door: {
    schema: record({
      modules: list(record({ id: text(), cells: number({ min: 1, max: 500, integer: true }) }), {
        minRows: 1,
        maxRows: 500,
      }),
      boards: list(
        record({
          id: text(),
          channels: number({ min: 1, max: 500, integer: true }),
          minChannels: number.optional({ min: 1, max: 500, integer: true }),
        }),
        { minRows: 1, maxRows: 500 },
      ),
      strategy: oneOf(['fill', 'per-module']),
      breaks: list.optional(
        record({
          afterModule: text(),
          kind: oneOf(breakKinds),
          resistanceOhm: number.optional({ min: 0 }),
        }),
        { maxRows: 500 },
      ),
      peakCurrentA: number.optional({ min: 0 }),
      avoidStraddlingBreaks: oneOf.optional([true, false]),
    }),
    defaults: { peakCurrentA: 0, avoidStraddlingBreaks: true },
    cross({ modules, boards, breaks = [] }: BmsMapInput, issue) {
      const twice = (those: readonly { id: string }[], at: string) => {
        const seen = new Set<string>();
        those.forEach(({ id }, i) => {
          if (seen.has(id)) issue(`${at}.${i}.id`, 'stands twice');
          seen.add(id);
        });
      };
      twice(modules, 'modules');
      twice(boards, 'boards');
      breaks.forEach(({ afterModule }, i) => {
        if (!modules.some(({ id }) => id === afterModule))
          issue(`breaks.${i}.afterModule`, 'is no module of the string');
      });
      if (modules.reduce((sum, { cells }) => sum + cells, 0) > 5000)
        issue('modules', 'must have at most 5000 cells together');
    },
  },
  compute(input, { sheet, raise }) {
    const cells: Cell[] = [];
    input.modules.forEach(({ id, cells: count }, moduleAt) => {
      for (let k = 1; k <= count; k += 1)
        cells.push({ cell: cells.length + 1, module: id, moduleAt, cellInModule: k });
    });
    const { breaks = [] } = input;
    const moduleAt = new Map(input.modules.map(({ id }, i) => [id, i]));
    const endsAfter = new Set(
      input.avoidStraddlingBreaks
        ? breaks.filter(({ kind }) => opens(kind)).map(({ afterModule }) => moduleAt.get(afterModule)!)
        : [],
    );
    const served: { board: BmsMapInput['boards'][number]; own: Cell[] }[] = [];
    let next = 0;
    for (const board of input.boards) {
      const own: Cell[] = [];
      while (next < cells.length && own.length < board.channels) {
        const before = own.at(-1);
        const one = cells[next]!;
        if (before !== undefined && before.moduleAt !== one.moduleAt) {
          if (input.strategy === 'per-module') break;
          // Between two modules there may be a break that ends a board.
          if (endsAfter.has(before.moduleAt)) break;
        }
        own.push(one);
        next += 1;
      }
      if (own.length > 0) served.push({ board, own });
    }
    const boards = served.map(({ board, own }, i): MappedBoard => {
      const first = own[0]!;
      return {
        id: board.id,
        cells: own.map(({ cell, module, cellInModule }, k) => ({
          channel: k + 1,
          cell,
          module,
          cellInModule,
        })),
        tiedChannels: Array.from({ length: board.channels - own.length }, (_, k) => own.length + k + 1),
        referenceFrom: { module: first.module, tap: first.cellInModule - 1 },
        jumperFrom: first.cellInModule > 1 && i > 0 ? served[i - 1]!.board.id : null,
      };
    });
    const used = new Set(boards.map(({ id }) => id));
    const cellsLeft = cells.length - next;
    const straddles = served.flatMap(({ board, own }) =>
      breaks.flatMap(({ afterModule, kind, resistanceOhm = 0 }) => {
        const at = moduleAt.get(afterModule)!;
        return own[0]!.moduleAt <= at && own.at(-1)!.moduleAt > at
          ? [{ board: board.id, afterModule, kind, mvAtPeak: resistanceOhm * input.peakCurrentA * 1000 }]
          : [];
      }),
    );
    const wires = sheet.add({
      symbol: 'w',
      label: 'Sense wires',
      formula: 'n + b',
      inputs: [
        { symbol: 'n', label: 'cells with a channel', value: next, unit: '' },
        { symbol: 'b', label: 'boards, each with its reference', value: boards.length, unit: '' },
      ],
      value: next + boards.length,
      unit: '',
      source,
    });
    const below = served.filter(({ board, own }) => own.length < (board.minChannels ?? 1));
    if (below.length > 0)
      raise(
        bmsMapRules.below,
        `${below.map(({ board, own }) => `${board.id} has ${own.length}, ${board.minChannels} are asked`).join('; ')}.`,
      );
    if (cellsLeft > 0) raise(bmsMapRules.left, `${cellsLeft} of ${cells.length}.`);
    if (straddles.length > 0)
      raise(
        bmsMapRules.straddle,
        `${straddles
          .slice(0, 6)
          .map(
            (one) =>
              `${one.board} over the ${one.kind} after ${one.afterModule}, ${formatNumber(one.mvAtPeak)} mV`,
          )
          .join('; ')}${straddles.length > 6 ? ' and more' : ''}.`,
      );
    return {
      feasible: cellsLeft === 0 && below.length === 0,
      boards,
      unusedBoards: input.boards.flatMap(({ id }) => (used.has(id) ? [] : [id])),
      cellsLeft,
      straddles,
      wires,
    };
  },
});
