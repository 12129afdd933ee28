import type { Design, Id } from '../../model/document';
import type { Gap } from '../../ground/figure';
import type { ModuleData } from '../../model/parts';
import type { ParallelMatchInput } from './parallel-match';

type Slices = Pick<Design, 'strings' | 'modules' | 'parts' | 'pack'>;

/** One side of a joining: a string, or modules by themselves. */
export interface MatchSide {
  id: string;
  tag: string;
  modules: Id[];
}

/** What can be joined: every string, and every module that stands in none. */
export function matchSides({ strings, modules }: Pick<Design, 'strings' | 'modules'>): MatchSide[] {
  const sides = Object.entries(strings)
    .filter(([, string]) => string.modules.length > 0)
    .map(([id, string]): MatchSide => ({ id, tag: string.tag, modules: string.modules }));
  const strung = new Set(sides.flatMap((side) => side.modules));
  const loose = Object.entries(modules)
    .filter(([id]) => !strung.has(id))
    .map(([id, { tag }]): MatchSide => ({ id, tag, modules: [id] }));
  const single = sides.flatMap(({ modules: own }) =>
    own.map((id): MatchSide => ({ id, tag: modules[id]?.tag ?? id, modules: [id] })),
  );
  return [...sides, ...loose, ...single];
}

/** A limit in the path of the equalising current. */
export interface MatchLimit {
  label: string;
  currentA: number;
}

/**
 * What `parallel-match` takes for two sides, with every limit in the path, or what is missing.
 *
 * @param voltages of a and b as measured, V
 * @param linkOhm resistance of what joins them
 */
export function matchInputOf(
  design: Slices,
  a: MatchSide,
  b: MatchSide,
  voltages: [a: number | undefined, b: number | undefined],
  linkOhm: number | undefined,
  benchCurrentA: number | undefined,
): { input: ParallelMatchInput | null; limits: MatchLimit[]; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const dataOf = (side: MatchSide): ModuleData[] =>
    side.modules.flatMap((id) => {
      const part = design.parts[design.modules[id]?.part ?? ''];
      return part?.kind === 'module' ? [part.data] : [];
    });
  const [of, against] = [dataOf(a), dataOf(b)];
  const series = (data: ModuleData[]) => data.reduce((sum, { cellsInSeries }) => sum + cellsInSeries, 0);
  if (of.length === 0 || against.length === 0)
    gaps.push({ kind: 'not-given', path: 'strings', label: 'kind of module' });
  else if (series(of) !== series(against))
    gaps.push({
      kind: 'invalid',
      path: 'strings',
      label: `${a.tag} and ${b.tag}`,
      message: `have ${series(of)} and ${series(against)} cells in series: such are never joined side by side`,
    });
  voltages.forEach((volts, i) => {
    if (volts === undefined)
      gaps.push({ kind: 'not-given', path: '', label: `measured voltage of ${(i === 0 ? a : b).tag}` });
  });
  if (linkOhm === undefined)
    gaps.push({ kind: 'not-given', path: '', label: 'resistance of what joins them' });
  const limits = [...limitsOf(a, of), ...limitsOf(b, against), ...fusesOf(design, a), ...fusesOf(design, b)];
  if (gaps.length > 0) return { input: null, limits, gaps };
  const side = (data: ModuleData[], voltageV: number) => ({
    voltageV,
    resistanceOhm: data.reduce(
      (sum, { cell, cellsInSeries, cellsInParallel }) =>
        sum + (cell.resistanceOhm * cellsInSeries) / cellsInParallel,
      0,
    ),
    capacityAh: Math.min(...data.map(({ cell, cellsInParallel }) => cell.capacityAh * cellsInParallel)),
  });
  return {
    input: {
      a: side(of, voltages[0]!),
      b: side(against, voltages[1]!),
      linkResistanceOhm: linkOhm!,
      currentLimitA: Math.min(...limits.map(({ currentA }) => currentA)),
      series: series(of),
      ocvTable: of[0]!.cell.ocvTable,
      ...(benchCurrentA !== undefined && { benchCurrentA }),
    },
    limits,
    gaps: [],
  };
}

/** What the modules of a side may carry without end. */
const limitsOf = ({ tag }: MatchSide, data: ModuleData[]): MatchLimit[] =>
  data.length === 0
    ? []
    : [
        {
          label: `${tag}: modules, continuous`,
          currentA: Math.min(...data.map(({ continuousA }) => continuousA)),
        },
      ];

/** Fuse and contactors of a string. */
function fusesOf(design: Slices, { id, tag }: MatchSide): MatchLimit[] {
  const string = design.strings[id];
  if (string === undefined) return [];
  const limits: MatchLimit[] = [];
  const fuse = design.parts[string.fuse ?? ''];
  if (fuse?.kind === 'fuse') limits.push({ label: `${tag}: fuse`, currentA: fuse.data.ratedA });
  const contactor = design.parts[string.contactor ?? ''];
  if (contactor?.kind === 'contactor')
    limits.push({ label: `${tag}: contactors, making`, currentA: contactor.data.makeA });
  return limits;
}
