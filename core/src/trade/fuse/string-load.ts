import { mainCircuit } from '../../model/document';
import { figureId, type Figure, type Gap } from '../../ground/figure';
import { gapsBehind, type Reader } from '../../model/step';

/** What one string carries of the main circuit’s load, A. */
export interface StringLoad {
  count: number;
  rmsA: number | null;
  peakA: number | null;
  gaps: Gap[];
}

/** Where strings share unevenly, the one that carries most counts. */
export function stringLoadOf(read: Reader): StringLoad {
  const count = Object.values(read.at('strings')).filter(({ modules }) => modules.length > 0).length;
  const share = (load: Figure, most: Figure) =>
    count > 1 && most.value !== null
      ? most.value
      : load.value === null || count === 0
        ? null
        : load.value / count;
  const rms = read.figure(figureId('network.load', mainCircuit, 'rmsA'));
  const peak = read.figure(figureId('network.load', mainCircuit, 'peakA'));
  return {
    count,
    rmsA: share(rms, read.figure(figureId('fuse.strings', 'pack', 'mostRmsA'))),
    peakA: share(peak, read.figure(figureId('fuse.strings', 'pack', 'mostPeakA'))),
    gaps:
      rms.value === null
        ? gapsBehind(rms)
        : count === 0
          ? [{ kind: 'not-given', path: 'strings', label: 'modules in series' }]
          : [],
  };
}
