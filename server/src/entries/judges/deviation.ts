import { number, oneOf, text } from '@torvek/core/calculator';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects, subjectIds } from '../subjects';

export interface DeviationRequest {
  kind: 'deviation';
  of: number;
  tried: string;
  cause?: string;
  cured: boolean;
  subjects: string[];
}

export const deviation = defineJudge<DeviationRequest>({
  fields: {
    of: number({ min: 1, integer: true }),
    tried: text(2000),
    cause: text.optional(300),
    cured: oneOf([true, false]),
    subjects: subjectIds,
  },
  judge({ request: { of, tried, cause = null, cured, subjects }, bench }) {
    const failed = bench.entries.find(({ seq }) => seq === of);
    if (failed?.body.kind !== 'result' || failed.body.verdict !== 'fail')
      throw invalidInput([{ path: 'of', message: 'is no failed result of this job that counts' }]);
    return {
      subjects: namedSubjects(bench.job, subjects),
      body: { kind: 'deviation', of, tried, cause, cured },
    };
  },
});
