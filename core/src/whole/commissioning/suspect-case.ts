import type { Design } from '../../model/document';
import type { Evaluation } from '../../model/step';
import type { Expectation, ProcedureStep } from './procedure-builder';

/** A cause that would explain a failed result. */
export interface Suspect {
  cause: string;
  /** The numbers that speak for it. */
  because: string;
  /** What to do to be sure. */
  check: string;
  /** How far what it predicts lies from what was measured, as a share; null: it predicts no figure. */
  missFraction: number | null;
}

/** A cause with the value the step would have read because of it. */
export interface Hypothesis extends Omit<Suspect, 'missFraction'> {
  predicts: number | null;
}

export interface Case {
  step: ProcedureStep;
  expected: Expectation;
  design: Design;
  evaluation: Evaluation;
}

/**
 * Causes that could explain a failed result, computed from the design and ranked by how closely each predicts what
 * was measured; those that predict no figure come last, in the order of the trade's experience.
 *
 * @returns an empty list for a step that has no expectation
 */

/** The figure a step expects, where there is one. */
export const nominalOf = (expected: Expectation): number | null => {
  if (expected.kind === 'rise') return expected.capacitanceF;
  if (expected.kind === 'hold' || expected.kind === 'ladder' || expected.kind === 'list') return null;
  if (expected.nominal !== undefined) return expected.nominal;
  const { min, max } = expected;
  return min !== undefined && max !== undefined ? (min + max) / 2 : null;
};
