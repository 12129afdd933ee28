import { oneOf, orNull } from '../../ground/calculator';
import { defineKind } from '../kind';
import { seq, words } from '../shapes';

/** Something that was tried after a failed result; makes results on what it touched due again. */
export interface DeviationBody {
  kind: 'deviation';
  /** The failed result. */
  of: number;
  tried: string;
  /** The suspected cause it was about. */
  cause: string | null;
  /** It cured what was seen. */
  cured: boolean;
}

export const deviation = defineKind<DeviationBody>({
  kind: 'deviation',
  many: 'deviations',
  fields: { of: seq, tried: words(2000), cause: orNull(words(300)), cured: oneOf([true, false]) },
  stands: 'always',
  title: ({ of, tried }) => `On the failed entry ${of}: ${tried}`,
  outcome: ({ cured }) => (cured ? 'cured it' : 'did not cure it'),
});
