import { oneOf, text } from '@torvek/core/shape';
import { snagGates } from '@torvek/core/record';
import { defineJudge } from '../court';
import { namedSubjects, subjectIds } from '../subjects';

export interface SnagRequest {
  kind: 'snag';
  what: string;
  gate: string;
  subjects: string[];
}

export const snag = defineJudge<SnagRequest>({
  fields: { what: text(500), gate: oneOf(snagGates.map(({ id }) => id)), subjects: subjectIds },
  judge: ({ request: { what, gate, subjects }, bench }) => ({
    subjects: namedSubjects(bench.job, subjects),
    body: { kind: 'snag', what, gate },
  }),
});
