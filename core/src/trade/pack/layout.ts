import equal from 'fast-deep-equal';
import type { Design } from '../../model/document';
import type { Gap } from '../../ground/figure';
import type { PartKey, PartOf } from '../../model/parts';
import type { Reader } from '../../model/step';

/** How the pack's modules are connected: strings of like cells, side by side. */
export interface PackLayout {
  /** The first module's kind; modules of other sizes may stand beside it when their cells are the same. */
  key: PartKey;
  part: PartOf<'module'>;
  strings: number;
  /** Modules of the first string. */
  modulesPerString: number;
  /** Cells in series in each string. */
  seriesCells: number;
  massKg: number;
  /** The lowest peak current of any kind in it. */
  peakA: number;
}

type Slices = Pick<Design, 'strings' | 'modules' | 'parts'>;

/** The layout as a step reads it. */
export const readPackLayout = (read: Reader) =>
  packLayout({ strings: read.at('strings'), modules: read.at('modules'), parts: read.at('parts') });

/** Reads the layout from the module instances, or says why there is none to compute with. */
export function packLayout({ strings, modules, parts }: Slices): { layout: PackLayout | null; gaps: Gap[] } {
  const filled = Object.values(strings).filter((string) => string.modules.length > 0);
  const first = filled[0];
  if (first === undefined) return refuse({ kind: 'not-given', path: 'strings', label: 'modules in series' });
  const key = modules[first.modules[0]!]?.part ?? '';
  const part = parts[key];
  if (part?.kind !== 'module') return refuse({ kind: 'not-given', path: 'parts', label: 'kind of module' });
  let massKg = 0;
  let peakA = Infinity;
  let seriesCells = 0;
  for (const string of filled) {
    const invalid = (message: string) =>
      refuse({ kind: 'invalid', path: 'strings', label: `string ${string.tag}`, message });
    let cells = 0;
    for (const id of string.modules) {
      const own = parts[modules[id]?.part ?? ''];
      if (own?.kind !== 'module')
        return refuse({ kind: 'not-given', path: 'parts', label: 'kind of module' });
      const { data } = own;
      if (data.cellsInParallel !== part.data.cellsInParallel || !equal(data.cell, part.data.cell))
        return invalid('mixes modules of different cells; that is not computed');
      cells += data.cellsInSeries;
      massKg += data.massKg;
      peakA = Math.min(peakA, data.peakA);
    }
    if (string === first) seriesCells = cells;
    else if (cells !== seriesCells)
      return invalid(
        `has ${cells} cells in series where ${first.tag} has ${seriesCells}; unlike strings must not be joined`,
      );
  }
  const modulesPerString = first.modules.length;
  return {
    layout: { key, part, strings: filled.length, modulesPerString, seriesCells, massKg, peakA },
    gaps: [],
  };
}

const refuse = (gap: Gap) => ({ layout: null, gaps: [gap] });
