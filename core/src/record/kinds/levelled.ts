import { list, number, record, text } from '../../ground/shape';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { aboutSubjects, defineKind } from '../kind';
import { remark, words } from '../shapes';

/** A string or module that was brought level with another one, with its voltage before and after. */
export interface LevelledSide {
  id: string;
  tag: string;
  beforeV: number;
  afterV: number;
}

/** Two strings or modules brought level before they are joined; their modules are measured anew. */
export interface LevelledBody {
  kind: 'levelled';
  sides: LevelledSide[];
  /** What they are joined by, and what would flow over it as they are now, with the least limit in its path; absent: not known. */
  linkOhm?: number;
  joinedA?: number;
  limitA?: number;
  /** What it was done with, and for how long. */
  gearA?: number;
  hours?: number;
  remark?: string;
}

const volts = (value: number) => formatNumber(value, 5);

export const levelled = defineKind<LevelledBody>({
  kind: 'levelled',
  many: 'levelling of strings',
  fields: {
    sides: list(
      record({ id: text(120), tag: words(200), beforeV: number({ min: 0 }), afterV: number({ min: 0 }) }),
      { minRows: 2, maxRows: 2 },
    ),
    linkOhm: number.optional({ min: 0 }),
    joinedA: number.optional({ min: 0 }),
    limitA: number.optional({ min: 0 }),
    gearA: number.optional({ above: 0 }),
    hours: number.optional({ above: 0 }),
    remark,
  },
  stands: 'newest',
  topic: aboutSubjects,
  title: ({ sides }) =>
    `${sides.map(({ tag }) => tag).join(' and ')} brought level: ${sides
      .map(({ beforeV, afterV }) => `${volts(beforeV)} V to ${volts(afterV)} V`)
      .join(', ')}`,
  outcome: ({ sides: [a, b], joinedA, limitA }) => {
    const apart = `${formatQuantity(Math.abs(a!.afterV - b!.afterV), 'V')} apart`;
    return joinedA === undefined
      ? apart
      : `${apart}, ${formatQuantity(joinedA, 'A')} when joined${limitA === undefined ? '' : `, ${formatQuantity(limitA, 'A')} allowed`}`;
  },
});
