import { number, record, text } from '@torvek/core/shape';
import { behaviours, standInNames, standInReading } from '@torvek/core/commissioning';
import type { Instrument } from '@torvek/core/record';
import { HttpError, invalidInput } from '../http/errors';
import { route, type Route } from '../http/route';
import { evaluated } from '../jobs/evaluated';
import type { Jobs } from '../jobs/jobs';

interface ReadingRequest {
  step: string;
  behaviour: string;
  seed: number;
}

/** Stand-in instruments: they read what the design says should be there, or misbehave as told. */
export function standInRoutes(jobs: Jobs): Route[] {
  return [
    route<ReadingRequest>({
      method: 'post',
      path: '/jobs/:job/stand-ins',
      role: 'technician',
      door: { schema: record({ step: text(160), behaviour: text(40), seed: number({ integer: true }) }) },
      async handle({ params, body }) {
        const job = await jobs.get(params.job!);
        const { evaluation, procedure } = evaluated(job);
        const step = procedure.find(({ id }) => id === body.step);
        if (step === undefined)
          throw invalidInput([{ path: 'step', message: 'is no step of this design’s procedure' }]);
        if (!behaviours[step.instrument].some(({ id }) => id === body.behaviour)) {
          throw invalidInput([{ path: 'behaviour', message: 'is nothing this instrument can do' }]);
        }
        const measured = standInReading(step, job.design, evaluation, body.behaviour, body.seed);
        if (measured === null)
          throw new HttpError(409, 'not-computed', 'the expectation of this step is not computed');
        const instrument: Instrument = {
          kind: step.instrument,
          name: standInNames[step.instrument],
          standIn: true,
          behaviour: body.behaviour,
        };
        return { measured, instrument };
      },
    }),
  ];
}
