import { parseQuantity } from '@torvek/core/quantity';
import Papa from 'papaparse';
import { clockOf, dateParts, dayOf, looksBoth, looksDate, looksTime, type DateOrder } from './log-dates';

/** Voltages of one cell: instants, and volts. */
export interface ReadCell {
  id: string;
  samples: [atMs: number, voltageV: number][];
}

/** What a column of a log holds; `each`: voltages of the cell in its heading. */
export const logColumns = ['skip', 'date', 'time', 'cell', 'volts', 'each'] as const;
export type LogColumn = (typeof logColumns)[number];

/** Times that are no clock’s: since the beginning, in this unit. */
export type Elapsed = 's' | 'min' | 'h';

/** How a log is read: as it was guessed, or as somebody said. */
export interface LogChoice {
  columns: LogColumn[];
  dates: DateOrder;
  elapsed: Elapsed | null;
  unit: 'V' | 'mV';
  /** The number of the first cell. */
  firstNumber: number;
  /** Numbers count the cells of this module; null: of the pack, in series order. */
  of: string | null;
}

/** What is known of the cells and of the clock. */
export interface LogSetting {
  idOf(tag: string): string | undefined;
  /** The cell at a place in series order, from 0, of a module or of the pack. */
  nth(index: number, of: string | null): string | undefined;
  nowMs: number;
  /** An instant of the shop’s clock. */
  localMs(year: number, month: number, day: number, hour: number, minute: number, second: number): number;
}

export interface CellLog {
  /** The heading, empty where there is none, and the first lines. */
  head: string[];
  first: string[][];
  choice: LogChoice;
  /** Dates can be read in both orders. */
  eitherOrder: boolean;
  /** Cells are told by number. */
  numbered: boolean;
  /** Its times say no day: when it began must be said. */
  needsBegin: boolean;
  cells: ReadCell[];
  /** Readings that were read, before averaging. */
  count: number;
  /** Most readings of one cell, where they were averaged. */
  thinnedFrom: number | null;
  /** What cannot be read, the first first. */
  problems: string[];
}

/** A cell keeps at most so many readings of one file: more say nothing new about a rest of days. */
const mostSamples = 300;
const mostProblems = 5;

const timeHead = /^(time|at|when|stamp|time ?stamp|elapsed|seconds?|minutes?|hours?|clock|t)\b/i;
const dateHead = /^(date|day)$/i;
const datedHead = /^date/i;
const cellHead = /^(cell( ?(no\.?|number|name|id))?|name|tag|no\.?|nr\.?|#|channel|ch)$/i;
const voltHead = /^(m?v|volts?|voltage|u)([ ,/([]+m?v\b.*)?$|^(cell )?voltage\b/i;
const numberedHead =
  /^(?:cell|channel|ch|c|vc|v|u)?[ _.#-]*0*(\d{1,3})(?:[ _,([]*(?:m?v|volts?|voltage)[)\]]?)?$/i;

const numberIn = (text: string): number | null => {
  const found = numberedHead.exec(text);
  return found === null ? null : Number(found[1]);
};

/** One table out of a file: what stands before its heading is left out. */
function tableOf(text: string): { head: string[]; body: string[][]; lines: number[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trimEnd(), {
    skipEmptyLines: false,
    delimitersToGuess: [';', '\t', ',', '|'],
  });
  const rows = data.map((row) => row.map((cell) => cell.trim()));
  const isHead = (row: string[]) =>
    row.length > 1 &&
    row.filter(
      (cell) => timeHead.test(cell) || datedHead.test(cell) || cellHead.test(cell) || voltHead.test(cell),
    ).length > 0 &&
    row.every((cell) => !/^[-+]?\d+([.,]\d+)?$/.test(cell) || numberIn(cell) !== null) &&
    !row.some((cell) => /\d[:.]\d\d[:.]\d\d/.test(cell));
  const known = rows.slice(0, 40).findIndex(isHead);
  // Headings that nobody knows have no digits: a reading has.
  const unknown = rows[0] !== undefined && rows[0].length > 1 && rows[0].every((cell) => !/\d/.test(cell));
  const at = known < 0 && unknown ? 0 : known;
  const kept = rows
    .map((row, i) => ({ row, line: i + 1 }))
    .slice(at + 1)
    .filter(({ row }) => row.some((cell) => cell !== ''));
  return {
    head: at < 0 ? [] : rows[at]!,
    body: kept.map(({ row }) => row),
    lines: kept.map(({ line }) => line),
  };
}

function guessed(head: string[], body: string[][], setting: LogSetting): LogChoice {
  const width = Math.max(head.length, ...body.slice(0, 50).map(({ length }) => length), 0);
  const some = (i: number) => body.slice(0, 50).flatMap((row) => (row[i] ? [row[i]] : []));
  const all = (i: number, is: (text: string) => boolean) => some(i).length > 0 && some(i).every(is);
  const isVolts = (text: string) => {
    const read = parseQuantity(text, 'V');
    return read.ok && ((read.value > 0.5 && read.value < 6) || (read.value > 500 && read.value < 6000));
  };
  const columns = Array.from({ length: width }, (_, i): LogColumn => {
    const name = head[i] ?? '';
    if (all(i, looksBoth)) return 'time';
    if (dateHead.test(name) || all(i, looksDate)) return all(i, looksBoth) ? 'time' : 'date';
    if (timeHead.test(name) || datedHead.test(name) || all(i, looksTime)) return 'time';
    if (setting.idOf(name) !== undefined) return 'each';
    if (cellHead.test(name)) return 'cell';
    if (voltHead.test(name)) return 'volts';
    if (name !== '' && numberIn(name) !== null && all(i, isVolts)) return 'each';
    if (head.length > 0) return 'skip';
    if (all(i, (text) => setting.idOf(text) !== undefined)) return 'cell';
    return all(i, isVolts) ? 'volts' : 'skip';
  });
  if (head.length === 0 && !columns.includes('cell')) {
    // A number of a cell may be a voltage as well: whole ones are numbers where something else is a voltage.
    const numbers = columns.findIndex((_one, i) => all(i, (text) => /^\d{1,3}$/.test(text)));
    const others = columns.some((one, i) => one === 'volts' && i !== numbers);
    if (numbers >= 0 && others) columns[numbers] = 'cell';
  }
  // The first of each counts: a list has a maximum and a mean beside the voltage.
  for (const one of ['time', 'date', 'cell', 'volts'] as const) {
    const at = columns.indexOf(one);
    columns.forEach((column, i) => {
      if (column === one && i > at) columns[i] = 'skip';
    });
  }
  const timeAt = columns.indexOf('time');
  const numeric = timeAt >= 0 && all(timeAt, (text) => /^\d+([.,]\d+)?$/.test(text));
  const inHead = (pattern: RegExp) => timeAt >= 0 && pattern.test(head[timeAt] ?? '');
  const elapsed = !numeric ? null : inHead(/\bh(ours?)?\b/i) ? 'h' : inHead(/\bmin(utes?)?\b/i) ? 'min' : 's';
  const dates = body.slice(0, 2000).flatMap((row) => dateParts(dateTextOf(row, columns)) ?? []);
  const monthFirst = dates.some(({ b, yearLast }) => yearLast && b > 12);
  const voltsAt = columns.findIndex((one) => one === 'volts' || one === 'each');
  const cellAt = columns.indexOf('cell');
  const numbers = [
    ...(cellAt < 0 ? [] : some(cellAt)),
    ...columns.flatMap((one, i) => (one === 'each' ? [head[i] ?? ''] : [])),
  ].flatMap((text) => numberIn(text) ?? []);
  return {
    columns,
    dates: monthFirst ? 'month first' : 'day first',
    elapsed,
    unit: /\bm ?v\b|millivolt/i.test(head[voltsAt] ?? '') ? 'mV' : unitOf(voltsAt < 0 ? [] : some(voltsAt)),
    firstNumber: numbers.includes(0) ? 0 : 1,
    of: null,
  };
}

/** Thousands are millivolts: no cell has a hundred volts. */
export function unitOf(texts: readonly string[]): 'V' | 'mV' {
  const read = texts.flatMap((text) => {
    const value = parseQuantity(text, 'V');
    return value.ok ? [value.value] : [];
  });
  return read.length > 0 && read.every((value) => value > 100) ? 'mV' : 'V';
}

const dateTextOf = (row: string[], columns: readonly LogColumn[]): string =>
  row[columns.indexOf('date')] ?? row[columns.indexOf('time')] ?? '';

/** When a log began. */
interface Begin {
  day: [year: number, month: number, day: number];
  ms: number;
}

/** As somebody typed it: a day, with a time or without. */
function beginOf(text: string, order: DateOrder, { localMs }: Pick<LogSetting, 'localMs'>): Begin | null {
  const trimmed = text.trim();
  const day = dayOf(trimmed, order);
  const clock = clockOf(trimmed) ?? (/^\S+$/.test(trimmed) ? ([0, 0, 0] as const) : null);
  return day === null || clock === null ? null : { day, ms: localMs(...day, ...clock) };
}

/**
 * Reads a list of cell voltages as a monitor or a logger puts it out: a line for each reading or a column for each cell, cells by name
 * or by number, times with a day, without one, or counted from the beginning.
 *
 * @param asked what somebody chose; otherwise it is guessed
 * @param begin when it began, where its times do not say
 */
export function readCellLog(
  text: string,
  setting: LogSetting,
  asked: LogChoice | null = null,
  begin = '',
): CellLog {
  const { head, body, lines } = tableOf(text);
  const guess = guessed(head, body, setting);
  const choice = asked !== null && asked.columns.length === guess.columns.length ? asked : guess;
  const { columns, dates, elapsed, unit, firstNumber, of } = choice;
  const at = (one: LogColumn) => columns.indexOf(one);
  const [dateAt, timeAt, cellAt, voltsAt] = [at('date'), at('time'), at('cell'), at('volts')];
  const problems: string[] = [];
  let wrong = 0;
  const problem = (line: number, message: string) => {
    wrong += 1;
    if (problems.length < mostProblems) problems.push(`line ${lines[line]}: ${message}`);
  };
  let numbered = false;
  const cellOf = (name: string): string | undefined => {
    const known = setting.idOf(name);
    if (known !== undefined) return known;
    const number = numberIn(name);
    if (number === null) return undefined;
    numbered = true;
    return setting.nth(number - firstNumber, of);
  };
  const timed = timeAt >= 0 || dateAt >= 0;
  const times = body.slice(0, 20).map((row) => row[timeAt] ?? '');
  const dated = dateAt >= 0 || times.some((one) => dateParts(one) !== null);
  const needsBegin = timed && (elapsed !== null || (!dated && times.some((one) => clockOf(one) !== null)));
  const began = needsBegin ? beginOf(begin, dates, setting) : null;
  if (needsBegin && began === null)
    problems.push(
      begin.trim() === ''
        ? 'its times have no day: say when it began'
        : `“${begin.trim()}” is no day and time`,
    );
  if (cellAt < 0 && at('each') < 0) problems.push('no column names the cells');
  if (cellAt >= 0 && voltsAt < 0) problems.push('no column holds the voltages');

  const instants = instantReader(choice, { dateAt, timeAt, began }, setting);
  const found = new Map<string, [number, number][]>();
  let count = 0;
  const add = (line: number, name: string, volts: string, atMs: number) => {
    if (volts === '' || /^(-+|n\/?a|nan)$/i.test(volts)) return;
    const id = cellOf(name);
    if (id === undefined) return problem(line, `“${name.slice(0, 40)}” is no cell of this design`);
    const read = parseQuantity(volts, unit);
    if (!read.ok) return problem(line, `“${volts.slice(0, 40)}” ${read.message}`);
    const value = unit === 'mV' ? read.value / 1000 : read.value;
    if (Math.abs(value) > 10) return problem(line, `${value} V is no cell’s voltage`);
    count += 1;
    const own = found.get(id);
    if (own === undefined) found.set(id, [[atMs, Number(value.toPrecision(12))]]);
    else own.push([atMs, Number(value.toPrecision(12))]);
  };
  if (problems.length === 0)
    for (const [line, row] of body.entries()) {
      const when = timed ? instants(row) : setting.nowMs;
      if (typeof when === 'string') problem(line, when);
      else if (when > setting.nowMs + 60_000) problem(line, `${dateTextOf(row, columns)} has not come yet`);
      else if (cellAt >= 0) add(line, row[cellAt] ?? '', row[voltsAt] ?? '', when);
      else columns.forEach((one, i) => one === 'each' && add(line, head[i] ?? '', row[i] ?? '', when));
    }
  if (wrong > problems.length) problems.push(`and ${wrong - problems.length} more`);
  if (problems.length === 0 && count === 0) problems.push('holds no voltage');
  const orders = body.flatMap((row) => dateParts(dateTextOf(row, columns)) ?? []);
  let thinnedFrom: number | null = null;
  const cells = [...found].map(([id, samples]): ReadCell => {
    const rising = [...new Map(samples.sort(([a], [b]) => a - b)).entries()];
    if (rising.length <= mostSamples) return { id, samples: rising };
    thinnedFrom = Math.max(thinnedFrom ?? 0, rising.length);
    return { id, samples: thin(rising) };
  });
  return {
    head,
    first: body.slice(0, 4),
    choice,
    eitherOrder:
      orders.some(({ yearLast }) => yearLast) &&
      orders.every(({ a, b, yearLast }) => yearLast && a <= 12 && b <= 12),
    numbered:
      numbered ||
      [...(cellAt < 0 ? [] : body.slice(0, 20).map((row) => row[cellAt] ?? ''))].some(
        (name) => setting.idOf(name) === undefined && numberIn(name) !== null,
      ),
    needsBegin,
    cells,
    count,
    thinnedFrom,
    problems,
  };
}

/** Reads the instant of one line after the other; a clock without a day goes on into the next one at midnight. */
function instantReader(
  { dates, elapsed }: LogChoice,
  { dateAt, timeAt, began }: { dateAt: number; timeAt: number; began: Begin | null },
  { localMs }: LogSetting,
): (row: string[]) => number | string {
  let day = 0;
  let last = -Infinity;
  const unitMs = { s: 1000, min: 60_000, h: 3_600_000 };
  return (row) => {
    const time = row[timeAt] ?? '';
    const no = (text: string) => `“${text.slice(0, 40)}” is no time`;
    if (elapsed !== null) {
      const since = Number(time.replace(',', '.'));
      return time === '' || !Number.isFinite(since) ? no(time) : began!.ms + since * unitMs[elapsed];
    }
    const iso = /^\d{4}-\d{2}-\d{2}T.*(Z|[+-]\d{2}:?\d{2})$/.test(time) ? Date.parse(time) : NaN;
    if (!Number.isNaN(iso)) return iso;
    const clock = timeAt < 0 ? ([0, 0, 0] as [number, number, number]) : clockOf(time);
    const dayText = dateAt >= 0 ? (row[dateAt] ?? '') : time;
    if (clock === null) return no(time);
    if (began === null || dateAt >= 0) {
      const on = dayOf(dayText, dates);
      return on === null ? no(dayText) : localMs(...on, ...clock);
    }
    const ofDay = (clock[0] * 3600 + clock[1] * 60 + clock[2]) * 1000;
    if (ofDay < last - 12 * 3_600_000) day += 1;
    last = ofDay;
    const [year, month, first] = began.day;
    return localMs(year, month, first + day, ...clock);
  };
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
