/** A column of a table on paper. */
export interface SheetColumn {
  title: string;
  align?: 'right';
  /** Filled in by hand: so much room is left, mm. */
  handMm?: number;
}

/** A piece of a sheet, in its order. */
export type SheetBlock =
  | { kind: 'heading'; text: string }
  | { kind: 'text'; text: string; tone?: 'warn' | 'soft' }
  | { kind: 'list'; items: string[]; tone?: 'warn'; /** A box to tick before each. */ ticks?: true }
  | { kind: 'facts'; rows: [label: string, value: string][] }
  | { kind: 'table'; columns: SheetColumn[]; rows: string[][] }
  /** What is written by hand at the end: person, day, instrument. */
  | { kind: 'hand'; labels: string[] }
  /** What follows begins on a page of its own. */
  | { kind: 'break' };

/** A sheet to hang on a wall: what it says, not how it is set. */
export interface Sheet {
  id: string;
  title: string;
  /** What it is of and for, in one line. */
  about: string;
  blocks: SheetBlock[];
}
