import { computed, ref, type Ref } from 'vue';

export interface Place {
  row: number;
  column: number;
}

/** The active cell of a grid and the block that is selected with it. */
export function useSelection(size: Ref<{ rows: number; columns: number }>) {
  const active = ref<Place>({ row: 0, column: 0 });
  /** The other corner of the block; null: the active cell alone. */
  const anchor = ref<Place | null>(null);

  const clamp = ({ row, column }: Place): Place => ({
    row: Math.max(0, Math.min(size.value.rows - 1, row)),
    column: Math.max(0, Math.min(size.value.columns - 1, column)),
  });

  const at = computed(() => clamp(active.value));
  const block = computed(() => {
    const other = clamp(anchor.value ?? at.value);
    return {
      top: Math.min(at.value.row, other.row),
      bottom: Math.max(at.value.row, other.row),
      left: Math.min(at.value.column, other.column),
      right: Math.max(at.value.column, other.column),
    };
  });

  /** Goes to a cell; `extend` keeps the other corner where it is. */
  function goTo(place: Place, extend = false): void {
    anchor.value = extend ? (anchor.value ?? at.value) : null;
    active.value = clamp(place);
  }

  const move = (rows: number, columns: number, extend = false) =>
    goTo({ row: at.value.row + rows, column: at.value.column + columns }, extend);

  /** The next cell in reading order, or the one before; false at the end of the grid. */
  function step(by: 1 | -1): boolean {
    const { rows, columns } = size.value;
    const next = at.value.row * columns + at.value.column + by;
    if (next < 0 || next >= rows * columns) return false;
    goTo({ row: Math.floor(next / columns), column: next % columns });
    return true;
  }

  function selectAll(): void {
    active.value = { row: 0, column: 0 };
    anchor.value = { row: size.value.rows - 1, column: size.value.columns - 1 };
  }

  const isSelected = (row: number, column: number) =>
    row >= block.value.top &&
    row <= block.value.bottom &&
    column >= block.value.left &&
    column <= block.value.right;

  const collapse = () => (anchor.value = null);
  return { at, block, goTo, move, step, selectAll, isSelected, collapse };
}
