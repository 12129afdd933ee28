import { number, oneOf, orNull, record } from '../../ground/shape';
import { defineKind } from '../kind';
import { remark, seq, words } from '../shapes';

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
  /** What was found when it was looked at. */
  found?: string;
  /** A fault that comes and goes: in how many of how many tries it came. */
  came?: { times: number; tries: number };
  /** A part that was exchanged, with what was seen before and after. */
  swap?: { part: string; before: string; after: string };
}

export const deviation = defineKind<DeviationBody>({
  kind: 'deviation',
  many: 'deviations',
  fields: {
    of: seq,
    tried: words(2000),
    cause: orNull(words(300)),
    cured: oneOf([true, false]),
    found: remark,
    came: record.optional({
      times: number({ min: 0, max: 100_000, integer: true }),
      tries: number({ min: 1, max: 100_000, integer: true }),
    }),
    swap: record.optional({ part: words(300), before: words(1000), after: words(1000) }),
  },
  stands: 'always',
  title: ({ of, tried }) => `On the failed entry ${of}: ${tried}`,
  outcome: ({ cured, came }) =>
    `${cured ? 'cured it' : 'did not cure it'}${came === undefined ? '' : `, came in ${came.times} of ${came.tries}`}`,
});
