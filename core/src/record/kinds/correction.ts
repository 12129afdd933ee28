import { defineKind } from '../kind';
import { seq, words } from '../shapes';

/** Sets an earlier entry right; the earlier one stays. */
export interface CorrectionBody {
  kind: 'correction';
  of: number;
  reason: string;
}

export const correction = defineKind<CorrectionBody>({
  kind: 'correction',
  many: 'corrections',
  fields: { of: seq, reason: words(2000) },
  stands: 'never',
  title: ({ of }) => `Entry ${of} corrected`,
});
