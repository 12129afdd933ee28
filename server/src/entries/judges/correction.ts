import { number, text } from '@torvek/core/calculator';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';

export interface CorrectionRequest {
  kind: 'correction';
  of: number;
  reason: string;
}

export const correction = defineJudge<CorrectionRequest>({
  fields: { of: number({ min: 1, integer: true }), reason: text(2000) },
  async judge({ request: { of, reason }, bench }) {
    const target = await bench.at(of);
    if (target === null) throw invalidInput([{ path: 'of', message: 'is no entry of this job' }]);
    return { subjects: target.subjects, body: { kind: 'correction', of, reason } };
  },
});
