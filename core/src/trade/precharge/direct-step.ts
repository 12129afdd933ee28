import { figureId, type Figure, type FigureName } from '../../ground/figure';
import { gapsBehind, type StepDefinition } from '../../model/step';
import { ownBuses } from './bus-step';
import { inrushPeakA } from './inrush';
import { inrushLoopOf } from './path-step';
import { packHighest } from './places';

/**
 * What rushes in where a branch’s contactors close onto empty capacitors without a resistor: the pack’s highest voltage
 * through the warm pack, the branch’s cable and its contacts, and never more than the largest fault of the place.
 */
export const directStep: StepDefinition = {
  id: 'precharge.direct',
  version: 2,
  subjects: (design) => ownBuses(design).filter((id) => design.circuits[id]!.resistor === undefined),
  compute(subject, read) {
    const voltage = read.figure(packHighest);
    const {
      loop,
      figures: [path, capacitance],
      gaps: behind,
    } = inrushLoopOf(read, subject, subject);
    const gaps = [...(voltage.value === null ? gapsBehind(voltage) : []), ...behind];
    const [v, c, r] = [voltage.value ?? 0, capacitance.value ?? 0, path.value ?? 1];
    const peakA = loop === null ? 0 : inrushPeakA(v, loop);
    const input = (symbol: string, figure: Figure) => ({
      symbol,
      value: figure.value ?? 0,
      unit: figure.unit,
      origin: { kind: 'figure' as const, id: figure.id },
    });
    const figure = (
      name: FigureName<'precharge.direct'>,
      label: string,
      unit: string,
      value: number,
      working: Omit<Figure['working'][number], 'label' | 'unit' | 'value'>,
    ): Figure => ({
      id: figureId('precharge.direct', subject, name),
      label,
      unit,
      value: gaps.length > 0 ? null : value,
      gaps,
      working: gaps.length > 0 ? [] : [{ ...working, label, unit, value }],
    });
    return {
      figures: [
        figure('inrushA', 'Inrush without pre-charge', 'A', peakA, {
          symbol: 'I_in',
          ...(peakA === v / r
            ? {
                formula: 'V/R',
                inputs: [input('V', voltage), input('R', path)],
                source: 'Empty capacitors are a short at first',
              }
            : {
                formula: 'min(I_max, V·√(C/L)·exp(−R·t/(2·L)))',
                inputs: [
                  input('V', voltage),
                  input('C', capacitance),
                  input('R', path),
                  {
                    symbol: 'L',
                    value: loop?.inductanceH ?? 0,
                    unit: 'H',
                    origin: { kind: 'document', path: `circuits.${subject}.loopInductanceH` },
                  },
                  {
                    symbol: 'I_max',
                    label: 'the largest fault of this place',
                    value: loop?.atMostA ?? 0,
                    unit: 'A',
                  },
                ],
                source:
                  'Step response of a series circuit of R, L and C at its peak, t the moment of the peak',
              }),
        }),
        figure('i2tA2s', 'I²t of the inrush', 'A²s', (c * v * v) / (2 * r), {
          symbol: 'W_in',
          formula: 'C·V²/(2·R)',
          inputs: [input('C', capacitance), input('V', voltage), input('R', path)],
          source: 'All of ½·C·V² is lost in R, with an inductance or without',
        }),
      ],
      checks: [],
    };
  },
};
