import type { GridSheet } from './columns';

/**
 * A sheet beside the design: a grid edits it in the same ways, and what comes of a gesture is handed over whole.
 *
 * @param take gets a copy of what is shown, with the edits in it
 */
export function ownSheet<Data extends object>(
  shown: () => Data,
  editable: () => boolean,
  take: (draft: Data) => void,
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
    preview: () => undefined,
  };
}
