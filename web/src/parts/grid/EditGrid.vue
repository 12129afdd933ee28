<script setup lang="ts" generic="Row extends { id: string; name: string }">
import { tableFeatures, useTable } from '@tanstack/vue-table';
import { computed, nextTick, ref, useId, watch } from 'vue';
import ChoiceCell from '../ChoiceCell.vue';
import PartCell from '../PartCell.vue';
import type { GridColumn, GridSheet } from './columns';
import { useEditing, type Growing } from './editing';
import { gridAct, leavingAct, type GridAct } from './grid-keys';
import { useDesignSheet } from './design-sheet';
import { useRowMemo } from './row-memo';
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
const sheet = props.sheet ?? useDesignSheet();

const edits = useEditing<Row>({
  label: () => props.label,
  rows: items,
  columns,
  selection,
  sheet,
  grow: () => props.grow,
});
const { editing, refused, note, shownAs, pathAt, editable, textAt, start, preview, commit, forgive } = edits;
const hasControls = ({ kind }: GridColumn<Row>) => kind === 'slot' || kind === 'choice' || kind === 'part';
const spokenChoice = (column: GridColumn<Row>, row: Row) =>
  column.spoken?.(row) ?? `${column.label} of ${row.name}`;
const view = useRowWindow(computed(() => items.value.length));
const shown = computed(() =>
  items.value.slice(view.first.value, view.end.value).map((row, i) => ({ row, r: view.first.value + i })),
);
const memoOf = useRowMemo<Row>({
  columns,
  sheet,
  selection,
  focused,
  edits,
  picked: () => props.picked,
});
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
  const { row, column } = at.value;
  const act = gridAct(event, editable(row, column));
  if (act === null) return;
  if (act.act === 'step') {
    if (selection.step(act.by)) event.preventDefault();
    return;
  }
  event.preventDefault();
  event.stopPropagation();
  perform(act);
  showActive();
}

function perform(act: Exclude<GridAct, { act: 'step' }>): void {
  const { row, column } = at.value;
  switch (act.act) {
    case 'move':
      return selection.move(act.rows, act.columns, act.extend);
    case 'go':
      return selection.goTo(
        {
          row: { first: 0, last: items.value.length - 1, same: row }[act.row],
          column: act.column === 'first' ? 0 : columns.value.length - 1,
        },
        act.extend,
      );
    case 'edit':
      if (act.text !== null) startEditing(act.text);
      else if (editable(row, column)) startEditing(textAt(row, column));
      else if (!press()) selection.move(1, 0);
      return;
    case 'press':
      press();
      return;
    case 'clear':
      return edits.clear();
    case 'collapse':
      selection.collapse();
      return;
    case 'fill-down':
      return edits.fillDown();
    case 'select-all':
      return selection.selectAll();
  }
}

function onEditingKey(event: KeyboardEvent): void {
  const leaving = leavingAct(event);
  if (leaving === null) return;
  event.preventDefault();
  event.stopPropagation();
  if (leaving.keep) {
    commit();
    if (leaving.to === 'rows') selection.move(leaving.rows, 0);
    else selection.step(leaving.to === 'next' ? 1 : -1);
  } else edits.cancel();
  void nextTick(takeFocus);
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
        @copy="edits.copyTo"
        @paste="edits.pasteFrom"
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

<style scoped src="./edit-grid.css"></style>
