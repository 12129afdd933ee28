import type { Gap } from '../../ground/figure';
import type { BoardItem, Design, Id } from '../../model/document';
import type { BmsMapInput, MappedBoard } from './bms-map';

type Slices = Pick<Design, 'strings' | 'modules' | 'parts' | 'boards' | 'sensing' | 'pack'>;

/** Boards of a string, in the order of their chain; those without a place last, as they stand. */
export function boardsOf({ boards = {} }: Pick<Design, 'boards'>, string: Id): [Id, BoardItem][] {
  return Object.entries(boards)
    .filter(([, board]) => board.string === string)
    .map(([id, board], i) => ({ id, board, at: board.order ?? 1e6 + i }))
    .sort((a, b) => a.at - b.at)
    .map(({ id, board }) => [id, board]);
}

const cellsOf = ({ modules, parts }: Pick<Design, 'modules' | 'parts'>, id: Id): number | null => {
  const part = parts[modules[id]?.part ?? ''];
  return part?.kind === 'module' ? part.data.cellsInSeries : null;
};

/** Breaks between the modules of a string: its disconnect and fuse, and where it leaves a box. */
export function breaksOf(
  design: Pick<Design, 'strings' | 'modules'>,
  string: Id,
  ohmAt: (joint: number) => number,
): NonNullable<BmsMapInput['breaks']> {
  const { modules, disconnectAt, fuseAt } = design.strings[string]!;
  return modules.slice(0, -1).flatMap((id, i) => {
    const joint = i + 1;
    const leaves = design.modules[id]?.box !== design.modules[modules[joint]!]?.box;
    const kind =
      disconnectAt === joint
        ? ('service-disconnect' as const)
        : fuseAt === joint
          ? ('fuse' as const)
          : leaves
            ? ('link' as const)
            : null;
    return kind === null ? [] : [{ afterModule: id, kind, resistanceOhm: ohmAt(joint) }];
  });
}

/** What the map of a string is made from. */
export function mapInput(
  design: Slices,
  string: Id,
  ohmAt: (joint: number) => number,
): { input: Omit<BmsMapInput, 'peakCurrentA'> & { peakCurrentA: number | null }; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const { tag, modules } = design.strings[string]!;
  const strings = Math.max(1, Object.values(design.strings).filter((one) => one.modules.length > 0).length);
  const listed = modules.map((id) => {
    const cells = cellsOf(design, id);
    if (cells === null)
      gaps.push({
        kind: 'not-given',
        path: `modules.${id}.part`,
        label: `kind of ${design.modules[id]?.tag ?? id}`,
      });
    return { id, cells: cells ?? 1 };
  });
  if (modules.length === 0)
    gaps.push({ kind: 'not-given', path: `strings.${string}.modules`, label: `modules of ${tag}` });
  const boards = boardsOf(design, string).map(([id, board]) => {
    const part = design.parts[board.unit ?? ''];
    if (part?.kind !== 'unit') {
      gaps.push({ kind: 'not-given', path: `boards.${id}.unit`, label: `unit of ${board.tag}` });
      return { id, channels: 1 };
    }
    const { channels, minChannels } = part.data;
    return { id, channels: Math.max(1, Math.min(channels, board.takes ?? channels)), minChannels };
  });
  const { strategy = 'fill', mayStraddle } = design.sensing ?? {};
  const { peakCurrentA } = design.pack;
  return {
    gaps,
    input: {
      modules: listed,
      boards,
      strategy,
      breaks: breaksOf(design, string, ohmAt),
      peakCurrentA: peakCurrentA === undefined ? null : peakCurrentA / strings,
      avoidStraddlingBreaks: mayStraddle !== true,
    },
  };
}

/** A wire of the sense harness, as it follows from the map. */
export interface SenseWire {
  /** `<board>/<tap>`: 0 is its reference. */
  id: string;
  number: number;
  board: Id;
  /** Pin of its plug: 1 is the reference. */
  pin: number;
  module: Id;
  tap: number;
  what: 'reference' | 'tap' | 'tie' | 'jumper';
  /** Against the negative end of the string, in cells. */
  cell: number;
}

/** Every wire of the boards of a string: reference, taps, jumpers from the board before, and ties to the top. */
export function harnessOf(boards: readonly MappedBoard[]): SenseWire[] {
  const wires: SenseWire[] = [];
  let number = 0;
  for (const board of boards) {
    const first = board.cells[0];
    if (first === undefined) continue;
    const add = (pin: number, what: SenseWire['what'], module: Id, tap: number, cell: number) => {
      number += 1;
      wires.push({ id: `${board.id}/${pin - 1}`, number, board: board.id, pin, module, tap, what, cell });
    };
    add(
      1,
      board.jumperFrom === null ? 'reference' : 'jumper',
      board.referenceFrom.module,
      board.referenceFrom.tap,
      first.cell - 1,
    );
    for (const one of board.cells) add(one.channel + 1, 'tap', one.module, one.cellInModule, one.cell);
    const top = board.cells.at(-1)!;
    for (const channel of board.tiedChannels) add(channel + 1, 'tie', top.module, top.cellInModule, top.cell);
  }
  return wires;
}
