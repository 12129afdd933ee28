import { laid, switchedCircuits, type Design } from '../../model/document';
import { prechargedCircuits } from '../../trade/precharge';
import type { Evaluation } from '../../model/step';
import { Builder, type ProcedureStep } from './procedure-builder';
import { bleedResistances, circuitParts, coils } from './procedure-circuits';
import { charging } from './procedure-charge';
import { coolant, coolantUnderLoad } from './procedure-coolant';
import { firstHv, polarity } from './procedure-hv';
import { insulation } from './procedure-insulation';
import { intakeSteps } from './procedure-intake';
import { powerUp } from './procedure-power-up';
import { routes } from './procedure-routes';
import { senseLadders } from './procedure-sense';
import { bonds, branchPolarity, torques } from './procedure-wiring';

/** The procedure for a design: what to do, in which gate, and what is expected, with what it rests on. */
export function procedureFor(asDrawn: Design, evaluation: Evaluation): ProcedureStep[] {
  const design = laid(asDrawn);
  const builder = new Builder(design, evaluation);
  intakeSteps(builder);
  for (const id of prechargedCircuits(design)) circuitParts(builder, id);
  bleedResistances(builder);
  torques(builder);
  bonds(builder);
  routes(builder);
  branchPolarity(builder);
  for (const id of switchedCircuits(design)) coils(builder, id);
  coolant(builder);
  insulation(builder);
  senseLadders(builder);
  powerUp(builder);
  polarity(builder);
  for (const id of prechargedCircuits(design)) firstHv(builder, id);
  charging(builder);
  coolantUnderLoad(builder);
  return builder.steps;
}
