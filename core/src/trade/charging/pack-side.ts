import { figureId, type FigureId, type Gap } from '../../ground/figure';
import type { Inputs, Reader } from '../../model/step';
import { gapsBehind } from '../../model/step';
import { readPackLayout } from '../pack';

/** The resistance of the pack that its heat goes by, Ω: the one figure of the pack. */
export function packOhm(read: Reader): { id: FigureId; value: number | null; gaps: Gap[] } {
  const id = figureId('pack.pack', 'pack', 'resistanceOhm');
  const figure = read.figure(id);
  return { id, value: figure.value, gaps: figure.value === null ? gapsBehind(figure) : [] };
}

/** What the pack brings to a charge: its cells, with links and cables among their resistance. */
export function packInputs(read: Reader, inputs: Inputs): void {
  const { layout, gaps } = readPackLayout(read);
  inputs.missing(...gaps);
  const ohm = packOhm(read);
  inputs.missing(...ohm.gaps);
  if (layout === null || ohm.value === null) return;
  const { cell, cellsInParallel } = layout.part.data;
  const parallel = layout.strings * cellsInParallel;
  const from = (path: string) => ({ kind: 'part' as const, key: layout.key, path });
  inputs.set('cell.ocvTable', cell.ocvTable, from('cell.ocvTable'));
  inputs.set('cell.capacityAh', cell.capacityAh, from('cell.capacityAh'));
  // Links and cables of the pack among the cells, so that there is one resistance of the pack.
  inputs.set('cell.resistanceOhm', (ohm.value * parallel) / layout.seriesCells, {
    kind: 'figure',
    id: ohm.id,
  });
  inputs.set('cell.maxV', cell.maxV, from('cell.maxV'));
  inputs.set('series', layout.seriesCells, { kind: 'constant', source: 'cells in series' });
  inputs.set('parallel', parallel, { kind: 'constant', source: 'cells in parallel' });
  inputs.set('cellMaxV', cell.maxV, from('cell.maxV'));
}
