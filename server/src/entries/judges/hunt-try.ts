import { list, number, oneOf, text } from '@torvek/core/shape';
import { restartSuspects } from '@torvek/core/monitoring';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';

export interface HuntTryRequest {
  kind: 'hunt-try';
  begins: boolean;
  out: string[];
  starts: number;
  restarts: number;
  remark?: string;
}

export const huntTry = defineJudge<HuntTryRequest>({
  fields: {
    begins: oneOf([true, false]),
    out: list(text(200), { maxRows: 200 }),
    starts: number({ min: 1, max: 1000, integer: true }),
    restarts: number({ min: 0, max: 1000, integer: true }),
    remark: text.optional(2000),
  },
  cross({ starts, restarts }, issue) {
    if (restarts > starts) issue('restarts', `must be at most the ${starts} starts`);
  },
  judge({ request: { begins, out, starts, restarts, remark }, bench }) {
    const known = new Map(restartSuspects(bench.job.design).map(({ id, name }) => [id, name]));
    const unique = [...new Set(out)];
    const names = unique.map((id, i) => {
      const name = known.get(id);
      if (name === undefined)
        throw invalidInput([{ path: `out.${i}`, message: 'is nothing that is suspected here' }]);
      return name;
    });
    return {
      subjects: [],
      body: {
        kind: 'hunt-try',
        begins,
        out: unique,
        names,
        starts,
        restarts,
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
