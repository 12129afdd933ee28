import { describe, expect, test } from '@jest/globals';
import type { ProcedureStep } from '../commissioning';
import { defineRule, type Grade } from '../finding';
import { checkKey, type RaisedCheck } from '../figure';
import type { Basis, Entry, EntryBody } from '../record';
import type { Evaluation } from '../step';
import { assess, positionText } from '.';

const rule = defineRule({
  id: 'test.rule',
  version: 2,
  grade: 'mend',
  title: 'A rule',
  why: 'Because',
  remedy: 'Mend it',
  source: 'Here',
});

const raised = (value: number, grade: Grade = 'mend', version = 2): Evaluation => {
  const check: RaisedCheck = {
    key: checkKey(rule, ['s']),
    rule: { ...rule, version },
    subjects: ['s'],
    state: 'raised',
    grade,
    message: `It is ${value}.`,
    values: [{ label: 'value', value, unit: 'V' }],
    suggestions: [],
  };
  return { figures: {}, checks: [check], runs: {} };
};

const basis = (value: number): Basis[] => [
  { figure: 'a:b:c', label: 'limit', value, unit: 'V', toleranceFraction: 1e-6 },
];

const step = (id: string, gate: ProcedureStep['gate'], now: number): ProcedureStep => ({
  id,
  gate,
  title: id,
  do: '',
  why: '',
  hv: false,
  instrument: 'meter',
  subjects: [{ id: 'part-1', tag: 'P1' }],
  expected: { kind: 'range', min: now, unit: 'V' },
  expectedText: '',
  gaps: [],
  basis: basis(now),
});

let seq = 0;
function entry(body: EntryBody, more: Partial<Entry> = {}): Entry {
  seq += 1;
  return {
    format: 'torvek-entry',
    formatVersion: 1,
    id: `e${seq}`,
    job: 'j',
    seq,
    previous: null,
    takenAt: '',
    recordedAt: '',
    zone: 'UTC',
    by: 'Test',
    witness: null,
    against: { version: 0, sha256: '', core: '' },
    subjects: [],
    basis: [],
    instrument: null,
    attachments: [],
    body,
    ...more,
  };
}

const result = (stepId: string, value: number, judgedOn: number) =>
  entry(
    {
      kind: 'result',
      step: stepId,
      title: stepId,
      entered: 'typed',
      measured: { kind: 'value', value, unit: 'V' },
      expected: '',
      verdict: value >= judgedOn ? 'pass' : 'fail',
      reasons: [],
      details: [],
    },
    { basis: basis(judgedOn) },
  );

const accepted = (value: number, grade: Grade = 'mend') =>
  entry({
    kind: 'acceptance',
    check: checkKey(rule, ['s']),
    rule: rule.id,
    ruleVersion: 2,
    grade,
    message: '',
    values: [{ label: 'value', value, unit: 'V' }],
    reason: 'Agreed.',
  });

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

describe('gates', () => {
  const procedure = [step('p', 'parts', 1), step('i', 'insulation', 1), step('h', 'first-hv', 1)];
  const open = (entries: Entry[]) =>
    assess({ figures: {}, checks: [], runs: {} }, procedure, entries).gates.map((gate) => gate.open);
  test('open in the order of what they depend on', () => {
    expect(open([])).toEqual([true, false, false]);
    const p = result('p', 2, 1);
    expect(open([p])).toEqual([true, true, false]);
    const i = result('i', 2, 1);
    expect(open([p, i])).toEqual([true, true, true]);
    expect(open([p, i, result('p', 0, 1)])).toEqual([true, false, false]);
  });
  test('a gate without steps is not passed by having none', () => {
    const { gates } = assess({ figures: {}, checks: [], runs: {} }, procedure.slice(1), [result('i', 2, 1)]);
    expect(gates.map((gate) => gate.open)).toEqual([true, false, false]);
  });
});

describe('the live state', () => {
  const body = {
    kind: 'position' as const,
    linksOut: 0,
    serviceDisconnect: 'in' as const,
    mains: 'open' as const,
  };
  test.each([
    [{ ...body, linksOut: 3 }, 'HV open at 3 links'],
    [{ ...body, linksOut: 1 }, 'HV open at 1 link'],
    [{ ...body, serviceDisconnect: 'out' as const }, 'HV open at the service disconnect'],
    [body, 'Pack closed, mains open'],
    [{ ...body, mains: 'closed' as const }, 'Bus live: mains closed'],
  ])('%j reads %s', (position, text) => {
    expect(positionText(position)).toBe(text);
  });
  test('is the last that was recorded', () => {
    const entries = [entry({ ...body, linksOut: 3 }), entry(body)];
    expect(assess({ figures: {}, checks: [], runs: {} }, [], entries).position?.body.linksOut).toBe(0);
  });
});
