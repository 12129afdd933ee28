import type { GridColumn } from '../../../parts/grid/columns';
import {
  numberColumn,
  removeColumn,
  tagColumn,
  thingsOf,
  type Thing as Row,
} from '../../../parts/grid/things';

export { removeColumn as gone, tagColumn as tag, thingsOf as rowsOf };
export type { Row };
export const number = numberColumn;
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
