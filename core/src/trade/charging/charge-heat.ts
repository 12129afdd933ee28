import type { Figure, FigureId } from '../../ground/figure';
import type { Run } from '../../model/step';
import type { ChargeCurveInput, ChargeCurveResult } from './charge-curve';

/** Heat of the pack over a charge, W, mean; null: nothing is charged. */
const heatOf = ({ minutes, lossKWh }: ChargeCurveResult): number | null =>
  minutes === 0 ? null : (lossKWh * 60_000) / minutes;

/**
 * The heat of the pack over a charge as a figure, with its working or why there is none.
 *
 * @param what names the charge where it takes nothing
 */
export function chargeHeat(
  id: FigureId,
  label: string,
  what: string,
  { result, gaps }: Pick<Run<ChargeCurveInput, ChargeCurveResult>, 'result' | 'gaps'>,
): Figure {
  const value = result === null ? null : heatOf(result);
  if (result === null || value === null)
    return {
      id,
      label,
      unit: 'W',
      value: null,
      gaps: gaps.length > 0 ? gaps : [{ kind: 'never', label: `${what}: takes nothing` }],
      working: [],
    };
  return {
    id,
    label,
    unit: 'W',
    value,
    gaps: [],
    working: [
      {
        symbol: 'P',
        label: 'Heat of the pack',
        formula: '60·E_loss/t',
        inputs: [
          { symbol: 'E_loss', value: result.lossKWh * 1000, unit: 'Wh' },
          { symbol: 't', value: result.minutes, unit: 'min' },
        ],
        value,
        unit: 'W',
        source: 'Mean over the charge',
      },
    ],
  };
}
