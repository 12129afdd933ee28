import { list, oneOf, record, table, text } from '../../ground/shape';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { defineKind } from '../kind';
import { remark, words } from '../shapes';

/** Voltages of single cells, read in one walk along the bench or by a logger. */
export interface CellVoltagesBody {
  kind: 'cell-voltages';
  entered: 'typed' | 'pasted' | 'logged';
  /** By cell (`${module}/cell-${number}`); hours from `takenAt`, and volts. */
  cells: { cell: string; tag: string; samples: [hours: number, voltageV: number][] }[];
  remark?: string;
}

/** A few by name, many by number. */
const cellNames = (tags: string[]) => (tags.length <= 4 ? tags.join(', ') : `${tags.length} cells`);

export const cellVoltages = defineKind<CellVoltagesBody>({
  kind: 'cell-voltages',
  many: 'cell voltages',
  fields: {
    entered: oneOf(['typed', 'pasted', 'logged']),
    cells: list(
      record({
        cell: text(160),
        tag: words(200),
        samples: table({ columns: [{}, {}], minRows: 1, maxRows: 20_000, rising: false }),
      }),
      { maxRows: 2000 },
    ),
    remark,
  },
  stands: 'always',
  title: ({ cells }) => `Voltages of ${cellNames(cells.map(({ tag }) => tag))}`,
  outcome: ({ cells }) => {
    const volts = cells.flatMap(({ samples }) => samples.map(([, voltageV]) => voltageV));
    const [low, high] = [Math.min(...volts), Math.max(...volts)];
    return low === high
      ? formatQuantity(low, 'V', 4)
      : `${formatNumber(low, 4)} to ${formatQuantity(high, 'V', 4)}`;
  },
});
