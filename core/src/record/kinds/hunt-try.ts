import { list, number, oneOf, text } from '../../ground/shape';
import { defineKind } from '../kind';
import { remark, words } from '../shapes';

/** One try in the hunt for what makes a monitoring unit restart. */
export interface HuntTryBody {
  kind: 'hunt-try';
  /** The first of a hunt: those before are of an earlier one. */
  begins: boolean;
  /** What was out of the way, by id and by name. */
  out: string[];
  names: string[];
  /** Cold starts, and after how many of them it restarted by itself. */
  starts: number;
  restarts: number;
  remark?: string;
}

export const huntTry = defineKind<HuntTryBody>({
  kind: 'hunt-try',
  many: 'tries of a hunt',
  fields: {
    begins: oneOf([true, false]),
    out: list(text(200), { maxRows: 200 }),
    names: list(words(300), { maxRows: 200 }),
    starts: number({ min: 1, max: 1000, integer: true }),
    restarts: number({ min: 0, max: 1000, integer: true }),
    remark,
  },
  stands: 'always',
  title: ({ names }) =>
    names.length === 0 ? 'Restarts hunted: as it stands' : `Restarts hunted without ${names.join(', ')}`,
  outcome: ({ starts, restarts }) =>
    restarts === 0 ? `quiet in ${starts} starts` : `restarted in ${restarts} of ${starts} starts`,
});
