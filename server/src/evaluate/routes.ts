import { HttpError } from '../http/errors';
import { route, type Route } from '../http/route';
import { EvaluationPool } from './pool';

/** Largest body: a design of a hundred circuits takes a tenth of it. */
const mostBytes = 4 * 1024 * 1024;
const pool = new EvaluationPool();

/** A door for whole designs: what follows from one, with changes on top, for anybody, out of nobody’s record. */
export const evaluateRoutes: Route[] = [
  route<Uint8Array>({
    method: 'post',
    path: '/evaluate',
    role: 'public',
    // Its JSON is read in the thread, too.
    rawLimitBytes: mostBytes,
    async handle({ body }) {
      const answer = await pool.answer(body instanceof Uint8Array ? new Uint8Array(body) : new Uint8Array());
      if (answer.ok) return answer.outline;
      const [first] = answer.issues;
      throw new HttpError(
        answer.status,
        answer.status === 400 ? 'not-json' : 'invalid-input',
        `${first?.path ?? ''} ${first?.message ?? ''}`.trim(),
        answer.issues,
      );
    },
  }),
];
