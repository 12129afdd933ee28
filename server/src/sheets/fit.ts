import type { SheetColumn } from '@torvek/core/sheets';
import type { Measure } from './type';

/** Points of a millimetre. */
export const ptPerMm = 72 / 25.4;
/** Left and right of the text in a cell, pt. */
export const cellPadPt = 3;
/** Of the lines between columns, pt. */
export const rulePt = 0.6;
/** Sizes of type that a table is tried in, pt. */
export const tableSizesPt = [8.5, 8, 7.5, 7, 6.5] as const;

export interface TableText {
  columns: readonly SheetColumn[];
  rows: readonly (readonly string[])[];
}

/** A table that fits: its type, and the width of each column with its padding. */
export interface Fitted {
  sizePt: number;
  widthsPt: number[];
}

const words = (text: string) => text.split(/\s+/).filter((word) => word !== '');

/** The widest of some texts, pt of type of 1 pt. */
const widest = (texts: readonly string[], measure: Measure, bold: boolean) =>
  texts.reduce((most, text) => Math.max(most, measure(text, bold)), 0);

/**
 * Widths of columns in which no word is cut: each at least its longest word, what is left over given to those whose lines would be
 * broken. Tried in ever smaller type.
 *
 * @returns null when not even the smallest type fits
 */
export function fitTable(
  { columns, rows }: TableText,
  roomPt: number,
  measure: Measure,
  sizesPt: readonly number[] = tableSizesPt,
): Fitted | null {
  const cells = columns.map((_, i) => rows.map((row) => row[i] ?? ''));
  // Per point of type: they grow with it.
  const least = columns.map(({ title }, i) =>
    Math.max(widest(words(title), measure, true), widest(cells[i]!.flatMap(words), measure, false)),
  );
  const whole = columns.map(({ title }, i) =>
    Math.max(measure(title, true), widest(cells[i]!, measure, false)),
  );
  for (const sizePt of sizesPt) {
    const needs = (of: readonly number[]) =>
      columns.map(({ handMm = 0 }, i) => Math.max(of[i]! * sizePt + 0.5, handMm * ptPerMm) + 2 * cellPadPt);
    const min = needs(least);
    const left = roomPt - rulePt * (columns.length + 1) - min.reduce((sum, one) => sum + one, 0);
    if (left < 0) continue;
    const wish = needs(whole).map((one, i) => Math.max(0, one - min[i]!));
    const wished = wish.reduce((sum, one) => sum + one, 0);
    const share = wished === 0 ? 0 : Math.min(1, left / wished);
    return { sizePt, widthsPt: min.map((one, i) => one + wish[i]! * share) };
  }
  return null;
}

/**
 * A table that fits nowhere as one: its columns on several tables, each of which begins with the first column again.
 *
 * @throws Error when a single column beside the first is wider than the page
 */
export function splitTable({ columns, rows }: TableText, roomPt: number, measure: Measure): TableText[] {
  const pieces: TableText[] = [];
  let from = 1;
  while (from < columns.length) {
    let to = columns.length;
    const piece = () => ({
      columns: [columns[0]!, ...columns.slice(from, to)],
      rows: rows.map((row) => [row[0] ?? '', ...row.slice(from, to)]),
    });
    while (to > from + 1 && fitTable(piece(), roomPt, measure) === null) to -= 1;
    pieces.push(piece());
    from = to;
  }
  return pieces;
}

/** Lines of a text in a width: broken between words alone; a word longer than the line stands on one of its own. */
export function lines(
  text: string,
  widthPt: number,
  sizePt: number,
  measure: Measure,
  bold = false,
): string[] {
  return text.split('\n').flatMap((paragraph) => {
    const made: string[] = [];
    let line = '';
    for (const word of words(paragraph)) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (line !== '' && measure(longer, bold) * sizePt > widthPt) {
        made.push(line);
        line = word;
      } else line = longer;
    }
    return [...made, line];
  });
}
