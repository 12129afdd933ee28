import type { CircuitItem } from '../../model/document';
import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import type { Run } from '../../model/step';
import { inrushPeakA } from './inrush';
import type { inrushLoopOf } from './path-step';
import { packHighest } from './places';
import { busVoltageAt, type PrechargeInput, type PrechargeResult } from './precharge';

/**
 * What the main closes on, as it is controlled: at the threshold, at the timer, or not at all where the threshold is not
 * reached in time; and the inrush then, through what is really there.
 */
export function closingFigures(
  figures: Figure[],
  subject: string,
  { completion, timerS }: Pick<CircuitItem, 'completion' | 'timerS'>,
  { input, result }: Run<PrechargeInput, PrechargeResult>,
  { loop, gaps: noLoop, figures: [path, capacitance] }: ReturnType<typeof inrushLoopOf>,
): Figure[] {
  if (input === null || result === null) return figures;
  const at = (name: FigureName<'precharge.run'>) => figureId('precharge.run', subject, name);
  const voltage = figures.find(({ id }) => id === at('voltageAtCloseV'))!;
  const closes = closingVoltage(voltage, subject, { completion, timerS }, input, result);
  const inrush = figures.find(({ id }) => id === at('inrushA'))!;
  const gaps = closes.value === null ? closes.gaps : noLoop;
  const flows =
    closes.value === null || loop === null
      ? { ...inrush, value: null, gaps, working: [] }
      : inrushFigure(inrush, closes, input.packVoltageV, loop, path, capacitance);
  return figures.map((figure) => (figure === voltage ? closes : figure === inrush ? flows : figure));
}

function closingVoltage(
  figure: Figure,
  subject: string,
  { completion, timerS }: Pick<CircuitItem, 'completion' | 'timerS'>,
  input: PrechargeInput,
  result: PrechargeResult,
): Figure {
  const none = (...gaps: Gap[]) => ({ ...figure, value: null, gaps, working: [] });
  if (completion !== 'timer')
    return result.completes
      ? figure
      : none({ kind: 'never', label: 'The main does not close: the threshold is not reached in time' });
  const path = `circuits.${subject}.timerS`;
  if (timerS === undefined || !(timerS > 0)) return none({ kind: 'not-given', path, label: 'timer' });
  const value = busVoltageAt(input, timerS);
  return {
    ...figure,
    value,
    gaps: [],
    working: [
      ...figure.working.slice(0, -1),
      {
        symbol: 'v',
        label: figure.label,
        formula: 'V_f·(1 − exp(−t/τ))',
        inputs: [
          { symbol: 'V_f', value: result.finalVoltageV, unit: 'V' },
          { symbol: 't', label: 'the timer', value: timerS, unit: 's', origin: { kind: 'document', path } },
          { symbol: 'τ', value: result.timeConstantS, unit: 's' },
        ],
        value,
        unit: 'V',
        source: 'First-order RC circuit with a parallel load, at the timer',
      },
    ],
  };
}

function inrushFigure(
  figure: Figure,
  closes: Figure,
  packVoltageV: number,
  loop: NonNullable<ReturnType<typeof inrushLoopOf>['loop']>,
  path: Figure,
  capacitance: Figure,
): Figure {
  const value = inrushPeakA(packVoltageV - closes.value!, loop);
  const held = loop.atMostA !== undefined && value >= loop.atMostA;
  const swings = !held && loop.inductanceH !== undefined && loop.inductanceH > 0;
  const V = {
    symbol: 'V',
    value: packVoltageV,
    unit: 'V',
    origin: { kind: 'figure' as const, id: packHighest },
  };
  const v = {
    symbol: 'v',
    value: closes.value!,
    unit: 'V',
    origin: { kind: 'figure' as const, id: closes.id },
  };
  const R = {
    symbol: 'R_i',
    value: loop.loopOhm,
    unit: 'Ω',
    origin: { kind: 'figure' as const, id: path.id },
  };
  const step = held
    ? {
        formula: 'I_max',
        inputs: [{ symbol: 'I_max', label: 'the largest fault of this place', value, unit: 'A' }],
        source: 'Capacitors that fill take no more than a short does',
      }
    : swings
      ? {
          formula: '(V − v)·√(C/L)·exp(−R_i·t/(2·L))',
          inputs: [
            V,
            v,
            R,
            { symbol: 'L', value: loop.inductanceH!, unit: 'H' },
            {
              symbol: 'C',
              value: loop.capacitanceF,
              unit: 'F',
              origin: { kind: 'figure' as const, id: capacitance.id },
            },
          ],
          source: 'Step response of a series circuit of R, L and C at its peak, t the moment of the peak',
        }
      : { formula: '(V − v)/R_i', inputs: [V, v, R], source: 'Ohm’s law at the moment of closing' };
  const { label, unit } = figure;
  return { ...figure, value, gaps: [], working: [{ symbol: 'I_in', label, unit, value, ...step }] };
}
