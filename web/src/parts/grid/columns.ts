import { setAt, valueOf } from '@torvek/core/document';
import type { PartKind } from '@torvek/core/parts';
import { formatNumber, type ShownIn } from '@torvek/core/quantity';
import { readReading } from '../reading';

/** A column of an editing grid. A cell that edits something has a path into the design. */
export interface GridColumn<Row> {
  id: string;
  title: string;
  /**
   * Cells that edit a number or a text; `choice` and `part` ones choose one of several; `fixed` ones show, `slot` ones
   * hold controls of their own.
   */
  kind: 'number' | 'text' | 'choice' | 'part' | 'fixed' | 'slot';
  /** What a choice offers. */
  choices?(row: Row): readonly { value: string | number | boolean; text: string }[];
  /** What it says while nothing is chosen: a default is said to be one. */
  none?(row: Row): string;
  /** The kind of part that is chosen. */
  part?: PartKind;
  /** How a choice is spoken: its label before the row’s name, unless this says it better. */
  spoken?(row: Row): string;
  unit?: string;
  /** Stored value over shown value. */
  scale?: number;
  /** Of a slot: its controls depend on their row alone. */
  still?: boolean;
  /** Where a cell's value lies in the design; null for a row that has none there. */
  path?(row: Row): string | null;
  /**
   * Of a number that an instrument reads: where it lies that its range ended there. Such a column takes “>” with the end of the range;
   * without it a number is a number.
   */
  over?(row: Row): string | null;
  /** Spoken before the row's name. */
  label: string;
  /** What a fixed cell shows. */
  text?(row: Row): string;
  /** Text that may not be empty. */
  required?: boolean;
  width?: string;
}

/** A number as it is shown and typed: short where nothing is lost by it, or where it was converted by choice. */
export function shownNumber(
  value: number | undefined,
  { scale, offset, converted }: { scale: number; offset: number; converted: boolean },
): string {
  if (value === undefined) return '';
  const shown = value / scale + offset;
  const short = formatNumber(shown, 6);
  if (converted) return short;
  const same = Math.abs(Number(short) - shown) <= Math.abs(shown) * 1e-9;
  return same ? short : String(Number(shown.toPrecision(12)));
}

export type ReadCell =
  | {
      ok: true;
      value: number | string | undefined;
      /** The range of the instrument ended there. */ over?: boolean;
    }
  | { ok: false; message: string };

/** Reads what was typed into a cell. */
export function readCell(
  { kind, required = false, over }: Pick<GridColumn<never>, 'kind' | 'required' | 'over'>,
  text: string,
  { unit, scale, offset }: ShownIn,
): ReadCell {
  const trimmed = text.trim();
  if (kind === 'text') {
    if (trimmed === '' && required) return { ok: false, message: 'must not be empty' };
    return { ok: true, value: trimmed === '' ? undefined : trimmed.slice(0, 200) };
  }
  if (trimmed === '') return { ok: true, value: undefined };
  const parsed = readReading(trimmed, unit);
  if (!parsed.ok) return { ok: false, message: parsed.message };
  if (parsed.over && over === undefined) return { ok: false, message: 'is no number' };
  const stored = Number(((parsed.value - offset) * scale).toPrecision(15));
  if (Math.abs(stored) > 1e9) return { ok: false, message: 'is beyond ±1e9' };
  return { ok: true, value: stored, ...(over !== undefined && { over: parsed.over }) };
}

/** The parts that a grid can choose from: those of the design, and the shop’s. */
export interface PartShelf {
  /** What a part is called; empty: it is not known. */
  nameOf(key: string): string;
  /** By its key or its name; null: there is none of this kind. */
  find(kind: PartKind, text: string): { key: string } | null;
  /** Pins it in a draft. */
  put(draft: object, key: string): void;
  /** Takes out of a draft what nothing uses any more. */
  tidy(draft: object): void;
}

/** A document that a grid edits: the design, or a sheet of its own with the same ways. */
export interface GridSheet {
  /** With what is being typed. */
  shown: object;
  /** Without it. */
  committed: object;
  editable: boolean;
  parts?: PartShelf;
  change(label: string, recipe: (draft: object) => void): void;
  /** Takes the last gesture back, or forth again; absent where the design’s own undo does. */
  undo?(again: boolean): void;
  preview(recipe: ((draft: object) => void) | null): void;
}

/** What a cell shows of its sheet. */
export function cellText<Row>(
  sheet: object,
  column: GridColumn<Row>,
  row: Row,
  as: ShownIn & { converted: boolean },
): string {
  if (column.kind === 'fixed') return column.text?.(row) ?? '';
  const path = column.path?.(row) ?? null;
  if (path === null) return column.text?.(row) ?? '';
  const value = valueOf(sheet, path);
  if (column.kind === 'choice') return column.choices?.(row).find((one) => one.value === value)?.text ?? '';
  if (column.kind === 'number') {
    const text = shownNumber(value as number | undefined, as);
    const flag = column.over?.(row) ?? null;
    return text !== '' && flag !== null && valueOf(sheet, flag) === true ? `>${text}` : text;
  }
  return (value as string | undefined) ?? '';
}

/** Cells as they lie on the clipboard: rows by line, cells by tab. */
export const readBlock = (text: string): string[][] =>
  text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'));

/** Reads what was pasted into a cell that chooses one of several: by its words, whatever their case. */
export function readChoice<Row>(
  column: Pick<GridColumn<Row>, 'choices' | 'none'>,
  row: Row,
  text: string,
): { ok: true; value: number | string | boolean | undefined } | { ok: false; message: string } {
  const same = (words: string | undefined) => words?.toLowerCase() === text.trim().toLowerCase();
  if (text.trim() === '' || same(column.none?.(row))) return { ok: true, value: undefined };
  const offered = column.choices?.(row) ?? [];
  const found = offered.find((one) => same(one.text));
  if (found !== undefined) return { ok: true, value: found.value };
  const words = offered.slice(0, 4).map((one) => one.text);
  return {
    ok: false,
    message: `is none of ${words.join(', ')}${offered.length > words.length ? ' …' : ''}`,
  };
}

export interface CellEdit {
  path: string;
  value: number | string | boolean | undefined;
  /** A part, which is pinned with it. */
  isPart?: true;
}

/** Puts the edits of one gesture into a draft. */
export function applyEdits(draft: object, edits: readonly CellEdit[]): void {
  for (const { path, value } of edits) setAt(draft, path, value);
}
