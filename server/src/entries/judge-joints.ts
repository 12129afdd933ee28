import { bondStates } from '@torvek/core/bonding';
import { jointStates } from '@torvek/core/joints';
import type { JointsBody } from '@torvek/core/record';
import { invalidInput } from '../http/errors';
import type { Job } from '../jobs/jobs';
import type { EntryRequest } from './request';

type Asked = Extract<EntryRequest, { kind: 'joints' }>;

/** A walk along joints or bonds: each one there is, once; a torque above 0. */
export function judgeJoints(
  { work, currentA, joints, remark }: Asked,
  { design }: Job,
): { body: JointsBody; owners: string[] } {
  const known = new Map(
    (work === 'bond' ? bondStates(design, []) : jointStates(design, [])).map(({ id, tag }) => [id, tag]),
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
  return {
    owners: [...new Set(joints.map(({ joint }) => joint.split('/')[0]!))].slice(0, 500),
    body: {
      kind: 'joints',
      work,
      currentA: currentA ?? null,
      joints: named,
      ...(remark !== undefined && { remark }),
    },
  };
}
