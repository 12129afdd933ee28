import type { Id } from '../../model/document';
import type { MappedBoard } from './bms-map';

/** A move in the order in which sense plugs and links go in. */
export interface PlugMove {
  do: 'plug' | 'link';
  /** The board whose plug it is. */
  board: Id | null;
  /** The joint that is closed: behind the module of this place, from 1. */
  joint: number | null;
  /** Modules that hang together once it is done, from and to by place, from 1. */
  segment: [from: number, to: number];
  /** Joints that stay out until later and lie between cells of this board: it cannot go in before they are closed. */
  waitedFor: number[];
}

export interface PlugOrder {
  moves: PlugMove[];
  /** Boards that read cells on both sides of a joint that stays out, with the cells that lie before it. */
  reachOver: { board: Id; joint: number; cellsBefore: number }[];
}

/** Places of the modules that a board reads, from 1. */
export function spanOf(board: MappedBoard, modules: readonly Id[]): [from: number, to: number] {
  const places = board.cells.map(({ module }) => modules.indexOf(module) + 1);
  return [Math.min(...places), Math.max(...places)];
}

/**
 * In which order plugs and links go in: the plugs of each segment whose links are all closed, from the lowest potential; then a link
 * that stayed out, then the plugs that waited for it. Taken out in the opposite order: no link is opened below a plug.
 *
 * @param leftOut joints of the string that stay out until the end of the build
 */
export function plugOrder(
  boards: readonly MappedBoard[],
  modules: readonly Id[],
  leftOut: readonly number[],
): PlugOrder {
  const out = [...new Set(leftOut)].filter((one) => one >= 1 && one < modules.length).sort((a, b) => a - b);
  const spans = boards
    .filter(({ cells }) => cells.length > 0)
    .map((board) => ({ board, span: spanOf(board, modules) }));
  const over = (span: [number, number], joints: readonly number[]) =>
    joints.filter((joint) => joint >= span[0] && joint < span[1]);
  const reachOver = spans.flatMap(({ board, span }) =>
    over(span, out).map((joint) => ({
      board: board.id,
      joint,
      cellsBefore: board.cells.filter(({ module }) => modules.indexOf(module) + 1 <= joint).length,
    })),
  );
  const segmentAt = (place: number, open: readonly number[]): [number, number] => [
    Math.max(0, ...open.filter((joint) => joint < place)) + 1,
    Math.min(modules.length, ...open.filter((joint) => joint >= place)),
  ];
  const moves: PlugMove[] = [];
  let open = out;
  let waiting = spans;
  const plugAll = () => {
    const ready = waiting.filter(({ span }) => over(span, open).length === 0);
    for (const { board, span } of ready)
      moves.push({
        do: 'plug',
        board: board.id,
        joint: null,
        segment: segmentAt(span[0], open),
        waitedFor: over(span, out),
      });
    waiting = waiting.filter((one) => !ready.includes(one));
  };
  plugAll();
  for (const joint of out) {
    open = open.filter((one) => one !== joint);
    moves.push({ do: 'link', board: null, joint, segment: segmentAt(joint, open), waitedFor: [] });
    plugAll();
  }
  return { moves, reachOver };
}
