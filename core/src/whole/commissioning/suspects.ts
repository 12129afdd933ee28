import type { Design } from '../../model/document';
import { chargeCauses } from './suspect-charge';
import { coolantCauses } from './suspect-coolant';
import { prechargeFit } from '../../trade/precharge';
import type { Measured } from '../../record';
import type { Evaluation } from '../../model/step';
import type { ProcedureStep } from './procedure-builder';
import { dischargeCauses, riseCauses } from './suspect-bus';
import type { Case, Hypothesis, Suspect } from './suspect-case';
import { deadBusCauses, insulationCauses, packCauses } from './suspect-pack';
import { moduleCauses, resistanceCauses, slips } from './suspect-parts';

export type { Suspect } from './suspect-case';

/** Beyond this miss a numerical hypothesis explains nothing. */
const explainsWithinFraction = 0.15;

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
  const made = hypotheses({ step, expected, design, evaluation }, value, measured);
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

function hypotheses(of: Case, value: number, measured: Measured): Hypothesis[] {
  const template = of.step.id.split(':')[0];
  switch (template) {
    case 'intake-voltage':
    case 'intake-rested':
      return [...slips(of, value), ...moduleCauses(of, value)];
    case 'polarity':
      return [...slips(of, value), ...packCauses(of)];
    case 'charge-stop':
    case 'charge-cut':
    case 'charge-pilot':
    case 'charge-cable':
    case 'charge-current':
    case 'charge-lost':
    case 'inlet-weld':
    case 'load-drop':
    case 'converter-load':
      return [...slips(of, value), ...chargeCauses(of, template)];
    case 'precharge-resistor':
    case 'bleed-resistance':
      return [...slips(of, value), ...resistanceCauses(of, template, value)];
    case 'insulation-negative':
    case 'insulation-positive':
    case 'insulation-branch':
      return insulationCauses(of, value);
    case 'bus-dead':
      return deadBusCauses(of, value);
    case 'precharge-time':
    case 'precharge-curve':
      return riseCauses(of, value, measured);
    case 'warm-box':
    case 'flow-loop':
      return coolantCauses(of, value);
    case 'stop-discharge':
      return dischargeCauses(of, value);
    default:
      return [];
  }
}
