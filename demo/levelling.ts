import { moduleOfCell } from '@torvek/core/balance';
import { crate, thingIn } from './crate';
import { numbersFrom } from './numbers';
import { restingCells } from './resting';
import { meter, technician } from './shop';
import type { StoryLine } from './story';

const round = (volts: number, steps = 2000) => Math.round(volts * steps) / steps;
type Line = Extract<StoryLine, { entry: unknown }>;
const line = (at: string, entry: Line['entry']): Line => ({ at, by: technician, entry });
const readings = (at: string, volts: [cell: string, voltageV: number][]): Line =>
  line(at, {
    kind: 'cell-voltages',
    entered: 'pasted',
    instrument: meter,
    cells: volts.map(([cell, voltageV]) => ({ cell, samples: [[0, round(voltageV)]] })),
  });

/** Demo A: a damaged module is replaced and brought level; all cells are levelled at full. */
export function levelAtFull(modules: readonly { id: string }[], replaced: string): StoryLine[] {
  const cells = modules.flatMap(({ id }) => Array.from({ length: 12 }, (_, i) => `${id}/cell-${i + 1}`));
  const next = numbersFrom(1974);
  // Each cell's own height at full; the replaced module came lower, and is level with the rest now.
  const full = cells.map((cell): [string, number] => [
    cell,
    4.124 + 0.024 * next() + (moduleOfCell(cell) === replaced ? -0.004 : 0),
  ]);
  const lowest = Math.min(...full.map(([, volts]) => volts));
  const level = cells.map((cell): [string, number] => [cell, lowest + 0.004 * next()]);
  return [
    line('2026-10-26T10:12:00Z', {
      kind: 'intake',
      module: replaced,
      serial: 'BW 40-1187',
      look: 'damaged',
      remark: 'Case dented at the coolant face.',
    }),
    line('2026-10-27T08:50:00Z', {
      kind: 'remove',
      item: thingIn(crate.failed),
      state: 'rejected',
      reason: 'Case dented at the coolant face; goes back.',
    }),
    line('2026-10-27T09:00:00Z', {
      kind: 'fit',
      item: thingIn(crate.spare),
      place: replaced,
      reason: 'Takes the place of BW 40-1187.',
    }),
    line('2026-10-27T09:05:00Z', { kind: 'intake', module: replaced, serial: 'BW 40-2203', look: 'sound' }),
    line('2026-10-27T09:10:00Z', {
      kind: 'result',
      step: `intake-voltage:${replaced}`,
      value: 43.86,
      instrument: meter,
    }),
    line('2026-10-27T12:05:00Z', {
      kind: 'work',
      what: 'S2-M08 brought level with S2-M07 before it was linked: before 43.86 V and 44.71 V (0.85 V apart), 15 Ah put in at 8 A, after 44.72 V and 44.71 V.',
      subjects: [replaced],
    }),
    line('2026-10-27T13:05:00Z', {
      kind: 'result',
      step: `intake-voltage:${replaced}`,
      value: 44.72,
      instrument: meter,
    }),
    line('2026-10-27T13:20:00Z', { kind: 'balance', act: 'on', gear: 'charger', cells }),
    line('2026-10-28T07:50:00Z', { kind: 'balance', act: 'off', gear: 'charger', cells }),
    readings('2026-10-28T09:00:00Z', full),
    line('2026-10-28T09:10:00Z', { kind: 'balance', act: 'on', gear: 'bleed', cells }),
    line('2026-10-28T16:30:00Z', { kind: 'balance', act: 'off', gear: 'bleed', cells }),
    readings('2026-10-29T08:15:00Z', level),
    line('2026-10-29T14:00:00Z', {
      kind: 'note',
      text: 'All modules brought back to storage charge, 3.73 V a cell, for the build.',
    }),
  ];
}

const hourMs = 3.6e6;
const dayMs = 24 * hourMs;

/**
 * Demo B: cells are levelled at empty, four a day; some have settled, some rest, four are under load, the rest wait.
 * Told up to the present.
 */
export function levelAtEmpty(modules: readonly { id: string }[], now: Date): StoryLine[] {
  const cells = modules.map(({ id }) => `${id}/cell-1`);
  const next = numbersFrom(2001);
  const own = restingCells(cells.length);
  // The morning of the last day whose first walk is over.
  const morning = Math.floor((now.getTime() - 8.75 * hourMs) / dayMs) * dayMs;
  const days = 5;
  const lines: Line[] = [];
  const began = new Map<number, number>();
  for (let day = days; day >= 0; day -= 1) {
    const at = (hour: number) => morning - day * dayMs + hour * hourMs;
    const batch = [0, 1, 2, 3].map((i) => (days - day) * 4 + i);
    const named = batch.map((i) => cells[i]!);
    if (day < days) lines.push(walk(at(8.25)));
    if (day === 0) break;
    lines.push(act(at(8.5), 'on', named), act(at(12.5), 'off', named));
    for (const i of batch) began.set(i, at(12.5));
    lines.push(...[12.75, 13.25, 14.25, 16.5].map((hour) => walk(at(hour))));
  }
  const loaded = cells.slice(days * 4, days * 4 + 4);
  lines.push(act(Math.max(now.getTime() - 1.5 * hourMs, morning + 8.4 * hourMs), 'on', loaded));
  return lines;

  function act(atMs: number, way: 'on' | 'off', named: string[]): Line {
    return line(new Date(atMs).toISOString(), { kind: 'balance', act: way, gear: 'load', cells: named });
  }

  /** Every cell that rests and is not through with it is read once. */
  function walk(atMs: number): Line {
    const resting = [...began].filter(([, from]) => atMs - from < 93 * hourMs);
    return readings(
      new Date(atMs).toISOString(),
      resting.map(([i, from]) => [cells[i]!, own[i]!((atMs - from) / hourMs) + 0.001 * (next() - 0.5)]),
    );
  }
}
