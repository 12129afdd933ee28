import { oneOf, orNull, text } from '../../ground/shape';
import { aboutSubjects, defineKind } from '../kind';
import { remark, words } from '../shapes';

/** How a module looked when it came in. */
export const looks = ['sound', 'marked', 'damaged'] as const;
export type Look = (typeof looks)[number];

/** State of seals, and of terminals with their threads. */
export const conditions = ['sound', 'worn', 'damaged'] as const;
export type Condition = (typeof conditions)[number];

/** What is seen of a module besides its look. What is left out was not looked at. */
export interface Seen {
  /** Of making, as it stands on the label. */
  dateCode?: string;
  /** Coolant of a used module: out of it, or not. */
  drained?: boolean;
  /** Of its coolant ports. */
  seals?: Condition;
  terminals?: Condition;
}

/** What a module is, apart from its readings: serial number and look. All count: together they tell which thing was in a place when. */
export interface IntakeBody extends Seen {
  kind: 'intake';
  serial: string | null;
  look: Look | null;
  /** It is the thing that was there: its serial had been read wrongly. Otherwise another serial is another thing. */
  same?: true;
  remark?: string;
}

/** Their fields. */
export const seenFields = {
  dateCode: text.optional(40),
  drained: oneOf.optional([true, false]),
  seals: oneOf.optional(conditions),
  terminals: oneOf.optional(conditions),
};

/** The same in words. */
export const seenWords = ({ dateCode, drained, seals, terminals }: Seen): string[] => [
  ...(dateCode === undefined ? [] : [`made ${dateCode}`]),
  ...(drained === undefined ? [] : [drained ? 'drained' : 'not drained']),
  ...(seals === undefined ? [] : [`seals ${seals}`]),
  ...(terminals === undefined ? [] : [`terminals ${terminals}`]),
];

export const intake = defineKind<IntakeBody>({
  kind: 'intake',
  many: 'intake of modules',
  fields: {
    serial: orNull(words(80)),
    look: orNull(oneOf(looks)),
    ...seenFields,
    same: oneOf.optional([true]),
    remark,
  },
  stands: 'always',
  topic: aboutSubjects,
  title: ({ serial }) => `Module received${serial === null ? '' : `, serial ${serial}`}`,
  outcome: (body) => [...(body.look === null ? [] : [body.look]), ...seenWords(body)].join(', '),
});
