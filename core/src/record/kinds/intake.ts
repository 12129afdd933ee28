import { oneOf, orNull } from '../../ground/calculator';
import { aboutSubjects, defineKind } from '../kind';
import { remark, words } from '../shapes';

/** How a module looked when it came in. */
export const looks = ['sound', 'marked', 'damaged'] as const;
export type Look = (typeof looks)[number];

/** What a module is, apart from its readings: serial number and look. All count: together they tell which thing was in a place when. */
export interface IntakeBody {
  kind: 'intake';
  serial: string | null;
  look: Look | null;
  /** It is the thing that was there: its serial had been read wrongly. Otherwise another serial is another thing. */
  same?: true;
  remark?: string;
}

export const intake = defineKind<IntakeBody>({
  kind: 'intake',
  many: 'intake of modules',
  fields: { serial: orNull(words(80)), look: orNull(oneOf(looks)), same: oneOf.optional([true]), remark },
  stands: 'always',
  topic: aboutSubjects,
  title: ({ serial }) => `Module received${serial === null ? '' : `, serial ${serial}`}`,
  outcome: ({ look }) => look ?? '',
});
