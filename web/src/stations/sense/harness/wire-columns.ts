import type { GridColumn } from '../../../parts/grid/columns';
import type { HarnessRow } from './harness';

export interface WireRow {
  id: string;
  name: string;
  wire: HarnessRow;
}

/** What is shown of each wire; nothing of it is typed here. */
export const wireColumns: GridColumn<WireRow>[] = [
  {
    id: 'number',
    title: 'wire',
    kind: 'text',
    label: 'Wire',
    path: () => null,
    text: (row) => String(row.wire.number),
    width: '3.4rem',
  },
  {
    id: 'label',
    title: 'label',
    kind: 'text',
    label: 'Label',
    path: () => null,
    text: (row) => row.wire.label,
    width: '8rem',
  },
  {
    id: 'from',
    title: 'from',
    kind: 'text',
    label: 'From',
    path: () => null,
    text: (row) => row.wire.from,
    width: '16rem',
  },
  {
    id: 'board',
    title: 'to board',
    kind: 'text',
    label: 'To board',
    path: () => null,
    text: (row) => row.wire.boardTag,
    width: '8rem',
  },
  {
    id: 'pin',
    title: 'pin',
    kind: 'fixed',
    label: 'Pin',
    text: (row) => String(row.wire.pin),
    width: '3rem',
  },
  {
    id: 'colour',
    title: 'colour',
    kind: 'text',
    label: 'Colour',
    path: () => null,
    text: (row) => row.wire.colour,
    width: '6rem',
  },
  {
    id: 'long',
    title: 'm',
    kind: 'fixed',
    label: 'Length',
    text: (row) => (row.wire.lengthM === null ? '' : String(row.wire.lengthM)),
    width: '4rem',
  },
  {
    id: 'fuse',
    title: 'fuse, A',
    kind: 'fixed',
    label: 'Fuse',
    text: (row) => (row.wire.fuseA === null ? '' : String(row.wire.fuseA)),
    width: '4rem',
  },
];
