import { assess, liveStateOf, type Assessment, type LiveState } from '@torvek/core/design';
import type { ProcedureStep } from '@torvek/core/commissioning';
import type { Evaluation } from '@torvek/core/step';
import type { Rooms } from '../rooms';
import { evaluatedAsBuilt } from './evaluated';
import type { Job } from './jobs';

/** A job as it stands: what follows from its design as built, and from its record up to now. */
export interface AsItStands {
  evaluation: Evaluation;
  procedure: ProcedureStep[];
  assessment: Assessment;
  live: LiveState;
}

export async function asItStands({ ledger }: Pick<Rooms, 'ledger'>, job: Job): Promise<AsItStands> {
  const entries = await ledger.standing(job.id);
  const { evaluation, procedure } = evaluatedAsBuilt(job, entries);
  const assessment = assess(evaluation, procedure, entries, { practice: job.demo });
  return { evaluation, procedure, assessment, live: liveStateOf(job.design, assessment.position, entries) };
}
