import type { Id } from '@torvek/core/document';
import type { GridColumn } from './columns';

/** A thing of the design in a table of its kind. */
export interface Thing {
  id: Id;
  name: string;
}

export const thingsOf = (things: Readonly<Record<Id, { tag: string }>> | undefined): Thing[] =>
  Object.entries(things ?? {}).map(([id, { tag }]) => ({ id, name: tag }));

/** Things as they are offered in a choice. */
export const offered = (things: Readonly<Record<Id, { tag: string }>> | undefined) =>
  Object.entries(things ?? {}).map(([value, { tag }]) => ({ value, text: tag }));

/** Its name. */
export const tagColumn = (
  root: string,
  title: string,
  width = '13rem',
  label = 'Name',
): GridColumn<Thing> => ({
  id: 'tag',
  title,
  kind: 'text',
  required: true,
  label,
  path: ({ id }) => `${root}.${id}.tag`,
  width,
});

/** A number of each. */
export const numberColumn = (
  root: string,
  field: string,
  title: string,
  label: string,
  unit?: string,
  width = '5.2rem',
): GridColumn<Thing> => ({
  id: field,
  title,
  kind: 'number',
  label,
  path: ({ id }) => `${root}.${id}.${field}`,
  ...(unit !== undefined && { unit }),
  width,
});

/** A place for the button that takes one away: it hangs on its row alone. */
export const removeColumn: GridColumn<Thing> = {
  id: 'remove',
  title: '',
  kind: 'slot',
  label: 'Remove',
  width: '2.2rem',
  still: true,
};
