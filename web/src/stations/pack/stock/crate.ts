import Papa from 'papaparse';
import { readReading } from '../../../parts/reading';
import { measures, type Measure } from '../intake/sheet';

/** What is read of a thing as it comes in; a second voltage takes a wait. */
export const onArrival = measures.filter(({ field }) => field !== 'restedV');
/** What a column of a pasted crate holds. */
export const crateColumns = [
  'serial' as const,
  ...onArrival.map(({ field }) => field),
  'note' as const,
  'skip' as const,
];
export type CrateColumn = 'serial' | Measure['field'] | 'note' | 'skip';

export interface CrateRow {
  serial?: string;
  note?: string;
  values: Partial<Record<Measure['field'], number>>;
  /** Readings at which the range of the instrument ended. */
  over?: Partial<Record<Measure['field'], true>>;
}

export interface Crate {
  /** Cells as they were pasted, without a heading. */
  cells: string[][];
  columns: CrateColumn[];
  rows: CrateRow[];
  /** What cannot be read, by row and column. */
  problems: string[];
}

/** Words of headings by which a column is known. */
const heads: [CrateColumn, RegExp][] = [
  ['serial', /serial|s\/?n\b|number|code|^id$/i],
  ['sensorOhm', /sensor|ntc|therm/i],
  ['voltageV', /volt|ocv|^u\b|^v$/i],
  ['insulationMOhm', /[Ii]nsul|\b[Ii]so|[Mm]ega\s?[Oo]hm|MΩ/],
  ['resistanceOhm', /resist|dcir|^r\b|milli\s?ohm|mΩ/i],
  ['capacityAh', /capac|\bah\b/i],
  ['note', /note|remark|look|comment/i],
];
const usual: CrateColumn[] = ['serial', 'voltageV', 'capacityAh', 'resistanceOhm', 'insulationMOhm', 'note'];
/** Of parts that are not measured on arrival. */
export const plainColumns: CrateColumn[] = ['serial', 'note', 'skip'];

/** A comma is decimal where columns are parted by tabs or semicolons. */
const decimal = (text: string, delimiter: string) =>
  delimiter === ',' ? text : text.replace(/^([>≥]?\s*-?\d+),(\d+)/, '$1.$2');

/**
 * Reads a list of things as it comes out of a sheet or a mail: columns by tab, semicolon or comma, with a heading or without.
 *
 * @param offered what columns may hold: what is not offered is not read
 * @param asked what each column holds, where somebody said so; otherwise by the heading, else in the usual order
 */
export function readCrate(
  text: string,
  asked: readonly (CrateColumn | undefined)[] = [],
  offered: readonly CrateColumn[] = crateColumns,
): Crate {
  const delimiter = ['\t', ';'].find((one) => text.includes(one)) ?? ',';
  const { data } = Papa.parse<string[]>(text.trim(), { delimiter, skipEmptyLines: 'greedy' });
  const table = data.map((row) => row.map((cell) => cell.trim()));
  const [first = []] = table;
  const known = first.map((cell) => heads.find(([, pattern]) => pattern.test(cell))?.[0]);
  const headed =
    first.length > 0 && first.every((cell) => !/\d/.test(cell)) && known.some((one) => one !== undefined);
  const cells = headed ? table.slice(1) : table;
  const width = Math.max(0, ...table.map(({ length }) => length));
  const columns = Array.from({ length: width }, (_, i): CrateColumn => {
    const column = asked[i] ?? (headed ? known[i] : usual.filter((one) => offered.includes(one))[i]);
    return column !== undefined && offered.includes(column) ? column : 'skip';
  });
  const problems: string[] = [];
  const seen = new Map<string, number>();
  const rows = cells.map((row, r): CrateRow => {
    const made: CrateRow = { values: {} };
    columns.forEach((column, c) => {
      const cell = row[c] ?? '';
      if (cell === '' || column === 'skip') return;
      if (column === 'serial') {
        const before = seen.get(cell);
        if (before !== undefined) problems.push(`row ${r + 1}: ${cell} stands in row ${before + 1} already`);
        seen.set(cell, r);
        made.serial = cell.slice(0, 80);
      } else if (column === 'note') made.note = cell.slice(0, 400);
      else {
        const { unit, scale, title } = measures.find(({ field }) => field === column)!;
        const read = readReading(decimal(cell, delimiter), unit);
        if (read.ok) {
          made.values[column] = Number((read.value * scale).toPrecision(15));
          if (read.over) made.over = { ...made.over, [column]: true };
        } else problems.push(`row ${r + 1}, ${title}: “${cell}” ${read.message}`);
      }
    });
    return made;
  });
  return { cells, columns, rows, problems };
}
