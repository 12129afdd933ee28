import { balanceCells, type BalanceCell } from './cells';
import type { Design } from '../../model/document';
import type { BalanceBody, BalanceGear, Entry } from '../../record';

/** One stretch of a cell under load, bleed, charger or joint. */
export interface BalanceStretch {
  gear: BalanceGear;
  place: number | null;
  fromMs: number;
  /** null: it is still on. */
  toMs: number | null;
}

/** Where one cell stands in balancing. */
export interface CellState extends BalanceCell {
  phase: 'waiting' | 'on' | 'resting';
  gear: BalanceGear | null;
  place: number | null;
  /** Of the present phase, ms since 1970; null while it waits. */
  sinceMs: number | null;
  /** Stretches begun. */
  round: number;
  stretches: BalanceStretch[];
  /** Readings of the present rest: hours from its beginning, and volts. */
  samples: [hours: number, voltageV: number][];
  /** The newest reading of all. */
  last: { atMs: number; voltageV: number } | null;
}

const hourMs = 3.6e6;

/**
 * What the record says of every cell: which is on, which rests since when, and what was read since.
 *
 * @param entries those that count, in any order of recording: the time of the act decides
 */
export function balanceStates(
  design: Pick<Design, 'modules' | 'strings' | 'parts'>,
  entries: readonly Pick<Entry, 'body' | 'takenAt' | 'seq'>[],
): CellState[] {
  const states = new Map(
    balanceCells(design).map((cell): [string, CellState] => [
      cell.id,
      {
        ...cell,
        phase: 'waiting',
        gear: null,
        place: null,
        sinceMs: null,
        round: 0,
        stretches: [],
        samples: [],
        last: null,
      },
    ]),
  );
  const readings = new Map<string, [atMs: number, voltageV: number][]>();
  const acts: { atMs: number; seq: number; body: BalanceBody }[] = [];
  for (const { body, takenAt, seq } of entries) {
    const atMs = Date.parse(takenAt);
    if (body.kind === 'balance') acts.push({ atMs, seq, body });
    else if (body.kind === 'cell-voltages')
      for (const { cell, samples } of body.cells) {
        const own = readings.get(cell) ?? [];
        for (const [hours, voltageV] of samples) own.push([atMs + hours * hourMs, voltageV]);
        readings.set(cell, own);
      }
  }
  acts.sort((a, b) => a.atMs - b.atMs || a.seq - b.seq);
  for (const { atMs, body } of acts)
    for (const id of body.cells) {
      const state = states.get(id);
      if (state !== undefined) act(state, body, atMs);
    }
  for (const [id, own] of readings) {
    const state = states.get(id);
    if (state === undefined) continue;
    own.sort(([a], [b]) => a - b);
    const [atMs, voltageV] = own.at(-1)!;
    state.last = { atMs, voltageV };
    if (state.phase !== 'resting') continue;
    const begun = state.sinceMs!;
    // Of two readings at one instant the later one counts: the fit asks for rising hours.
    const rest = new Map(own.filter(([at]) => at >= begun).map(([at, v]) => [(at - begun) / hourMs, v]));
    state.samples = [...rest];
  }
  return [...states.values()];
}

function act(state: CellState, { act: way, gear, place }: BalanceBody, atMs: number): void {
  if (way === 'on') {
    state.phase = 'on';
    state.gear = gear;
    state.place = place;
    state.round += 1;
    state.stretches.push({ gear, place, fromMs: atMs, toMs: null });
  } else {
    state.phase = 'resting';
    state.gear = gear;
    state.place = null;
    const open = state.stretches.at(-1);
    if (open !== undefined && open.toMs === null) open.toMs = atMs;
  }
  state.sinceMs = atMs;
}
