import { list, number, oneOf, orNull, record, text } from '../../ground/shape';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { defineKind } from '../kind';
import { remark, words } from '../shapes';

/** What is done to joints and bonds in one walk: torqued, or a drop read at a known current. */
export const jointWorks = ['torque', 'drop', 'bond'] as const;
export type JointWork = (typeof jointWorks)[number];

/** A walk along joints, or along the bonds of bodies. */
export interface JointsBody {
  kind: 'joints';
  work: JointWork;
  /** That flowed while drops were read; null where it was torqued. */
  currentA: number | null;
  /** N·m when torqued, V when a drop was read. */
  joints: { joint: string; tag: string; value: number }[];
  remark?: string;
}

const workText: Record<JointWork, string> = {
  torque: 'Torqued',
  drop: 'Drops read at',
  bond: 'Bonds measured of',
};

const jointNames = ({ joints, work }: JointsBody) =>
  joints.length <= 3
    ? joints.map(({ tag }) => tag).join(', ')
    : `${joints.length} ${work === 'bond' ? 'bodies' : 'joints'}`;

export const joints = defineKind<JointsBody>({
  kind: 'joints',
  many: 'joints and bonds',
  fields: {
    work: oneOf(jointWorks),
    currentA: orNull(number()),
    joints: list(record({ joint: text(160), tag: words(200), value: number() }), { maxRows: 2000 }),
    remark,
  },
  stands: 'always',
  title: (body) => `${workText[body.work]} ${jointNames(body)}`,
  outcome: (body) => {
    const torqued = body.work === 'torque';
    const values = body.joints.map(({ value }) => Math.abs(value) * (torqued ? 1 : 1000));
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const unit = torqued ? 'N·m' : 'mV';
    const range =
      low === high ? `${formatNumber(low)} ${unit}` : `${formatNumber(low)} to ${formatNumber(high)} ${unit}`;
    return body.currentA === null ? range : `${range} at ${formatQuantity(body.currentA, 'A')}`;
  },
});
