import type { Id } from '../../model/document';
import type { SharedView } from '../../model/step';

/** The wire of the looms that feeds each load, once per design: the first that carries it. */
export const carriersView: SharedView<Record<Id, Id>> = {
  id: 'looms.carriers',
  make: ({ wires = {} }) => {
    const feeds: Record<Id, Id> = {};
    for (const [id, { carries = [] }] of Object.entries(wires))
      for (const load of carries) if (!Object.hasOwn(feeds, load)) feeds[load] = id;
    return feeds;
  },
};
