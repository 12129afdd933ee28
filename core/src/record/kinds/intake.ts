import { oneOf, orNull } from '../../ground/calculator';
import { aboutSubjects, defineKind } from '../kind';
import { remark, words } from '../shapes';

/** How a module looked when it came in. */
export const looks = ['sound', 'marked', 'damaged'] as const;
export type Look = (typeof looks)[number];

/** What a module is, apart from its readings: serial number and look. The newest one of a module counts. */
export interface IntakeBody {
  kind: 'intake';
  serial: string | null;
  look: Look | null;
  remark?: string;
}

export const intake = defineKind<IntakeBody>({
  kind: 'intake',
  many: 'intake of modules',
  fields: { serial: orNull(words(80)), look: orNull(oneOf(looks)), remark },
  stands: 'newest',
  topic: aboutSubjects,
  title: ({ serial }) => `Module received${serial === null ? '' : `, serial ${serial}`}`,
  outcome: ({ look }) => look ?? '',
});
