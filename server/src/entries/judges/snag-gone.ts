import { number, text } from '@torvek/core/shape';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge } from '../court';

export interface SnagGoneRequest {
  kind: 'snag-gone';
  of: number;
  how: string;
}

export const snagGone = defineJudge<SnagGoneRequest>({
  fields: { of: number({ min: 1, integer: true }), how: text(2000) },
  judge({ request: { of, how }, bench }) {
    const snag = bench.entries.find(({ seq }) => seq === of);
    if (snag?.body.kind !== 'snag')
      throw invalidInput([{ path: 'of', message: 'is no snag of this job that counts' }]);
    if (bench.entries.some(({ body }) => body.kind === 'snag-gone' && body.of === of))
      throw new HttpError(409, 'already-gone', 'this snag is gone already');
    return { subjects: snag.subjects, body: { kind: 'snag-gone', of, how } };
  },
});
