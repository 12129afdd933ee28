import { number, oneOf, record, text } from '@torvek/core/shape';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects, subjectIds } from '../subjects';

export interface DeviationRequest {
  kind: 'deviation';
  of: number;
  tried: string;
  cause?: string;
  cured: boolean;
  found?: string;
  came?: { times: number; tries: number };
  swap?: { part: string; before: string; after: string };
  subjects: string[];
}

export const deviation = defineJudge<DeviationRequest>({
  fields: {
    of: number({ min: 1, integer: true }),
    tried: text(2000),
    cause: text.optional(300),
    cured: oneOf([true, false]),
    found: text.optional(2000),
    came: record.optional({
      times: number({ min: 0, max: 100_000, integer: true }),
      tries: number({ min: 1, max: 100_000, integer: true }),
    }),
    swap: record.optional({ part: text(300), before: text(1000), after: text(1000) }),
    subjects: subjectIds,
  },
  cross({ came, cured }, issue) {
    if (came === undefined) return;
    if (came.times > came.tries) issue('came.times', `must be at most the ${came.tries} tries`);
    else if (cured && came.times > 0) issue('cured', 'it came again: it is not cured');
  },
  judge({ request: { of, tried, cause = null, cured, found, came, swap, subjects }, bench }) {
    const failed = bench.entries.find(({ seq }) => seq === of);
    if (failed?.body.kind !== 'result' || failed.body.verdict !== 'fail')
      throw invalidInput([{ path: 'of', message: 'is no failed result of this job that counts' }]);
    return {
      subjects: namedSubjects(bench.job, subjects),
      body: {
        kind: 'deviation',
        of,
        tried,
        cause,
        cured,
        ...(found !== undefined && { found }),
        ...(came !== undefined && { came }),
        ...(swap !== undefined && { swap }),
      },
    };
  },
});
