import type { Design } from '@torvek/core/document';
import type { GridColumn } from '../../parts/grid/columns';

/** A box in a table of what it is. */
export interface BoxRow {
  id: string;
  name: string;
}
export const boxRows = ({ boxes }: Pick<Design, 'boxes'>): BoxRow[] =>
  Object.entries(boxes).map(([id, { tag }]) => ({ id, name: tag }));

/** A number of a box. */
export const boxNumber = (
  field: string,
  title: string,
  label: string,
  unit: string,
  scale = 1,
): GridColumn<BoxRow> => ({
  id: field,
  title,
  kind: 'number',
  unit,
  scale,
  label,
  path: ({ id }) => `boxes.${id}.${field}`,
});

/** The name that other columns are of. */
export const boxName: GridColumn<BoxRow> = {
  id: 'name',
  title: 'Box',
  kind: 'fixed',
  label: 'Box',
  text: ({ name }) => name,
  width: '9rem',
};
