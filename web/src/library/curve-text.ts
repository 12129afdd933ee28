import type { TableField } from '@torvek/core/parts';

export type ReadCurve = { ok: true; rows: [number, number][] } | { ok: false; message: string };

/**
 * Reads a curve as it is typed or pasted: a point a line, two numbers parted by a tab, a semicolon or blanks. A comma is
 * decimal; it parts the numbers only where they carry points. A line of names on top is passed over.
 */
export function readCurve(text: string): ReadCurve {
  const lines = text
    .split(/\r?\n/)
    .map((line, i) => ({ at: i + 1, line: line.trim() }))
    .filter(({ line }) => line !== '');
  const named = lines.length > 1 && !/\d/.test(lines[0]!.line.replace(/[a-z°²]+\d*/gi, ''));
  const rows: [number, number][] = [];
  for (const { at, line } of named ? lines.slice(1) : lines) {
    const cells = cellsOf(line);
    const numbers = cells.map((cell) => Number(cell.replace(',', '.')));
    if (cells.length !== 2 || numbers.some((value) => !Number.isFinite(value)))
      return {
        ok: false,
        message: `Line ${at}: “${line.slice(0, 40)}” is not two numbers${
          /^\S+,\S+$/.test(line) ? '; a comma is decimal, part them by a blank' : ''
        }.`,
      };
    rows.push(numbers as [number, number]);
  }
  if (rows.length === 0) return { ok: false, message: 'A curve has at least one point.' };
  return { ok: true, rows };
}

function cellsOf(line: string): string[] {
  const byBlank = line.split(/\s*[\t;]\s*|\s+/).filter((cell) => cell !== '');
  if (byBlank.length > 1) return byBlank.map((cell) => cell.replace(/,$/, ''));
  const byComma = line.split(',');
  return byComma.length === 2 && line.includes('.') ? byComma : byBlank;
}

/** A curve as lines of text. */
export const curveText = (rows: readonly (readonly [number, number])[]): string =>
  rows.map(([x, y]) => `${x} ${y}`).join('\n');

/** The head of the columns, with units. */
export const columnHead = ({ columns }: TableField): string =>
  columns
    .map(({ label, unit }) => (unit === '' || unit === 'fraction' ? label : `${label}, ${unit}`))
    .join(' · ');

/** Sorted by the first column, one point for each. */
export function inOrder(rows: readonly [number, number][]): [number, number][] {
  const sorted = [...rows].sort((a, b) => a[0] - b[0]);
  return sorted.filter(([x], i) => i === 0 || x !== sorted[i - 1]![0]);
}

/** To as many digits as reading off a picture gives. */
export const rounded = (value: number): number => Number(value.toPrecision(3));
