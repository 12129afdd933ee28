import type { Id } from '@torvek/core/document';
import type { GridColumn } from '../../../parts/grid/columns';

/** A thing of the vehicle in a table of places. */
export interface Row {
  id: Id;
  name: string;
}
export const rowsOf = (things: Record<Id, { tag: string }> | undefined) =>
  Object.entries(things ?? {}).map(([id, { tag }]): Row => ({ id, name: tag }));

export const number = (
  root: string,
  field: string,
  title: string,
  label: string,
  unit: string,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  path: ({ id }) => `${root}.${id}.${field}`,
  unit,
  width: '5.2rem',
});
export const tag = (root: string, title: string): GridColumn<Row> => ({
  id: 'tag',
  title,
  kind: 'text',
  required: true,
  label: 'Name',
  path: ({ id }) => `${root}.${id}.tag`,
  width: '13rem',
});
export const kind = (root: string, kinds: readonly string[]): GridColumn<Row> => ({
  id: 'kind',
  title: 'kind',
  kind: 'choice',
  label: 'Kind',
  path: ({ id }) => `${root}.${id}.kind`,
  choices: () => kinds.map((value) => ({ value, text: value })),
  width: '8.5rem',
});
export const place = (root: string): GridColumn<Row>[] => [
  number(root, 'xM', 'ahead', 'Ahead of the front axle', 'm'),
  number(root, 'yM', 'left', 'Left of the middle', 'm'),
  number(root, 'zM', 'up', 'Above the ground', 'm'),
  number(root, 'lengthM', 'long', 'Length', 'm'),
  number(root, 'widthM', 'wide', 'Width', 'm'),
  number(root, 'heightM', 'high', 'Height', 'm'),
];
export const gone: GridColumn<Row> = {
  id: 'remove',
  title: '',
  kind: 'slot',
  label: 'Remove',
  width: '2.2rem',
};
