import { list, number, oneOf, record, text } from '../../ground/shape';
import type { CheckValue, Grade } from '../../ground/finding';
import { defineKind, shortTopic } from '../kind';
import { words } from '../shapes';

/**
 * A person takes a finding on, with a reason: for these parts, for these numbers. It lapses when a part is exchanged, a
 * number moves, or another one counts.
 */
export interface AcceptanceBody {
  kind: 'acceptance';
  check: string;
  rule: string;
  ruleVersion: number;
  grade: Grade;
  message: string;
  values: CheckValue[];
  /** Parts that were judged, by key and revision; absent in entries of format version 1. */
  parts?: string[];
  reason: string;
}

const value = record({ label: words(200), value: number(), unit: words(20) });

export const acceptance = defineKind<AcceptanceBody>({
  kind: 'acceptance',
  many: 'acceptances',
  fields: {
    check: text(300),
    rule: text(160),
    ruleVersion: number({ min: 0, integer: true }),
    grade: oneOf(['stop', 'mend', 'note']),
    message: words(4000),
    values: list(value, { maxRows: 200 }),
    parts: list.optional(text(200), { maxRows: 200 }),
    reason: words(2000),
  },
  stands: 'newest',
  topic: ({ body }) => shortTopic(`acceptance:${body.check}`),
  title: ({ message }) => `Accepted: ${message}`,
});
