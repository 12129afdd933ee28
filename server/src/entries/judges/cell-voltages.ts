import { list, oneOf, record, table, text } from '@torvek/core/shape';
import { cellsOf, modulesOf } from '../cells';
import { defineJudge } from '../court';
import { instrumentFields, instrumentOf, type AskedInstrument } from '../instrument';

export interface CellVoltagesRequest {
  kind: 'cell-voltages';
  entered: 'typed' | 'pasted' | 'logged';
  instrument: AskedInstrument;
  cells: { cell: string; samples: [hours: number, voltageV: number][] }[];
  remark?: string;
}

/** Voltages of cells, each with the tag it had. */
export const cellVoltages = defineJudge<CellVoltagesRequest>({
  fields: {
    entered: oneOf(['typed', 'pasted', 'logged']),
    instrument: instrumentFields,
    cells: list(
      record({
        cell: text(120),
        samples: table({
          columns: [
            { min: 0, max: 10_000 },
            { min: -10, max: 10 },
          ],
          minRows: 1,
          maxRows: 500,
        }),
      }),
      { minRows: 1, maxRows: 1000 },
    ),
    remark: text.optional(2000),
  },
  async judge(asked) {
    const { cells, entered, remark } = asked.request;
    const instrument = await instrumentOf(asked, 'meter');
    const known = cellsOf(
      asked.bench,
      cells.map(({ cell }) => cell),
      (i) => `cells.${i}.cell`,
    );
    return {
      instrument,
      subjects: modulesOf(known),
      body: {
        kind: 'cell-voltages',
        entered,
        cells: cells.map(({ cell, samples }, i) => ({ cell, tag: known[i]!.tag, samples })),
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
