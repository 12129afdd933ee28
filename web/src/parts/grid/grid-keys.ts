/** A key as it was pressed. */
export interface PressedKey {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
  altKey: boolean;
}

/** What a key does in a grid whose cell is active but not being edited. */
export type GridAct =
  /** By so many rows and columns; `extend` keeps the other corner of the block. */
  | { act: 'move'; rows: number; columns: number; extend: boolean }
  /** To a column, and to a row where one is said. */
  | { act: 'go'; row: 'first' | 'last' | 'same'; column: 'first' | 'last'; extend: boolean }
  /** To the next cell in reading order or the one before; past the last one the focus leaves the grid. */
  | { act: 'step'; by: 1 | -1 }
  /** Edits the cell, beginning with a text; null: with what stands in it. */
  | { act: 'edit'; text: string | null }
  | { act: 'press' | 'clear' | 'collapse' | 'fill-down' | 'select-all' };

const arrows: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
/** Further than any grid is long. */
const far = 10_000;

/**
 * What a key asks for, as people expect of a table.
 *
 * @param editable whether the active cell can be typed into: one that holds a control is pressed by space instead
 * @returns null for keys that are none of the grid’s
 */
export function gridAct(
  { key, ctrlKey, metaKey, shiftKey, altKey }: PressedKey,
  editable: boolean,
): GridAct | null {
  const command = ctrlKey || metaKey;
  if (altKey) return null;
  const arrow = arrows[key];
  if (arrow !== undefined) {
    const by = command ? far : 1;
    return { act: 'move', rows: arrow[0] * by, columns: arrow[1] * by, extend: shiftKey };
  }
  switch (key) {
    case 'Tab':
      return { act: 'step', by: shiftKey ? -1 : 1 };
    case 'Home':
      return { act: 'go', row: command ? 'first' : 'same', column: 'first', extend: shiftKey };
    case 'End':
      return { act: 'go', row: command ? 'last' : 'same', column: 'last', extend: shiftKey };
    case 'Enter':
    case 'F2':
      return { act: 'edit', text: null };
    case 'Delete':
    case 'Backspace':
      return { act: 'clear' };
    case 'Escape':
      return { act: 'collapse' };
  }
  if (command) {
    const letter = key.toLowerCase();
    if (letter === 'd') return { act: 'fill-down' };
    return letter === 'a' ? { act: 'select-all' } : null;
  }
  if (key === ' ' && !editable) return { act: 'press' };
  return key.length === 1 ? { act: 'edit', text: key } : null;
}

/** How a key leaves a cell that is being edited, and where to; null: the key belongs to what is typed. */
export type LeavingAct =
  { keep: false } | { keep: true; to: 'next' | 'before' } | { keep: true; to: 'rows'; rows: 1 | -1 };

export function leavingAct({ key, shiftKey }: Pick<PressedKey, 'key' | 'shiftKey'>): LeavingAct | null {
  switch (key) {
    case 'Enter':
      return { keep: true, to: 'rows', rows: shiftKey ? -1 : 1 };
    case 'Tab':
      return { keep: true, to: shiftKey ? 'before' : 'next' };
    case 'ArrowUp':
      return { keep: true, to: 'rows', rows: -1 };
    case 'ArrowDown':
      return { keep: true, to: 'rows', rows: 1 };
    case 'Escape':
      return { keep: false };
    default:
      return null;
  }
}
