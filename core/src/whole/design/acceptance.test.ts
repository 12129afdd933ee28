import { describe, expect, test } from '@jest/globals';
import type { RaisedCheck } from '../../ground/figure';
import type { AcceptanceBody } from '../../record';
import type { EntryOf } from '../../record';
import { whyLapsed, withAcceptance } from './acceptance';

const check = {
  key: 'fuse.voltage|c',
  state: 'raised',
  rule: { id: 'fuse.voltage', version: 2, formerly: ['fuse.chosen-fuse'] },
  grade: 'mend',
  subjects: ['c'],
  parts: ['f-1@1', 'k-1@2'],
  values: [
    { label: 'rated', value: 500, unit: 'V' },
    { label: 'the bus reaches', value: 605, unit: 'V' },
  ],
} as unknown as RaisedCheck;
const body = {
  kind: 'acceptance',
  check: check.key,
  ruleVersion: 2,
  grade: 'mend',
  parts: check.parts,
  values: check.values,
  reason: 'looked at',
} as unknown as AcceptanceBody;
const why = (over: Partial<RaisedCheck>, given: Partial<AcceptanceBody> = {}) =>
  whyLapsed({ ...check, ...over }, { ...body, ...given });
const value = (label: string, at: number, unit = 'V') => ({ label, value: at, unit });

describe('an acceptance', () => {
  test('holds while nothing moves, whatever the order, and when the grade falls', () => {
    expect(why({})).toBeNull();
    expect(why({ parts: ['k-1@2', 'f-1@1'], values: [...check.values].reverse() })).toBeNull();
    expect(why({ grade: 'note' })).toBeNull();
    // A millionth is rounding; two are not.
    expect(why({ values: [check.values[0]!, value('the bus reaches', 605 * (1 + 5e-7))] })).toBeNull();
    expect(why({ values: [check.values[0]!, value('the bus reaches', 605 * (1 + 2e-6))] })).toBe(
      'the bus reaches has moved',
    );
  });

  test.each([
    [{ rule: { ...check.rule, version: 3 } }, 'the rule judges differently since'],
    [{ grade: 'stop' as const }, 'its grade has risen'],
    [{ parts: ['f-1@2', 'k-1@2'] }, 'a part has been exchanged'],
    [{ parts: ['f-1@1'] }, 'a part has been exchanged'],
    [{ parts: ['f-1@1', 'k-1@2', 'c-1@1'] }, 'a part has been exchanged'],
    [
      { values: [value('rated', 500), value('the bus reaches', 605, 'kV')] },
      'the bus reaches was not among what it was accepted on',
    ],
    [{ values: [value('rated', 500)] }, 'the bus reaches no longer counts'],
    [{ values: [value('rated', 0), value('the bus reaches', 605)] }, 'rated has moved'],
  ])('lapses: %j', (over, reason) => {
    expect(why(over)).toBe(reason);
  });

  test('of a time before parts were written lapses where a part is judged, and only there', () => {
    const old = { ...body } as Partial<AcceptanceBody>;
    delete old.parts;
    expect(whyLapsed(check, old as AcceptanceBody)).toBe('it does not say for which part it was given');
    expect(whyLapsed({ ...check, parts: [] }, old as AcceptanceBody)).toBeNull();
  });

  test('the last of a finding counts; one of a rule that is gone has lapsed', () => {
    const entry = (own: Partial<AcceptanceBody>) =>
      ({ body: { ...body, ...own } }) as EntryOf<AcceptanceBody>;
    const [older, newer] = [entry({ grade: 'note' }), entry({})];
    expect(withAcceptance(check, [older, newer])).toEqual({ check, accepted: newer, lapsed: null });
    expect(withAcceptance(check, [newer, older])).toMatchObject({
      accepted: null,
      lapsed: 'its grade has risen',
    });
    expect(withAcceptance(check, [entry({ check: 'fuse.chosen-fuse|c' })])).toMatchObject({
      accepted: null,
      lapsed: 'it was given for the part as a whole, which is judged thing by thing since',
    });
    expect(withAcceptance(check, [entry({ check: 'fuse.voltage|other' })])).toEqual({
      check,
      accepted: null,
      lapsed: null,
    });
  });
});
