import { number, record, text } from '@torvek/core/shape';
import type { Measured } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge, type Case, type Judged } from '../court';
import { judgeResult, measuredShapes, shapeOfMeasured } from './result';

export interface CorrectionRequest {
  kind: 'correction';
  of: number;
  reason: string;
  /** Of a result: what is right. It is judged anew, as an entry of its own right after the correction. */
  right?: Measured;
}

const right = record.optionalBy<keyof typeof measuredShapes>(measuredShapes, shapeOfMeasured);

export const correction = defineJudge<CorrectionRequest>({
  fields: { of: number({ min: 1, integer: true }), reason: text(2000), right },
  async judge({ request: { of, reason, right: value }, bench }) {
    const target = await bench.at(of);
    if (target === null) throw invalidInput([{ path: 'of', message: 'is no entry of this job' }]);
    const { body } = target;
    if (
      body.kind === 'sent' ||
      (body.kind === 'arrival' && body.items.some(({ from }) => from !== undefined))
    )
      throw new HttpError(
        409,
        'moved',
        `entry ${of} is half of a move between two jobs: send the thing back instead`,
      );
    return {
      subjects: target.subjects,
      body: { kind: 'correction', of, reason, ...(value !== undefined && { anew: true as const }) },
    };
  },
});

/**
 * The result that takes the place of a corrected one: taken when and by what that was, behind the same gate, of the same thing.
 *
 * @throws HttpError when the corrected entry is no result that counts, or what is right cannot be judged
 */
export async function rightResult(
  asked: Case<CorrectionRequest>,
): Promise<{ takenAt: string; judged: Judged<'result'> }> {
  const { request, bench, court } = asked;
  const { of, reason, right: measured } = request;
  const wrong = await bench.at(of);
  if (wrong?.body.kind !== 'result')
    throw invalidInput([{ path: 'right', message: 'goes with a result alone' }]);
  if (bench.entries.every(({ seq }) => seq !== of))
    throw new HttpError(409, 'not-standing', `entry ${of} does not count any more: record a new result`);
  const { body } = wrong;
  const judged = await judgeResult(
    {
      bench,
      court,
      request: {
        id: request.id,
        takenAt: wrong.takenAt,
        kind: 'result',
        step: body.step,
        measured: measured!,
        entered: body.entered,
        instrument: wrong.instrument!,
        remark: `instead of entry ${of}: ${reason}`.slice(0, 2000),
      },
    },
    { ...wrong, body },
  );
  return { takenAt: wrong.takenAt, judged };
}
