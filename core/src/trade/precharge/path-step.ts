import { mainCircuits, type Design, type Id } from '../../model/document';
import { figureId, type Figure, type Gap } from '../../ground/figure';
import { packWarm } from '../pack';
import { gapsBehind, type Reader, type StepDefinition } from '../../model/step';
import { ownBuses } from './bus-step';
import type { InrushLoop } from './inrush';
import { capacitanceOf } from './places';

/** The resistance of the path through which a circuit’s capacitors fill when its contacts close. */
export const pathOf = (circuit: Id) => figureId('precharge.path', circuit, 'pathOhm');

/** Circuits whose contacts close in front of capacitors. */
export const fillingCircuits = (design: Pick<Design, 'circuits' | 'devices'>): Id[] => [
  ...mainCircuits(design),
  ...ownBuses(design),
];

/** The path of an inrush: the warm pack, the cable out and back and its contacts, unless the design states one. */
export const pathStep: StepDefinition = {
  id: 'precharge.path',
  version: 1,
  subjects: fillingCircuits,
  compute(subject, read) {
    const { loopResistanceOhm: stated } = read.at('circuits', subject)!;
    const path = `circuits.${subject}.loopResistanceOhm`;
    const invalid = (message: string): Gap => ({ kind: 'invalid', path, label: 'loop resistance', message });
    const figureOf = (gaps: Gap[], working: Omit<Figure['working'][number], 'label' | 'unit'>): Figure => {
      const [label, unit] = ['Path of the inrush', 'Ω'];
      return {
        id: pathOf(subject),
        label,
        unit,
        value: gaps.length > 0 ? null : working.value,
        gaps,
        working: gaps.length > 0 ? [] : [{ ...working, label, unit }],
      };
    };
    if (stated !== undefined) {
      const figure = figureOf(stated > 0 ? [] : [invalid('must be above 0')], {
        symbol: 'R_i',
        formula: 'R_given',
        inputs: [{ symbol: 'R_given', value: stated, unit: 'Ω', origin: { kind: 'document', path } }],
        value: stated,
        source: 'Stated in the design',
      });
      return { figures: [figure], checks: [] };
    }
    const warm = read.figure(packWarm);
    const loop = read.figure(figureId('conductor.loop', subject, 'loopOhm'));
    const gaps = [warm, loop].flatMap((one) => (one.value === null ? gapsBehind(one) : []));
    const value = (warm.value ?? 0) + (loop.value ?? 0);
    if (gaps.length === 0 && !(value > 0)) gaps.push(invalid('is 0: the inrush has no limit'));
    const input = (symbol: string, figure: Figure) => ({
      symbol,
      label: figure.label,
      value: figure.value ?? 0,
      unit: 'Ω',
      origin: { kind: 'figure' as const, id: figure.id },
    });
    return {
      figures: [
        figureOf(gaps, {
          symbol: 'R_i',
          formula: 'R_w + R_p',
          inputs: [input('R_w', warm), input('R_p', loop)],
          value,
          source: 'The warm pack, the cable out and back and its contacts',
        }),
      ],
      checks: [],
    };
  },
};

/** What an inrush of a circuit flows through, or what of it is missing. */
export function inrushLoopOf(
  read: Reader,
  circuit: Id,
  bus: string,
): { loop: InrushLoop | null; figures: [path: Figure, capacitance: Figure]; gaps: Gap[] } {
  const path = read.figure(pathOf(circuit));
  const capacitance = read.figure(capacitanceOf(bus));
  const largest = read.figure(figureId('fuse.fault', `${circuit}/largest`, 'prospectiveA'));
  const { loopInductanceH } = read.at('circuits', circuit)!;
  const gaps: Gap[] = [path, capacitance].flatMap((one) => (one.value === null ? gapsBehind(one) : []));
  if (loopInductanceH !== undefined && !(loopInductanceH >= 0))
    gaps.push({
      kind: 'invalid',
      path: `circuits.${circuit}.loopInductanceH`,
      label: 'loop inductance',
      message: 'must be 0 or more',
    });
  const loop =
    gaps.length > 0
      ? null
      : {
          loopOhm: path.value!,
          inductanceH: loopInductanceH,
          capacitanceF: capacitance.value!,
          atMostA: largest.value ?? undefined,
        };
  return { loop, figures: [path, capacitance], gaps };
}
