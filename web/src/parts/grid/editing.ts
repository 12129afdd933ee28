import { valueOf } from '@torvek/core/document';
import { computed, ref, type Ref } from 'vue';
import { useUnits } from '../../stores/units';
import {
  applyEdits,
  cellText,
  readBlock,
  readCell,
  readChoice,
  type CellEdit,
  type GridColumn,
  type GridSheet,
  type ReadCell,
} from './columns';
import type { useSelection } from './selection';

/** Rows that a pasted list may add: how many of the first are of that kind, and how another comes to be. */
export interface Growing<Row> {
  own: number;
  /** One that is not in the sheet yet. */
  row(): Row;
  make(draft: object, rows: readonly Row[]): void;
}

interface CellText<Row> {
  row: number;
  column: number;
  text: string;
  /** Of a row that is only being added. */
  item?: Row;
}

interface Grid<Row> {
  label(): string;
  rows: Ref<Row[]>;
  columns: Ref<GridColumn<Row>[]>;
  selection: ReturnType<typeof useSelection>;
  sheet: GridSheet;
  /** Absent: a list that is longer than the table is cut. */
  grow?(): Growing<Row> | undefined;
}

/** What is typed, pasted, filled and emptied in a grid: each gesture is one change of its sheet. */
export function useEditing<Row extends { id: string; name: string }>({
  label,
  rows,
  columns,
  selection,
  sheet,
  grow,
}: Grid<Row>) {
  const units = useUnits();
  const { at } = selection;
  /** Asked for every cell: worked out once per column. */
  const shownOf = computed(
    () => new Map(columns.value.map((column) => [column, units.field(column.unit, column.scale)])),
  );
  const shownAs = (column: GridColumn<Row>) =>
    shownOf.value.get(column) ?? units.field(column.unit, column.scale);
  /** What stood in the cell when editing began: left as it was it is no edit. */
  let began = '';
  /** The text of the cell that is being edited; null: none is. */
  const editing = ref<string | null>(null);
  /** Text that could not be read, by path: it stays in its cell. */
  const refused = ref<Record<string, { text: string; message: string }>>({});
  const note = ref<string | null>(null);

  const pathAt = (row: number, column: number): string | null => {
    const item = rows.value[row];
    return item === undefined ? null : (columns.value[column]?.path?.(item) ?? null);
  };
  const editable = (row: number, column: number) =>
    sheet.editable &&
    pathAt(row, column) !== null &&
    ['number', 'text'].includes(columns.value[column]!.kind);
  /** Pasted into, filled and emptied: a choice and a part too, which are not typed. */
  const fills = (column: number) =>
    sheet.editable && ['number', 'text', 'choice', 'part'].includes(columns.value[column]!.kind);
  const textAt = (row: number, column: number) => {
    const path = pathAt(row, column);
    const bad = path === null ? undefined : refused.value[path];
    if (columns.value[column]?.kind === 'part' && path !== null)
      return bad?.text ?? sheet.parts?.nameOf((valueOf(sheet.shown, path) as string | undefined) ?? '') ?? '';
    return (
      bad?.text ??
      cellText(sheet.shown, columns.value[column]!, rows.value[row]!, shownAs(columns.value[column]!))
    );
  };

  /** Makes one change of all edits of a gesture, with the rows that it needs. */
  function make(edits: CellEdit[], label: string, added: readonly Row[] = []): void {
    const changed = edits.filter(({ path, value }) => valueOf(sheet.committed, path) !== value);
    if (changed.length === 0) return;
    const parts = changed.filter(({ isPart }) => isPart);
    sheet.change(label, (draft) => {
      if (added.length > 0) grow?.()?.make(draft, added);
      for (const { value } of parts) if (value !== undefined) sheet.parts?.put(draft, String(value));
      applyEdits(draft, changed);
      if (parts.length > 0) sheet.parts?.tidy(draft);
    });
  }

  /** Begins to edit the active cell with a text; false where nothing is edited. */
  function start(text: string): boolean {
    const { row, column } = at.value;
    if (!editable(row, column)) return false;
    began = textAt(row, column);
    editing.value = text;
    preview();
    return true;
  }

  /** Shows what would follow from what is being typed. */
  function preview(): void {
    const path = pathAt(at.value.row, at.value.column);
    const column = columns.value[at.value.column]!;
    const read = readCell(column, editing.value ?? '', shownAs(column));
    const usable = path !== null && read.ok && column.kind === 'number';
    sheet.preview(usable ? (draft) => applyEdits(draft, [{ path, value: read.value }]) : null);
  }

  function commit(): void {
    if (editing.value === null) return;
    const text = editing.value;
    const { row, column } = at.value;
    const path = pathAt(row, column)!;
    editing.value = null;
    sheet.preview(null);
    if (text === began) return;
    write([{ row, column, text }], () => {
      const { title } = columns.value[column]!;
      const { unit } = shownAs(columns.value[column]!);
      const said = text.trim() === '' ? 'not given' : `${text.trim()}${unit ? ` ${unit}` : ''}`;
      return `${rows.value[row]!.name}, ${title}: ${said}`;
    });
    if (refused.value[path] === undefined) note.value = null;
  }

  function cancel(): void {
    editing.value = null;
    sheet.preview(null);
    const path = pathAt(at.value.row, at.value.column);
    if (path !== null) forgive(path);
  }

  /** What stood marked in a cell goes: it was left, or something else was chosen there. */
  function forgive(path: string): void {
    if (refused.value[path] === undefined) return;
    const { [path]: _gone, ...rest } = refused.value;
    refused.value = rest;
  }

  /** Reads texts into cells: what can be read becomes one change, the rest stays marked in its cell. */
  function write(cells: CellText<Row>[], label: () => string, added: readonly Row[] = []): void {
    const edits: CellEdit[] = [];
    for (const { row, column, text, item = rows.value[row] } of cells) {
      const path = item === undefined ? null : (columns.value[column]?.path?.(item) ?? null);
      if (path === null || !fills(column)) continue;
      const read = readAny(item!, column, text);
      if (read.ok) {
        forgive(path);
        edits.push({
          path,
          value: read.value,
          ...(columns.value[column]!.kind === 'part' && { isPart: true as const }),
        });
        const flag = columns.value[column]!.over?.(item!) ?? null;
        if (flag !== null) edits.push({ path: flag, value: ('over' in read && read.over) || undefined });
      } else refused.value = { ...refused.value, [path]: { text, message: read.message } };
    }
    make(edits, label(), added);
  }

  function readAny(item: Row, column: number, text: string): ReadCell | ReturnType<typeof readChoice> {
    const of = columns.value[column]!;
    if (of.kind === 'choice') return readChoice(of, item, text);
    if (of.kind !== 'part' || of.part === undefined) return readCell(of, text, shownAs(of));
    if (text.trim() === '' || text.trim() === of.none?.(item)) return { ok: true, value: undefined };
    const found = sheet.parts?.find(of.part, text.trim()) ?? null;
    return found === null
      ? { ok: false, message: `is no ${of.part} of the library` }
      : { ok: true, value: found.key };
  }

  function blockCells(): { row: number; column: number }[] {
    const { top, bottom, left, right } = selection.block.value;
    const cells: { row: number; column: number }[] = [];
    for (let row = top; row <= bottom; row += 1)
      for (let column = left; column <= right; column += 1) cells.push({ row, column });
    return cells;
  }

  function clear(): void {
    const cells = blockCells().filter(({ column }) => columns.value[column]!.required !== true);
    write(
      cells.map((cell) => ({ ...cell, text: '' })),
      () => `${label()}: ${cells.length === 1 ? 'a cell' : `${cells.length} cells`} emptied`,
    );
  }

  /** What is filled down: a part by its key, for two revisions of one have one name. */
  function sourceAt(row: number, column: number): string {
    const path = pathAt(row, column);
    return columns.value[column]!.kind === 'part' && path !== null
      ? String(valueOf(sheet.shown, path) ?? '')
      : textAt(row, column);
  }

  function fillDown(): void {
    const { top, bottom, left, right } = selection.block.value;
    if (top === bottom) return;
    const cells = blockCells().filter(({ row }) => row > top);
    write(
      cells.map(({ row, column }) => ({ row, column, text: sourceAt(top, column) })),
      () =>
        `${label()}: filled down ${bottom - top} rows${right > left ? `, ${right - left + 1} columns` : ''}`,
    );
  }

  /** The selected block as a table program reads it. */
  function copied(): string {
    const { top, bottom, left, right } = selection.block.value;
    const lines: string[] = [];
    for (let row = top; row <= bottom; row += 1) {
      const line: string[] = [];
      for (let column = left; column <= right; column += 1) line.push(textAt(row, column));
      lines.push(line.join('\t'));
    }
    return lines.join('\n');
  }

  /** Puts a block of a table program at the selection. */
  function paste(text: string): void {
    const lines = readBlock(text);
    const { top, left, bottom, right } = selection.block.value;
    // One value into a selected block fills it.
    const single = lines.length === 1 && lines[0]!.length === 1;
    const cells = single
      ? blockCells().map((cell) => ({ ...cell, text: lines[0]![0]! }))
      : lines.flatMap((line, i) => line.map((text, j) => ({ row: top + i, column: left + j, text })));
    // Where rows can be added, a list that is longer than what is there makes them.
    const growing = single ? null : (grow?.() ?? null);
    const own = growing?.own ?? rows.value.length;
    const added =
      growing === null || top >= own
        ? []
        : Array.from({ length: Math.max(0, top + lines.length - own) }, () => growing.row());
    const inside = cells
      .map((cell): CellText<Row> => {
        const item = added[cell.row - own];
        return item === undefined ? cell : { ...cell, item };
      })
      .filter(
        ({ row, column, item }) =>
          (item !== undefined || row < rows.value.length) && column < columns.value.length,
      );
    write(inside, () => `${label()}: ${inside.length} cells pasted`, added);
    const lost = cells.length - inside.length;
    const bad = Object.keys(refused.value).length;
    note.value =
      [
        lost > 0 ? `${lost} cells lay outside the table and were left out` : '',
        bad > 0 ? `${bad} could not be read and are marked` : '',
      ]
        .filter((part) => part !== '')
        .join('; ') || null;
    if (!single) {
      selection.goTo({ row: top, column: left });
      selection.goTo(
        {
          row: Math.max(bottom, top + lines.length - 1),
          column: Math.max(right, left + lines[0]!.length - 1),
        },
        true,
      );
    }
  }

  /** The selection goes to the clipboard; a cell that is being edited keeps what its text is copied. */
  function copyTo(event: ClipboardEvent): void {
    if (editing.value !== null) return;
    event.clipboardData?.setData('text/plain', copied());
    event.preventDefault();
  }

  function pasteFrom(event: ClipboardEvent): void {
    if (editing.value !== null) return;
    event.preventDefault();
    paste(event.clipboardData?.getData('text/plain') ?? '');
  }

  return {
    editing,
    refused,
    note,
    shownAs,
    pathAt,
    editable,
    textAt,
    start,
    preview,
    commit,
    cancel,
    forgive,
    clear,
    fillDown,
    copyTo,
    pasteFrom,
    copied,
    paste,
  };
}
