import { figureId, type Figure, type FigureId } from '../../ground/figure';
import { coolingDefaults, type Design, type Id } from '../../model/document';
import { packLayout } from '../pack';
import { cellLimits } from '../charging';
import { fluidAt } from './fluid';
import type { LoopAnswer } from './loop-answer';
import { loopThermal } from './loop-thermal';
import { fluidTableOf } from './pieces';

export interface SchoolRow {
  school: 'loops of their own' | 'one loop for all';
  cellsC: number | null;
  hottestC: number | null;
  limitC: number;
  verdict: string;
}

/** Both schools on the long hill; null: there are no loads of both kinds to compare. */
export function schoolsOf(
  design: Design,
  answerOf: (loop: Id) => LoopAnswer | null,
  figure: (id: FigureId) => Figure | undefined,
): SchoolRow[] | null {
  const loads: { id: Id; heatW: number; isPlate: boolean }[] = [];
  let [uaWPerK, airKgPerS, flowLPerMin] = [0, 0, 0];
  let cellsC: number | null = null;
  let hottestC: number | null = null;
  for (const loop of Object.keys(design.loops ?? {})) {
    const answer = answerOf(loop);
    const hill = answer?.cases.find(({ at }) => at === 'hill');
    if (answer === null || hill?.piecesC === null || hill?.piecesC === undefined) continue;
    hottestC = highest(hottestC, figure(figureId('cooling.loop', loop, 'hottestC'))?.value ?? null);
    answer.elements.forEach(({ id }) => {
      const piece = design.plumbing?.[id];
      const own = hill.piecesC![id] ?? null;
      if (piece === undefined || own === null) return;
      if (piece.kind === 'plate') cellsC = highest(cellsC, own.inC);
      if (own.heatW > 0) loads.push({ id, heatW: own.heatW, isPlate: piece.kind === 'plate' });
      if (piece.kind === 'radiator') {
        const own = hill.radiators[id];
        uaWPerK += own?.uaWPerK ?? 0;
        airKgPerS += own?.airKgPerS ?? 0;
      }
    });
    if (answer.elements.some(({ id }) => design.plumbing?.[id]?.kind === 'plate'))
      answer.elements.forEach(({ kind }, i) => {
        if (kind === 'pump') flowLPerMin = Math.max(flowLPerMin, hill.flows[i]!);
      });
  }
  const plates = loads.filter(({ isPlate }) => isPlate);
  const others = loads.filter(({ isPlate }) => !isPlate);
  if (plates.length === 0 || others.length === 0 || !(flowLPerMin > 0 && uaWPerK > 0 && airKgPerS > 0))
    return null;
  const { layout } = packLayout(design);
  const limitC = cellLimits(design.cooling, layout?.part.data.chemistry).maxC;
  const airInC = design.cooling?.hotC ?? coolingDefaults.hotC;
  const coolant = design.parts[Object.values(design.loops ?? {})[0]?.coolant ?? ''];
  const table = fluidTableOf(coolant?.kind === 'coolant' ? coolant.data : undefined);
  // Loops that are one already are compared with themselves: there is nothing to say.
  if (Object.keys(design.loops ?? {}).length < 2) return null;
  const { densityKgM3, specificHeatJPerKgK } = fluidAt(table, airInC + 10);
  const parsed = loopThermal.parse({
    fluid: { densityKgM3, specificHeatJPerKgK },
    flowLPerMin,
    heatLoads: [
      { id: 'cells', heatW: plates.reduce((sum, one) => sum + one.heatW, 0) },
      ...others.map(({ id, heatW }) => ({ id, heatW })),
    ],
    radiator: { uaWPerK, airFlowKgPerS: airKgPerS, airInC },
  });
  if (!parsed.ok) return null;
  const { result } = loopThermal.calculate(parsed.input);
  const say = (c: number | null) =>
    c === null
      ? 'not computed'
      : c > limitC
        ? 'too warm for the cells'
        : `${(limitC - c).toFixed(0)} K below what cells may get`;
  return [
    { school: 'loops of their own', cellsC, hottestC, limitC, verdict: say(cellsC) },
    {
      school: 'one loop for all',
      cellsC: result.coolantColdC,
      hottestC: result.coolantHotC,
      limitC,
      verdict: say(result.coolantColdC),
    },
  ];
}

const highest = (a: number | null, b: number | null) => (a === null ? b : b === null ? a : Math.max(a, b));
