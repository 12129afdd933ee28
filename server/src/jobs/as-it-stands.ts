import { assess, liveStateOf, type Assessment, type LiveState } from '@torvek/core/design';
import { asBuilt } from '@torvek/core/built';
import type { Design } from '@torvek/core/document';
import type { ProcedureStep } from '@torvek/core/commissioning';
import type { Evaluation } from '@torvek/core/step';
import type { Rooms } from '../rooms';
import { evaluatedAsBuilt } from './evaluated';
import type { Job } from './jobs';

/** A job as it stands: what follows from its design as built, and from its record up to now. */
export interface AsItStands {
  /** With what was really fitted and cut: what the figures are of. */
  design: Design;
  evaluation: Evaluation;
  procedure: ProcedureStep[];
  assessment: Assessment;
  live: LiveState;
}

export async function asItStands({ ledger }: Pick<Rooms, 'ledger'>, job: Job): Promise<AsItStands> {
  const entries = await ledger.standing(job.id);
  const { design } = asBuilt(job.design, entries);
  const { evaluation, procedure } = evaluatedAsBuilt(job, entries);
  const assessment = assess(evaluation, procedure, entries, { practice: job.demo });
  return {
    design,
    evaluation,
    procedure,
    assessment,
    live: liveStateOf(job.design, assessment.position, entries),
  };
}
