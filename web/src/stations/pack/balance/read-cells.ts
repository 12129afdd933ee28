import Papa from 'papaparse';
import { parseQuantity } from '@torvek/core/quantity';

/** Voltages of one cell: instants, and volts. */
export interface ReadCell {
  id: string;
  samples: [atMs: number, voltageV: number][];
}

export type ReadCells =
  { ok: true; cells: ReadCell[]; thinnedFrom: number | null } | { ok: false; message: string };

/** A cell keeps at most so many readings of one file: more say nothing new about a rest of days. */
const mostSamples = 300;

/**
 * Reads a table of cell voltages: `cell, time, V` a line, or `time` and a column for each cell. Times are ISO 8601 or
 * `YYYY-MM-DD hh:mm`; without a time column all were read now.
 *
 * @param idOf the id of a cell by its tag; undefined: there is none
 */
export function readCellTable(
  text: string,
  idOf: (tag: string) => string | undefined,
  nowMs: number,
  localMs: (text: string) => number,
): ReadCells {
  const { data } = Papa.parse<string[]>(text.trim(), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [';', '\t', ','],
  });
  if (data.length < 1) return { ok: false, message: 'holds no line' };
  const head = data[0]!.map((cell) => cell.trim());
  const timeAt = head.findIndex((name) => /^(time|at|when|date)/i.test(name));
  const cellAt = head.findIndex((name) => /^(cell|name|tag)$/i.test(name));
  const voltAt = head.findIndex((name) => /^(v|volts?|voltage)\b/i.test(name));
  const found = new Map<string, [number, number][]>();
  const add = (tag: string, when: string | undefined, volts: string, line: number): string | null => {
    if (volts.trim() === '') return null;
    const id = idOf(tag.trim());
    if (id === undefined) return `line ${line}: “${tag.trim().slice(0, 40)}” is no cell of this design`;
    const read = parseQuantity(volts, 'V');
    if (!read.ok) return `line ${line}: “${volts.slice(0, 40)}” ${read.message}`;
    if (Math.abs(read.value) > 10) return `line ${line}: ${read.value} V is no cell’s voltage`;
    const at = when === undefined ? nowMs : localMs(when.trim());
    if (Number.isNaN(at)) return `line ${line}: “${when!.slice(0, 40)}” is no time`;
    if (at > nowMs + 60_000) return `line ${line}: ${when} has not come yet`;
    found.set(id, [...(found.get(id) ?? []), [at, read.value]]);
    return null;
  };
  const problem = eachReading(data, head, { timeAt, cellAt, voltAt }, idOf, add);
  if (problem !== null) return { ok: false, message: problem };
  if (found.size === 0) return { ok: false, message: 'holds no voltage' };
  let thinnedFrom: number | null = null;
  const cells = [...found].map(([id, samples]): ReadCell => {
    const rising = [...new Map(samples.sort(([a], [b]) => a - b)).entries()];
    if (rising.length <= mostSamples) return { id, samples: rising };
    thinnedFrom = Math.max(thinnedFrom ?? 0, rising.length);
    return { id, samples: thin(rising) };
  });
  return { ok: true, cells, thinnedFrom };
}

function eachReading(
  data: string[][],
  head: string[],
  { timeAt, cellAt, voltAt }: { timeAt: number; cellAt: number; voltAt: number },
  idOf: (tag: string) => string | undefined,
  add: (tag: string, when: string | undefined, volts: string, line: number) => string | null,
): string | null {
  const whenOf = (row: string[]) => (timeAt < 0 ? undefined : (row[timeAt] ?? ''));
  // Without a head: cell and volts.
  if (head.length === 2 && idOf(head[0]!) !== undefined && parseQuantity(head[1]!, 'V').ok) {
    for (const [i, row] of data.entries()) {
      const bad = add(row[0] ?? '', undefined, row[1] ?? '', i + 1);
      if (bad !== null) return bad;
    }
    return null;
  }
  if (cellAt >= 0 && voltAt >= 0) {
    for (const [i, row] of data.slice(1).entries()) {
      const bad = add(row[cellAt] ?? '', whenOf(row), row[voltAt] ?? '', i + 2);
      if (bad !== null) return bad;
    }
    return null;
  }
  const columns = head.flatMap((name, i) => (i !== timeAt && idOf(name) !== undefined ? [i] : []));
  if (columns.length > 0) {
    for (const [i, row] of data.slice(1).entries())
      for (const column of columns) {
        const bad = add(head[column]!, whenOf(row), row[column] ?? '', i + 2);
        if (bad !== null) return bad;
      }
    return null;
  }
  return 'needs a first line with “cell” and “V”, or with the names of the cells';
}

/** Means of equal stretches of readings: noise falls, the shape stays. */
function thin(samples: [number, number][]): [number, number][] {
  const size = samples.length / mostSamples;
  return Array.from({ length: mostSamples }, (_, i): [number, number] => {
    const own = samples.slice(
      Math.floor(i * size),
      Math.max(Math.floor((i + 1) * size), Math.floor(i * size) + 1),
    );
    const mean = (pick: 0 | 1) => own.reduce((sum, one) => sum + one[pick], 0) / own.length;
    return [Math.round(mean(0)), Number(mean(1).toFixed(6))];
  });
}
