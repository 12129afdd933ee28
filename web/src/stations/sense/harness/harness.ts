import { runOfBoard, senseLengthM, type SenseWire } from '@torvek/core/monitoring';
import type { Design, Id } from '@torvek/core/document';
import type { Rows } from '../../../parts/csv';

/** Colours of a sense harness that repeat by ten, so that neighbours differ. */
const usualColours = [
  'white',
  'brown',
  'green',
  'yellow',
  'grey',
  'pink',
  'blue',
  'red',
  'black',
  'violet',
] as const;

export interface HarnessRow extends SenseWire {
  label: string;
  from: string;
  board: Id;
  boardTag: string;
  colour: string;
  lengthM: number | null;
  /** The run that its length is of; null: typed, or none. */
  byRun: string | null;
  fuseA: number | null;
}

const what: Record<SenseWire['what'], string> = {
  reference: 'reference',
  tap: '',
  tie: 'tie to the top',
  jumper: 'reference, from the board before',
};

/** The wires of a string with what is said of each: derived from the map, overridden by their ids. */
export function harnessRows(
  wires: readonly SenseWire[],
  {
    boards = {},
    modules,
    senseWires = {},
    pack,
    runs,
  }: Pick<Design, 'boards' | 'modules' | 'senseWires' | 'pack' | 'runs'>,
  string: Id,
): HarnessRow[] {
  const sense = Object.values(pack.sense ?? {});
  const lead = sense.find((one) => one.string === string) ?? sense.find((one) => one.string === undefined);
  return wires.map((wire) => {
    const own = senseWires[wire.id];
    const boardTag = boards[wire.board]?.tag ?? wire.board;
    const note = what[wire.what];
    return {
      ...wire,
      boardTag,
      label: `${boardTag}-${wire.pin}`,
      from: `${modules[wire.module]?.tag ?? wire.module}, tap ${wire.tap}${note === '' ? '' : ` (${note})`}`,
      colour: own?.colour ?? usualColours[(wire.pin - 1) % usualColours.length]!,
      lengthM:
        wire.what === 'tap' || wire.what === 'reference'
          ? senseLengthM({ runs, senseWires }, wire.id)
          : (own?.lengthM ?? null),
      byRun: own?.lengthM === undefined ? (runOfBoard(runs, wire.board)?.[1].tag ?? null) : null,
      fuseA: own?.fuseA ?? (wire.what === 'tap' || wire.what === 'reference' ? (lead?.fuseA ?? null) : null),
    };
  });
}

/** As a list for whoever builds it. */
export const harnessTable = (rows: readonly HarnessRow[]): Rows =>
  rows.map((row) => ({
    wire: row.number,
    label: row.label,
    from: row.from,
    board: row.boardTag,
    pin: row.pin,
    colour: row.colour,
    'length, m': row.lengthM ?? '',
    'fuse, A': row.fuseA ?? '',
  }));

/** What to cut, by board. */
export function cutRows(rows: readonly HarnessRow[]): Rows {
  const byBoard = new Map<string, { pieces: number; metres: number; unknown: number }>();
  for (const { boardTag, lengthM, what: kind } of rows) {
    // A tie is a bridge in the plug.
    if (kind === 'tie' || kind === 'jumper') continue;
    const own = byBoard.get(boardTag) ?? { pieces: 0, metres: 0, unknown: 0 };
    own.pieces += 1;
    if (lengthM === null) own.unknown += 1;
    else own.metres += lengthM;
    byBoard.set(boardTag, own);
  }
  return [...byBoard].map(([board, { pieces, metres, unknown }]) => ({
    board,
    pieces,
    'metres known': Math.round(metres * 1000) / 1000,
    'without a length': unknown,
  }));
}
