import type { Design } from '../../model/document';
import type { Case, ProcedureStep, Suspect } from '../../model/procedure';
import type { Evaluation } from '../../model/step';
import type { Measured } from '../../record';
import { prechargeFit } from '../../trade/precharge';
import { templateOf } from './procedure';

/** Beyond this miss a numerical hypothesis explains nothing. */
const explainsWithinFraction = 0.15;

/**
 * Causes that could explain a failed result, computed from the design and ranked by how closely each predicts what
 * was measured; those that predict no figure come last, in the order of the trade’s experience.
 *
 * @returns an empty list for a step that has no expectation
 */
export function suspects(
  step: ProcedureStep,
  design: Design,
  evaluation: Evaluation,
  measured: Measured,
): Suspect[] {
  const { expected } = step;
  if (expected === null) return [];
  const value = measuredFigure({ step, expected, design, evaluation }, measured);
  if (value === null) return [];
  const made = templateOf(step).causes?.({ step, expected, design, evaluation }, value, measured) ?? [];
  const numeric = made
    .filter((one) => one.predicts !== null)
    .map(({ predicts, ...one }) => ({ ...one, missFraction: miss(value, predicts!) }))
    .filter(({ missFraction }) => missFraction <= explainsWithinFraction)
    .sort((a, b) => a.missFraction - b.missFraction);
  const others = made
    .filter(({ predicts }) => predicts === null)
    .map(({ predicts: _none, ...one }) => ({ ...one, missFraction: null }));
  return [...numeric, ...others];
}

const miss = (value: number, predicted: number) =>
  Math.abs(value - predicted) / Math.max(Math.abs(value), Math.abs(predicted), 1e-12);

/** The one figure hypotheses are held against: the value, or the capacitance a trace fits. */
function measuredFigure({ expected }: Case, measured: Measured): number | null {
  if (measured.kind === 'value') return measured.value;
  if (expected.kind !== 'rise' || measured.kind !== 'trace') return null;
  const { samples, packVoltageV } = measured;
  const parsed = prechargeFit.parse({ packVoltageV, resistanceOhm: expected.resistanceOhm, samples });
  return parsed.ok ? prechargeFit.calculate(parsed.input).result.capacitanceF : null;
}
