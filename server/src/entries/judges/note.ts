import { list, text } from '@torvek/core/shape';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';

export interface NoteRequest {
  kind: 'note';
  text: string;
  subjects?: string[];
}

export const note = defineJudge<NoteRequest>({
  fields: { text: text(4000), subjects: list.optional(text(80), { maxRows: 500 }) },
  judge: ({ request: { text: words, subjects = [] }, bench }) => ({
    subjects: namedSubjects(bench.job, subjects),
    body: { kind: 'note', text: words },
  }),
});
