import { cellLimits, packTakesA } from '@torvek/core/charging';
import { limitDefaults, type Design } from '@torvek/core/document';
import { packLayout } from '@torvek/core/pack';
import type { Rows } from '../../../parts/csv';

export interface LimitRow {
  temperatureC: number;
  chargeA: number | null;
  dischargeA: number | null;
  /** Why it is what it is. */
  by: string;
}

/** Currents by temperature for whichever unit is fitted; null: the modules are not given. */
export function limitRows({
  strings,
  modules,
  parts,
  cooling,
}: Pick<Design, 'strings' | 'modules' | 'parts' | 'cooling'>): LimitRow[] | null {
  const { layout } = packLayout({ strings, modules, parts });
  if (layout === null) return null;
  const { data } = layout.part;
  const { chargeMinC, maxC } = cellLimits(cooling, data.chemistry);
  return [-20, -10, 0, 5, 10, 15, 20, 25, 30, 35, 40, 45, 50].map((temperatureC) => {
    if (temperatureC > maxC)
      return { temperatureC, chargeA: 0, dischargeA: 0, by: `cells at most ${maxC} °C` };
    const takes = packTakesA(data, layout.strings, temperatureC);
    const tooCold = temperatureC < chargeMinC;
    return {
      temperatureC,
      chargeA: tooCold ? 0 : takes,
      dischargeA: data.continuousA * layout.strings,
      by: tooCold
        ? `charged from ${chargeMinC} °C`
        : data.chargeOverC === undefined
          ? 'no table of the maker: one figure for all'
          : 'charging current over temperature, of the maker',
    };
  });
}

/** The table as rows of a file. */
export const limitTable = (rows: readonly LimitRow[]): Rows =>
  rows.map((row) => ({
    'temperature, °C': row.temperatureC,
    'charge at most, A': row.chargeA === null ? '' : Math.round(row.chargeA * 10) / 10,
    'discharge at most, A': row.dischargeA === null ? '' : Math.round(row.dischargeA * 10) / 10,
    by: row.by,
  }));

/** All that a unit is set to, as JSON. */
export const limitJson = (job: string, design: Design, rows: readonly LimitRow[]) => ({
  job,
  cell: {
    cutAboveV: design.limits?.cutHighV ?? null,
    warnAboveV: design.limits?.warnHighV ?? null,
    balanceFromV: design.limits?.balanceFromV ?? null,
    warnBelowV: design.limits?.warnLowV ?? null,
    cutBelowV: design.limits?.cutLowV ?? null,
    spreadMv: design.limits?.spreadMv ?? limitDefaults.spreadMv,
  },
  currents: rows.map(({ temperatureC, chargeA, dischargeA }) => ({ temperatureC, chargeA, dischargeA })),
});
