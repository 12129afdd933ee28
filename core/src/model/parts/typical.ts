import { integrate } from '../../ground/math';
import type { Issue } from '../../ground/shape';
import { formatNumber } from '../../ground/quantity';
import { typicalOcv } from './catalogue/modules';
import type { Chemistry, ModuleData } from './kinds';

/** What a label and a scale tell of a module of which nothing else is known. */
export interface LabelledModule {
  chemistry: Chemistry;
  /** As on its label. */
  nominalV: number;
  /** Of the whole module. */
  capacityAh: number;
  massKg: number;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  /** Where it was counted; absent: by the nominal voltage. */
  cellsInSeries?: number;
}

/** Cautious figures of cells by chemistry: resistance over 10 s times capacity, Ω·Ah, and the voltages a cell is kept within. */
const typical: Record<Chemistry, { ohmAh: number; minV: number; maxV: number }> = {
  NMC: { ohmAh: 0.09, minV: 3, maxV: 4.2 },
  LFP: { ohmAh: 0.07, minV: 2.5, maxV: 3.65 },
  LMO: { ohmAh: 0.06, minV: 3, maxV: 4.2 },
};

/** A label rounds: so far may a cell’s share of it lie from the mean of its curve, V. */
const labelOffV = 0.15;

/** A cell’s voltage in the middle of its charge, by its typical curve, V. */
export const typicalCellV = (chemistry: Chemistry): number => integrate(typicalOcv[chemistry], 0, 1);

/**
 * A module of which only the label, the mass and the size are known: curve, resistance and limits are typical of its chemistry
 * (currents of 1 C for long and 2 C for 10 s, charged with half of that), and it is marked as such. Cells side by side are taken
 * as one of their whole capacity.
 */
export function typicalModule(
  asked: LabelledModule,
): { ok: true; data: ModuleData } | { ok: false; issues: Issue[] } {
  const { chemistry, nominalV, capacityAh, massKg, lengthMm, widthMm, heightMm } = asked;
  const cellV = typicalCellV(chemistry);
  const positive = (['nominalV', 'capacityAh', 'massKg', 'lengthMm', 'widthMm', 'heightMm'] as const).filter(
    (name) => !(asked[name] > 0 && Number.isFinite(asked[name])),
  );
  if (positive.length > 0)
    return { ok: false, issues: positive.map((path) => ({ path, message: 'must be above 0' })) };
  const cellsInSeries = asked.cellsInSeries ?? Math.max(1, Math.round(nominalV / cellV));
  if (!Number.isInteger(cellsInSeries) || cellsInSeries < 1 || cellsInSeries > 500)
    return {
      ok: false,
      issues: [{ path: 'cellsInSeries', message: 'must be a whole number from 1 to 500' }],
    };
  const offV = nominalV / cellsInSeries - cellV;
  if (Math.abs(offV) > labelOffV)
    return {
      ok: false,
      issues: [
        {
          path: asked.cellsInSeries === undefined ? 'nominalV' : 'cellsInSeries',
          message: `${cellsInSeries} ${chemistry} cells in series are about ${formatNumber(cellsInSeries * cellV)} V: look at the label again, or count the cells`,
        },
      ],
    };
  const { ohmAh, minV, maxV } = typical[chemistry];
  return {
    ok: true,
    data: {
      chemistry,
      cellsInSeries,
      cellsInParallel: 1,
      cell: {
        ocvTable: typicalOcv[chemistry].map(([soc, voltageV]) => [soc, voltageV]),
        capacityAh,
        resistanceOhm: ohmAh / capacityAh,
        minV,
        maxV,
      },
      massKg,
      lengthMm,
      widthMm,
      heightMm,
      continuousA: capacityAh,
      peakA: 2 * capacityAh,
      chargeA: capacityAh / 2,
      chargePeakA: capacityAh,
      senseLeadLimitA: 0.2,
      insulationMinMOhm: 100,
      typical: true,
    },
  };
}
