import { figureId, type FigureId, type Gap } from '../../ground/figure';
import { gapsBehind, type Reader } from '../../model/step';

/** The resistance of the pack that its heat goes by, Ω: the one figure of the pack. */
export function packOhm(read: Reader): { id: FigureId; value: number | null; gaps: Gap[] } {
  const id = figureId('pack.pack', 'pack', 'resistanceOhm');
  const figure = read.figure(id);
  return { id, value: figure.value, gaps: figure.value === null ? gapsBehind(figure) : [] };
}
