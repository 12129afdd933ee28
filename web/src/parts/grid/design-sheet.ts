import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import type { GridSheet } from './columns';
import { partShelf } from './part-shelf';

/** The design as what a grid edits. */
export function useDesignSheet(): GridSheet {
  const job = useJob();
  const shelf = useLibrary();
  return {
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
}
