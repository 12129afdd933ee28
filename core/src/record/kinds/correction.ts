import { oneOf } from '../../ground/shape';
import { defineKind } from '../kind';
import { seq, words } from '../shapes';

/** Sets an earlier entry right; the earlier one stays. */
export interface CorrectionBody {
  kind: 'correction';
  of: number;
  reason: string;
  /** The entry after it has the right value, judged anew. */
  anew?: true;
}

export const correction = defineKind<CorrectionBody>({
  kind: 'correction',
  many: 'corrections',
  fields: { of: seq, reason: words(2000), anew: oneOf.optional([true]) },
  stands: 'never',
  title: ({ of, anew }) =>
    anew === true ? `Entry ${of} corrected: the right value follows` : `Entry ${of} corrected`,
  outcome: ({ reason }) => (reason.length <= 120 ? reason : `${reason.slice(0, 117)} …`),
});
