import { useStorage } from '@vueuse/core';
import type { Ref } from 'vue';
import type { GridSheet } from './columns';

/** What a sheet was before and after: as it was handed over, gesture by gesture. */
export interface SheetHistory<Kept> {
  past: Kept[];
  future: Kept[];
}

/** Gestures that can be taken back; and most that is kept of them in the browser, in characters of JSON. */
const mostGestures = 50;
const mostKept = 400_000;

/**
 * Takes back what was typed into a sheet, and nothing else: the design behind it has an undo of its own.
 *
 * @param kept what the sheet comes to; whoever records it calls `forget`, for what is recorded is taken back in the record
 * @param history lies where `kept` lies, so that it survives a reload
 */
export function sheetUndo<Kept>(kept: Ref<Kept>, history: Ref<SheetHistory<Kept>>) {
  return {
    /** The next state, by a gesture. */
    take(next: Kept): void {
      const past = [...history.value.past, kept.value].slice(-mostGestures);
      let size = JSON.stringify(past).length;
      while (size > mostKept && past.length > 1) size -= JSON.stringify(past.shift()).length;
      history.value = { past, future: [] };
      kept.value = next;
    },
    undo(again: boolean): void {
      const { past, future } = history.value;
      const to = again ? future.at(-1) : past.at(-1);
      if (to === undefined) return;
      history.value = again
        ? { past: [...past, kept.value], future: future.slice(0, -1) }
        : { past: past.slice(0, -1), future: [...future, kept.value] };
      kept.value = to;
    },
    forget(): void {
      history.value = { past: [], future: [] };
    },
  };
}

/** What is typed into a sheet and not recorded: it lies in the browser until it is, with what can be taken back of it. */
export function typedInBrowser<Kept extends object>(key: string, nothing: Kept) {
  const typed = useStorage<Kept>(key, nothing);
  const history = useStorage<SheetHistory<Kept>>(`${key}.back`, { past: [], future: [] });
  return { typed, back: sheetUndo(typed, history) };
}

/**
 * A sheet beside the design: a grid edits it in the same ways, and what comes of a gesture is handed over whole.
 *
 * @param take gets a copy of what is shown, with the edits in it
 * @param undo takes the last gesture back: without it the undo of the design would reach past the sheet
 */
export function ownSheet<Data extends object>(
  shown: () => Data,
  editable: () => boolean,
  take: (draft: Data) => void,
  undo: (again: boolean) => void,
): GridSheet {
  return {
    get shown() {
      return shown();
    },
    get committed() {
      return shown();
    },
    get editable() {
      return editable();
    },
    change(_label, recipe) {
      const draft = JSON.parse(JSON.stringify(shown())) as Data;
      recipe(draft);
      take(draft);
    },
    undo,
    preview: () => undefined,
  };
}
