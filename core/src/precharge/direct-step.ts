import { figureId, type Figure } from '../figure';
import { gapsBehind, type StepDefinition } from '../step';
import { ownBuses } from './bus-step';
import { capacitanceOf, packHighest } from './places';

/**
 * What rushes in where a branch’s contactors close onto empty capacitors without a resistor: the pack’s highest voltage
 * over the branch’s own cable and contacts, for the capacitors of the main bus feed it, not the pack alone.
 */
export const directStep: StepDefinition = {
  id: 'precharge.direct',
  version: 1,
  subjects: (design) => ownBuses(design).filter((id) => design.circuits[id]!.resistor === undefined),
  compute(subject, read) {
    const voltage = read.figure(packHighest);
    const capacitance = read.figure(capacitanceOf(subject));
    const loop = read.figure(figureId('conductor.loop', subject, 'loopOhm'));
    const gaps = [voltage, capacitance, loop].flatMap((one) => (one.value === null ? gapsBehind(one) : []));
    if (loop.value !== null && !(loop.value > 0))
      gaps.push({
        kind: 'invalid',
        path: `circuits.${subject}.contactOhm`,
        label: 'contacts',
        message: 'leave no resistance in the loop',
      });
    const [v, c, r] = [voltage.value ?? 0, capacitance.value ?? 0, loop.value ?? 1];
    const input = (symbol: string, figure: Figure) => ({
      symbol,
      value: figure.value ?? 0,
      unit: figure.unit,
      origin: { kind: 'figure' as const, id: figure.id },
    });
    const figure = (
      name: string,
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
        figure('inrushA', 'Inrush without pre-charge', 'A', v / r, {
          symbol: 'I_in',
          formula: 'V/R',
          inputs: [input('V', voltage), input('R', loop)],
          source: 'Empty capacitors are a short at first',
        }),
        figure('i2tA2s', 'I²t of the inrush', 'A²s', (c * v * v) / (2 * r), {
          symbol: 'W_in',
          formula: 'C·V²/(2·R)',
          inputs: [input('C', capacitance), input('V', voltage), input('R', loop)],
          source: 'First-order RC circuit',
        }),
      ],
      checks: [],
    };
  },
};
