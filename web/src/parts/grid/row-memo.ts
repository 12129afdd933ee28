import { computed, type Ref } from 'vue';
import type { GridColumn, GridSheet } from './columns';
import type { useEditing } from './editing';
import type { useSelection } from './selection';

interface Rows<Row> {
  columns: Ref<GridColumn<Row>[]>;
  sheet: Pick<GridSheet, 'editable'>;
  selection: ReturnType<typeof useSelection>;
  focused: Ref<boolean>;
  edits: Pick<ReturnType<typeof useEditing>, 'editing' | 'refused' | 'pathAt' | 'textAt' | 'editable'> & {
    shownAs(column: GridColumn<Row>): { unit: string };
  };
  picked(): string | null | undefined;
}

/** All that the cells of a row show: while it stays the same the row is not drawn again, of hundreds of rows one. */
export function useRowMemo<Row extends { id: string; name: string }>({
  columns,
  sheet,
  selection,
  focused,
  edits,
  picked,
}: Rows<Row>) {
  const { editing, refused, pathAt, textAt, editable, shownAs } = edits;
  const { at, isSelected } = selection;
  /** Slots whose controls hang on nothing but their row leave a row as it is until something of the row itself changes. */
  const still = computed(() =>
    columns.value.every(({ kind, still: own }) => kind !== 'slot' || own === true),
  );
  return (row: Row, r: number): unknown[] => {
    // Never the same twice.
    if (!still.value) return [{}];
    const own = at.value.row === r;
    const memo: unknown[] = [
      row.name,
      r,
      columns.value,
      sheet.editable,
      picked() === row.id,
      focused.value,
      own && focused.value ? at.value.column : null,
      own ? editing.value : null,
    ];
    columns.value.forEach((column, c) => {
      const path = pathAt(r, c);
      memo.push(path, isSelected(r, c), refused.value[path ?? '']?.message);
      if (column.kind === 'choice') memo.push(column.choices?.(row), column.none?.(row));
      else if (column.kind === 'part') memo.push(column.none?.(row));
      else if (column.kind !== 'slot') memo.push(textAt(r, c), editable(r, c), shownAs(column).unit);
    });
    return memo;
  };
}
