import { runLengths, type Design, type Id } from '../../model/document';

/** The run that carries the sense wires of a board; the first where several say so. */
export const runOfBoard = (runs: Design['runs'] = {}, board: Id) =>
  Object.entries(runs).find(([, run]) => run.boards?.includes(board));

/**
 * Length of a sense wire, m: as it is said of the wire itself, else as the run that carries its board’s wires is cut; null: neither.
 *
 * @param wire id of the wire, `<board>/<tap>`
 */
export function senseLengthM(
  { runs, senseWires }: Pick<Design, 'runs' | 'senseWires'>,
  wire: Id,
): number | null {
  const own = senseWires?.[wire]?.lengthM;
  if (own !== undefined) return own;
  const run = runOfBoard(runs, wire.split('/')[0]!)?.[1];
  return run === undefined ? null : (runLengths(run)?.cutM ?? null);
}
