<script setup lang="ts" generic="Row extends { id: string; name: string }">
import { tableFeatures, useTable } from '@tanstack/vue-table';
import { computed, nextTick, ref, useId, watch } from 'vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import ChoiceCell from '../ChoiceCell.vue';
import PartCell from '../PartCell.vue';
import type { GridColumn, GridSheet } from './columns';
import { useEditing, type Growing } from './editing';
import { partShelf } from './part-shelf';
import { useRowWindow } from './row-window';
import { useSelection } from './selection';

/**
 * A table that is edited as people expect of one: arrows, Enter, Tab and Esc, a block copied and pasted, filled down.
 * What cannot be read stays in its cell, marked, and out of the design. One gesture is one change.
 */
const props = defineProps<{
  label: string;
  rows: Row[];
  columns: GridColumn<Row>[];
  /** The row that something else shows as picked. */
  picked?: string | null;
  /** What is edited, when it is not the design. */
  sheet?: GridSheet;
  /** How a pasted list adds rows. */
  grow?: Growing<Row>;
}>();
const emit = defineEmits<{ pick: [id: string] }>();
const job = useJob();
const shelf = useLibrary();
const id = useId();
const root = ref<HTMLElement | null>(null);
const input = ref<HTMLInputElement | null>(null);
const focused = ref(false);
const table = useTable({
  features: tableFeatures({}),
  data: computed(() => props.rows),
  columns: computed(() => props.columns.map((column) => ({ id: column.id, header: column.title }))),
  getRowId: (row: Row) => row.id,
});
const items = computed(() => table.getRowModel().rows.map(({ original }) => original));
const columns = computed(() => props.columns);
const selection = useSelection(computed(() => ({ rows: items.value.length, columns: columns.value.length })));
const { at } = selection;
/** The design, unless something else was handed over. */
const sheet: GridSheet = props.sheet ?? {
  get shown() {
    return job.design;
  },
  get committed() {
    return job.committed;
  },
  get editable() {
    return job.editable;
  },
  parts: partShelf(() => job.design, shelf),
  change: (label, recipe) => job.change(label, recipe),
  preview: (recipe) => job.preview(recipe),
};

const {
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
  copied,
  paste,
} = useEditing<Row>({
  label: () => props.label,
  rows: items,
  columns,
  selection,
  sheet,
  grow: () => props.grow,
});
const hasControls = ({ kind }: GridColumn<Row>) => kind === 'slot' || kind === 'choice' || kind === 'part';
const spokenChoice = (column: GridColumn<Row>, row: Row) =>
  column.spoken?.(row) ?? `${column.label} of ${row.name}`;
const view = useRowWindow(computed(() => items.value.length));
const shown = computed(() =>
  items.value.slice(view.first.value, view.end.value).map((row, i) => ({ row, r: view.first.value + i })),
);
/** Slots whose controls hang on nothing but their row leave a row as it is until something of the row itself changes. */
const still = computed(() => columns.value.every(({ kind, still: own }) => kind !== 'slot' || own === true));
/** All that the cells of a row show: while it stays the same the row is not drawn again, of hundreds of rows one. */
function memoOf(row: Row, r: number): unknown[] {
  if (!still.value) return [{}];
  const own = at.value.row === r;
  const memo: unknown[] = [
    row.name,
    r,
    columns.value,
    sheet.editable,
    props.picked === row.id,
    focused.value,
  ];
  memo.push(own && focused.value ? at.value.column : null, own ? editing.value : null);
  columns.value.forEach((column, c) => {
    const path = pathAt(r, c);
    memo.push(path, selection.isSelected(r, c), refused.value[path ?? '']?.message);
    if (column.kind === 'choice') memo.push(column.choices?.(row), column.none?.(row));
    else if (column.kind === 'part') memo.push(column.none?.(row));
    else if (column.kind !== 'slot') memo.push(textAt(r, c), editable(r, c), shownAs(column).unit);
  });
  return memo;
}
const cellId = (row: number, column: number) => `${id}-${row}-${column}`;
function startEditing(text: string): void {
  const whole = text === textAt(at.value.row, at.value.column);
  if (!start(text)) return;
  void nextTick(() => {
    input.value?.focus();
    if (whole) input.value?.select();
  });
}

/** A sheet of its own takes back what was typed into it; the design’s undo does not reach past it. */
function onUndo(event: Event): void {
  if (sheet.undo === undefined) return;
  event.preventDefault();
  sheet.undo((event as CustomEvent<boolean>).detail);
  takeFocus();
}

function onCopy(event: ClipboardEvent): void {
  if (editing.value !== null) return;
  event.clipboardData?.setData('text/plain', copied());
  event.preventDefault();
}

function onPaste(event: ClipboardEvent): void {
  if (editing.value !== null) return;
  event.preventDefault();
  paste(event.clipboardData?.getData('text/plain') ?? '');
}

watch(
  () => items.value[at.value.row]?.id,
  (row) => {
    if (row !== undefined && focused.value) emit('pick', row);
  },
);

/** Back to the grid, its active cell in view: focusing the whole table would scroll it under the pointer. */
function takeFocus(): void {
  root.value?.focus({ preventScroll: true });
  showActive();
}

function showActive(): void {
  const { row, column } = at.value;
  view.bring(row);
  void nextTick(() => document.getElementById(cellId(row, column))?.scrollIntoView({ block: 'nearest' }));
}

/** Presses the first control of a cell that holds one. */
function press(): boolean {
  const cell = document.getElementById(cellId(at.value.row, at.value.column));
  const control = cell?.querySelector<HTMLElement>('select, button, a, input');
  if (control instanceof HTMLSelectElement) control.focus();
  else control?.click();
  return control != null;
}

function onKey(event: KeyboardEvent): void {
  if (editing.value !== null) return onEditingKey(event);
  // A choice has the keys while it has the focus; Esc gives them back to the table.
  if (event.target instanceof HTMLSelectElement) {
    if (event.key === 'Escape') takeFocus();
    return;
  }
  const { ctrlKey, metaKey, shiftKey, altKey, key } = event;
  const command = ctrlKey || metaKey;
  const arrows: Record<string, [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };
  const arrow = arrows[key];
  const done = (act: () => void) => {
    event.preventDefault();
    event.stopPropagation();
    act();
    showActive();
  };
  if (altKey) return;
  if (arrow !== undefined)
    done(() => {
      const far = command ? 10_000 : 1;
      selection.move(arrow[0] * far, arrow[1] * far, shiftKey);
    });
  else if (key === 'Tab') {
    if (selection.step(shiftKey ? -1 : 1)) event.preventDefault();
  } else if (key === 'Home')
    done(() => selection.goTo({ row: command ? 0 : at.value.row, column: 0 }, shiftKey));
  else if (key === 'End')
    done(() =>
      selection.goTo(
        { row: command ? items.value.length - 1 : at.value.row, column: columns.value.length - 1 },
        shiftKey,
      ),
    );
  else if (key === 'Enter' || key === 'F2')
    done(() => {
      if (editable(at.value.row, at.value.column)) startEditing(textAt(at.value.row, at.value.column));
      else if (!press()) selection.move(1, 0);
    });
  else if (key === 'Delete' || key === 'Backspace') done(clear);
  else if (key === 'Escape') done(() => selection.collapse());
  else if (command && key.toLowerCase() === 'd') done(fillDown);
  else if (command && key.toLowerCase() === 'a') done(() => selection.selectAll());
  else if (!command && key === ' ' && !editable(at.value.row, at.value.column)) done(() => void press());
  else if (!command && key.length === 1) done(() => startEditing(key));
}

function onEditingKey(event: KeyboardEvent): void {
  const leave = (act: () => void) => {
    event.preventDefault();
    event.stopPropagation();
    act();
    void nextTick(takeFocus);
  };
  if (event.key === 'Enter') leave(() => (commit(), selection.move(event.shiftKey ? -1 : 1, 0)));
  else if (event.key === 'Tab') leave(() => (commit(), void selection.step(event.shiftKey ? -1 : 1)));
  else if (event.key === 'Escape') leave(cancel);
  else if (event.key === 'ArrowUp') leave(() => (commit(), selection.move(-1, 0)));
  else if (event.key === 'ArrowDown') leave(() => (commit(), selection.move(1, 0)));
}

function onPointer(event: MouseEvent, row: number, column: number): void {
  if ((event.target as HTMLElement).closest('input, select, button, a') !== null) return;
  if (editing.value !== null) commit();
  selection.goTo({ row, column }, event.shiftKey);
  emit('pick', items.value[row]!.id);
  root.value?.focus({ preventScroll: true });
}

function onDrag(event: MouseEvent, row: number, column: number): void {
  if (event.buttons === 1 && editing.value === null && focused.value) selection.goTo({ row, column }, true);
}

function onFocusIn(event: FocusEvent): void {
  focused.value = true;
  const cell = (event.target as HTMLElement).closest<HTMLElement>('[role="gridcell"]');
  if (cell !== null && cell.dataset.row !== undefined && editing.value === null)
    selection.goTo({ row: Number(cell.dataset.row), column: Number(cell.dataset.column) });
}

function onFocusOut(event: FocusEvent): void {
  if (root.value?.contains(event.relatedTarget as Node | null)) return;
  focused.value = false;
  commit();
}
</script>

<template>
  <div class="edit-grid">
    <div
      :ref="(element) => (view.pane.value = element as HTMLElement | null)"
      :class="{ pane: view.tall.value }"
      @scroll.passive="view.scrolled"
    >
      <table
        ref="root"
        role="grid"
        class="grid-table"
        :class="{ fixed: columns.every(({ width }) => width !== undefined) }"
        tabindex="0"
        :aria-label="label"
        :aria-rowcount="items.length + 1"
        :aria-colcount="columns.length"
        :aria-activedescendant="
          at.row >= view.first.value && at.row < view.end.value && items.length > 0
            ? cellId(at.row, at.column)
            : undefined
        "
        :aria-readonly="!sheet.editable"
        aria-multiselectable="true"
        @keydown="onKey"
        @copy="onCopy"
        @paste="onPaste"
        @focusin="onFocusIn"
        @focusout="onFocusOut"
        @torvek-undo="onUndo"
      >
        <thead>
          <tr role="row">
            <th
              v-for="column in columns"
              :key="column.id"
              role="columnheader"
              scope="col"
              :class="{ num: column.kind === 'number' || column.kind === 'fixed' }"
              :style="column.width ? { width: column.width } : undefined"
            >
              {{ column.title }}<span v-if="column.unit" class="unit">, {{ shownAs(column).unit }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-if="view.above.value > 0" aria-hidden="true">
            <td class="blank" :colspan="columns.length" :style="{ height: `${view.above.value}px` }"></td>
          </tr>
          <tr
            v-for="{ row, r } in shown"
            :key="row.id"
            v-memo="memoOf(row, r)"
            role="row"
            :aria-rowindex="r + 2"
            :class="{ picked: picked === row.id }"
          >
            <td
              v-for="(column, c) in columns"
              :id="cellId(r, c)"
              :key="column.id"
              role="gridcell"
              :class="{
                num: column.kind === 'number' || column.kind === 'fixed',
                choice: column.kind === 'choice' || column.kind === 'part',
                fixed: column.kind === 'fixed' || (column.path !== undefined && pathAt(r, c) === null),
                active: focused && at.row === r && at.column === c,
                chosen: focused && selection.isSelected(r, c),
                bad: refused[pathAt(r, c) ?? ''] !== undefined,
              }"
              :aria-colindex="c + 1"
              :aria-selected="selection.isSelected(r, c)"
              :aria-label="
                hasControls(column)
                  ? undefined
                  : `${column.label} of ${row.name}: ${textAt(r, c) || 'empty'}${column.unit && textAt(r, c) ? ` ${shownAs(column).unit}` : ''}`
              "
              :aria-readonly="hasControls(column) ? undefined : !editable(r, c)"
              :aria-invalid="refused[pathAt(r, c) ?? ''] !== undefined || undefined"
              :title="refused[pathAt(r, c) ?? '']?.message"
              :data-path="pathAt(r, c) ?? undefined"
              :data-row="r"
              :data-column="c"
              @change="hasControls(column) && forgive(pathAt(r, c) ?? '')"
              @mousedown="onPointer($event, r, c)"
              @mouseenter="onDrag($event, r, c)"
              @dblclick="editable(r, c) && startEditing(textAt(r, c))"
            >
              <input
                v-if="editing !== null && at.row === r && at.column === c"
                :ref="(element) => (input = element as HTMLInputElement | null)"
                v-model="editing"
                class="cell-input"
                :inputmode="column.kind === 'number' ? 'decimal' : 'text'"
                maxlength="200"
                autocomplete="off"
                spellcheck="false"
                :aria-label="`${column.label} of ${row.name}`"
                @input="preview"
              />
              <slot v-else-if="column.kind === 'slot'" :name="column.id" :row="row" />
              <template v-else-if="column.kind === 'choice' || column.kind === 'part'">
                <ChoiceCell
                  v-if="column.kind === 'choice' && pathAt(r, c) !== null"
                  :sheet="props.sheet"
                  :path="pathAt(r, c)!"
                  :label="spokenChoice(column, row)"
                  :options="column.choices?.(row) ?? []"
                  :none="column.none?.(row) ?? 'none'"
                />
                <PartCell
                  v-else-if="column.part !== undefined && pathAt(r, c) !== null"
                  :path="pathAt(r, c)!"
                  :kind="column.part"
                  :label="spokenChoice(column, row)"
                  :none="column.none?.(row) ?? 'none'"
                />
                <span v-else class="soft">–</span>
              </template>
              <template v-else>{{ textAt(r, c) }}</template>
            </td>
          </tr>
          <tr v-if="view.below.value > 0" aria-hidden="true">
            <td class="blank" :colspan="columns.length" :style="{ height: `${view.below.value}px` }"></td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="Object.keys(refused).length > 0" class="problem" role="alert">
      <template v-for="(bad, path, i) in refused" :key="path"
        ><template v-if="i < 3">“{{ bad.text }}” {{ bad.message }}. </template></template
      >
      It is marked in its cell and not part of the design.
    </p>
    <p v-if="note" class="note" role="status">{{ note }}.</p>
  </div>
</template>

<style scoped>
table:focus-visible {
  outline: 0;
}

td {
  height: 1.85rem;
  cursor: cell;
  position: relative;
}

/* Widths as given: a table of hundreds of rows is not measured anew with each that changes. */
.pane table.fixed {
  table-layout: fixed;
}

.pane {
  max-height: 26rem;
  overflow-y: auto;
}

.pane th {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--tv-sheet);
}

.pane td:not(.blank) {
  height: 28px;
  max-height: 28px;
  white-space: nowrap;
  overflow: hidden;
}

td.blank {
  padding: 0;
  border: 0;
}

td.fixed {
  color: var(--tv-soft);
}

td.chosen {
  background: var(--tv-pick);
}

td.active {
  box-shadow: inset 0 0 0 2px var(--tv-act);
}

td.bad {
  color: var(--tv-stop);
  box-shadow: inset 0 0 0 1px var(--tv-stop);
}

td.bad.active {
  box-shadow: inset 0 0 0 2px var(--tv-stop);
}

.cell-input {
  position: absolute;
  inset: 0;
  width: 100%;
  border: 0;
  padding: 0 0.4rem;
  font: inherit;
  text-align: inherit;
  background: var(--tv-sheet);
  color: var(--tv-ink);
  box-shadow: inset 0 0 0 2px var(--tv-act);
  outline: 0;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.88rem;
  margin: 0.3rem 0 0;
}

.note {
  font-size: 0.88rem;
  margin: 0.3rem 0 0;
}

td.choice {
  padding-inline: 3px;
}
</style>
