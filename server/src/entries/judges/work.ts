import { list, text } from '@torvek/core/shape';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';

export interface WorkRequest {
  kind: 'work';
  what: string;
  subjects: string[];
}

export const work = defineJudge<WorkRequest>({
  fields: { what: text(2000), subjects: list(text(80), { minRows: 1, maxRows: 500 }) },
  judge: ({ request: { what, subjects }, bench }) => ({
    subjects: namedSubjects(bench.job, subjects),
    body: { kind: 'work', what },
  }),
});
