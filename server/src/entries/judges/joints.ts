import { laid } from '@torvek/core/document';
import { bondStates } from '@torvek/core/bonding';
import { list, number, oneOf, record, text } from '@torvek/core/shape';
import { jointStates } from '@torvek/core/joints';
import { jointWorks, type JointWork } from '@torvek/core/record';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { instrumentFields, instrumentOf, type AskedInstrument } from '../instrument';
import { namedSubjects } from '../subjects';

export interface JointsRequest {
  kind: 'joints';
  work: JointWork;
  /** What flowed while drops were read. */
  currentA?: number;
  instrument: AskedInstrument;
  joints: { joint: string; value: number }[];
  remark?: string;
}

/** A walk along joints or bonds: each one there is, once; a torque above 0. */
export const joints = defineJudge<JointsRequest>({
  fields: {
    work: oneOf(jointWorks),
    currentA: number.optional({ min: 0.001, max: 10_000 }),
    instrument: instrumentFields,
    joints: list(record({ joint: text(120), value: number({ min: -1000, max: 1000 }) }), {
      minRows: 1,
      maxRows: 2000,
    }),
    remark: text.optional(2000),
  },
  cross({ work, currentA }, issue) {
    if ((currentA === undefined) !== (work === 'torque'))
      issue('currentA', work === 'torque' ? 'has no place in a torque' : 'is required');
  },
  async judge(asked) {
    const { work, currentA, joints, remark } = asked.request;
    const { job } = asked.bench;
    const instrument = await instrumentOf(asked, work === 'torque' ? 'torque-wrench' : 'meter');
    const known = new Map(
      (work === 'bond' ? bondStates(laid(job.design), []) : jointStates(job.design, [])).map(
        ({ id, tag }) => [id, tag],
      ),
    );
    const seen = new Set<string>();
    const named = joints.map(({ joint, value }, i) => {
      const wrong = (field: string, message: string) =>
        invalidInput([{ path: `joints.${i}.${field}`, message }]);
      const tag = known.get(joint);
      if (tag === undefined)
        throw wrong(
          'joint',
          work === 'bond' ? 'is no body of this design that is bonded' : 'is no joint of this design',
        );
      if (seen.has(joint)) throw wrong('joint', 'is named twice');
      seen.add(joint);
      if (work === 'torque' && !(value > 0)) throw wrong('value', 'must be above 0');
      return { joint, tag, value };
    });
    const owners = [...new Set(joints.map(({ joint }) => joint.split('/')[0]!))].slice(0, 500);
    return {
      instrument,
      subjects: namedSubjects(job, owners),
      body: {
        kind: 'joints',
        work,
        currentA: currentA ?? null,
        joints: named,
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
