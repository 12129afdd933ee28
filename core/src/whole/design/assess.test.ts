import { describe, expect, test } from '@jest/globals';
import { type RaisedCheck } from '../../ground/figure';
import type { Entry } from '../../record';
import type { Evaluation } from '../../model/step';
import { assess } from '.';
import { raised, step, entry, result, accepted } from './entries-on-paper';

describe('acceptances', () => {
  const status = (evaluation: Evaluation, entries: Entry[]) => {
    const [finding] = assess(evaluation, [], entries).findings;
    return finding?.accepted === null ? finding.lapsed : 'accepted';
  };
  test('hold while the values stay within a millionth', () => {
    expect(status(raised(10), [accepted(10)])).toBe('accepted');
    expect(status(raised(10.000005), [accepted(10)])).toBe('accepted');
    expect(status(raised(10.00002), [accepted(10)])).toBe('value has moved');
  });
  test('lapse when the grade rises or the rule judges differently, not when the grade falls', () => {
    expect(status(raised(10, 'stop'), [accepted(10)])).toBe('its grade has risen');
    expect(status(raised(10, 'note'), [accepted(10)])).toBe('accepted');
    expect(status(raised(10, 'mend', 3), [accepted(10)])).toBe('the rule judges differently since');
  });
  test('belong to the parts that were judged, by key and revision', () => {
    const of = (parts?: string[]) => accepted(10, 'mend', parts && { parts });
    const now = (...parts: string[]) => raised(10, 'mend', 2, parts);
    expect(status(now('fuse@1'), [of(['fuse@1'])])).toBe('accepted');
    expect(status(now('fuse@2'), [of(['fuse@1'])])).toBe('a part has been exchanged');
    expect(status(now('fuse@1', 'cable@1'), [of(['fuse@1'])])).toBe('a part has been exchanged');
    expect(status(now(), [of(['fuse@1'])])).toBe('a part has been exchanged');
    expect(status(now('cable@1', 'fuse@1'), [of(['fuse@1', 'cable@1'])])).toBe('accepted');
    // One of an earlier edition says no part: it is not taken as one for this part.
    expect(status(now('fuse@1'), [of()])).toBe('it does not say for which part it was given');
  });
  test('belong to every number: another that counts, or one that no longer does, ends them', () => {
    const limit = { label: 'limit', value: 5, unit: 'V' };
    const both = accepted(10, 'mend', { values: [{ label: 'value', value: 10, unit: 'V' }, limit] });
    expect(status(raised(10, 'mend', 2, [], [limit]), [both])).toBe('accepted');
    expect(status(raised(10, 'mend', 2, [], [{ ...limit, value: 5.1 }]), [both])).toBe('limit has moved');
    expect(status(raised(10, 'mend', 2, [], [limit]), [accepted(10)])).toBe(
      'limit was not among what it was accepted on',
    );
    expect(status(raised(10), [both])).toBe('limit no longer counts');
    expect(status(raised(10, 'mend', 2, [], [{ ...limit, unit: 'A' }]), [both])).toBe(
      'limit was not among what it was accepted on',
    );
  });
  test('of a rule that judged the same before have lapsed, and say so', () => {
    const evaluation = raised(10);
    const [check] = evaluation.checks as [RaisedCheck];
    evaluation.checks = [{ ...check, rule: { ...check.rule, formerly: ['test.whole'] } }];
    const before = accepted(10, 'mend', { check: 'test.whole|s' });
    expect(status(evaluation, [before])).toMatch(/^it was given for the part as a whole/);
    expect(status(evaluation, [accepted(10, 'mend', { check: 'test.whole|other' })])).toBeNull();
  });
  test('the last one counts; a corrected one does not', () => {
    const first = accepted(10);
    const last = accepted(11);
    expect(status(raised(11), [first, last])).toBe('accepted');
    const corrected = entry({ kind: 'correction', of: last.seq, reason: 'Wrong finding.' });
    expect(status(raised(11), [first, last, corrected])).toBe('value has moved');
  });
});

describe('results', () => {
  const one = (now: number, entries: Entry[]) =>
    assess({ figures: {}, checks: [], runs: {} }, [step('s1', 'parts', now)], entries).steps[0]!;
  test('are due, passed, failed', () => {
    expect(one(10, []).state).toBe('due');
    expect(one(10, [result('s1', 12, 10)]).state).toBe('passed');
    expect(one(10, [result('s1', 9, 10)]).state).toBe('failed');
  });
  test('become stale when what they rest on moves, and are judged against the new expectation', () => {
    const stale = one(11, [result('s1', 12, 10)]);
    expect(stale).toMatchObject({
      state: 'stale',
      wouldStillPass: true,
      moved: [{ label: 'limit', was: 10, now: 11 }],
    });
    expect(one(13, [result('s1', 12, 10)]).wouldStillPass).toBe(false);
  });
  test('become due again by work on the same subject, not by work on another or before', () => {
    const work = (id: string) => entry({ kind: 'work', what: 'Opened.' }, { subjects: [{ id, tag: id }] });
    const before = work('part-1');
    const measured = result('s1', 12, 10);
    expect(one(10, [before, measured]).state).toBe('passed');
    expect(one(10, [measured, work('part-2')]).state).toBe('passed');
    expect(one(10, [measured, work('part-1')])).toMatchObject({
      state: 'stale',
      workSince: 'Opened.',
      moved: [],
    });
    // What was brought level reads otherwise now.
    const side = (id: string) => ({ id, tag: id, beforeV: 44, afterV: 44.7 });
    const levelled = entry(
      { kind: 'levelled', sides: [side('part-1'), side('part-2')] },
      { subjects: [{ id: 'part-1', tag: 'P1' }] },
    );
    expect(one(10, [measured, levelled])).toMatchObject({
      state: 'stale',
      workSince: 'part-1 and part-2 brought level: 44 V to 44.7 V, 44 V to 44.7 V',
    });
  });
  test('a correction takes the last one away and the one before counts again', () => {
    const good = result('s1', 12, 10);
    const bad = result('s1', 2, 10);
    expect(one(10, [good, bad]).state).toBe('failed');
    expect(one(10, [good, bad, entry({ kind: 'correction', of: bad.seq, reason: 'Misread.' })]).state).toBe(
      'passed',
    );
  });
});
