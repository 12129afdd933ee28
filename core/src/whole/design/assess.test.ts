import { describe, expect, test } from '@jest/globals';
import type { ProcedureStep } from '../commissioning';
import { defineRule, type CheckValue, type Grade } from '../../ground/finding';
import { checkKey, type RaisedCheck } from '../../ground/figure';
import type { AcceptanceBody, Basis, Entry, EntryBody } from '../../record';
import type { Evaluation } from '../../model/step';
import { positionText } from '../../record';
import { assess } from '.';

const rule = defineRule({
  id: 'test.rule',
  version: 2,
  grade: 'mend',
  title: 'A rule',
  why: 'Because',
  remedy: 'Mend it',
  source: 'Here',
});

const raised = (
  value: number,
  grade: Grade = 'mend',
  version = 2,
  parts: string[] = [],
  more: CheckValue[] = [],
): Evaluation => {
  const check: RaisedCheck = {
    key: checkKey(rule, ['s']),
    rule: { ...rule, version },
    subjects: ['s'],
    state: 'raised',
    grade,
    message: `It is ${value}.`,
    values: [{ label: 'value', value, unit: 'V' }, ...more],
    parts,
    suggestions: [],
    advice: null,
  };
  return { figures: {}, checks: [check], runs: {} };
};

const basis = (value: number): Basis[] => [
  { figure: 'a:b:c', label: 'limit', value, unit: 'V', toleranceFraction: 1e-6 },
];

const step = (id: string, gate: ProcedureStep['gate'], now: number): ProcedureStep => ({
  id,
  template: id.split(':')[0]!,
  gate,
  title: id,
  do: '',
  why: '',
  hazard: 'part',
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

const accepted = (value: number, grade: Grade = 'mend', more: Partial<AcceptanceBody> = {}) =>
  entry({
    kind: 'acceptance',
    check: checkKey(rule, ['s']),
    rule: rule.id,
    ruleVersion: 2,
    grade,
    message: '',
    values: [{ label: 'value', value, unit: 'V' }],
    reason: 'Agreed.',
    ...more,
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

describe('gates', () => {
  const torque: ProcedureStep = {
    ...step('torque:k', 'wiring', 18),
    instrument: 'torque-wrench',
    subjects: [{ id: 'k', tag: 'Kind' }],
    walk: {
      work: 'torque',
      items: [
        { id: 'circuit-a/source-plus', tag: 'A +' },
        { id: 'circuit-a/source-minus', tag: 'A −' },
      ],
    },
    expected: { kind: 'range', min: 18, max: 22, nominal: 20, unit: 'N·m' },
  };
  const procedure = [
    step('p', 'parts', 1),
    torque,
    step('c', 'coils', 1),
    step('i', 'insulation', 1),
    step('h', 'first-hv', 1),
  ];
  const none = { figures: {}, checks: [], runs: {} };
  const walk = (values: Record<string, number>, more: Partial<Entry> = {}) =>
    entry(
      {
        kind: 'joints',
        work: 'torque',
        currentA: null,
        joints: Object.entries(values).map(([joint, value]) => ({ joint, tag: joint, value })),
      },
      { takenAt: `2026-01-01T00:00:${String(seq % 60).padStart(2, '0')}Z`, ...more },
    );
  const bothTorqued = () => walk({ 'circuit-a/source-plus': 20, 'circuit-a/source-minus': 19 });
  const open = (entries: Entry[], steps = procedure) =>
    Object.fromEntries(assess(none, steps, entries).gates.map((gate) => [gate.id, gate.open]));
  const waits = (entries: Entry[]) =>
    assess(none, procedure, entries).gates.find(({ id }) => id === 'first-hv')!.waitsFor;
  const torqued = (entries: Entry[]) =>
    assess(none, procedure, entries).steps.find(({ step: { id } }) => id === 'torque:k')!;

  test('open in the order of what they depend on', () => {
    const [p, i, c] = [result('p', 2, 1), result('i', 2, 1), result('c', 2, 1)];
    expect(open([])).toEqual({
      parts: true,
      wiring: true,
      coils: false,
      coolant: true,
      insulation: false,
      sense: true,
      'power-up': true,
      'first-hv': false,
      charging: false,
      'under-load': false,
    });
    expect(open([p])).toMatchObject({ coils: true, insulation: true, 'first-hv': false });
    expect(waits([p, i])).toEqual(['Joints, bonds and wiring', 'Contactors without high voltage']);
    expect(waits([p, i, c])).toEqual(['Joints, bonds and wiring']);
    expect(waits([p, i, c, bothTorqued()])).toEqual([]);
    expect(open([p, i, c, bothTorqued(), result('p', 0, 1)])['first-hv']).toBe(false);
  });
  test('a gate without steps is not passed by having none, but for coils where there are none', () => {
    const rest = [result('i', 2, 1), result('p', 2, 1)];
    expect(open([result('i', 2, 1)], procedure.slice(1)).insulation).toBe(false);
    const withoutCoils = procedure.filter(({ gate }) => gate !== 'coils');
    expect(open([...rest, bothTorqued()], withoutCoils)['first-hv']).toBe(true);
    const withoutWiring = procedure.filter(({ gate }) => gate !== 'wiring');
    expect(open([...rest, result('c', 2, 1)], withoutWiring)['first-hv']).toBe(false);
  });
  test('first high voltage waits for the sense harness where there is one', () => {
    const ladder: ProcedureStep = { ...procedure.find(({ id }) => id === 'c')!, id: 's', gate: 'sense' };
    const rest = [result('i', 2, 1), result('p', 2, 1), result('c', 2, 1), bothTorqued()];
    expect(open(rest)['first-hv']).toBe(true);
    expect(open(rest, [...procedure, ladder])['first-hv']).toBe(false);
    expect(open([...rest, result('s', 2, 1)], [...procedure, ladder])['first-hv']).toBe(true);
  });
  test('a walk is due, then failed, passed, and due again for the joint that was opened', () => {
    expect(torqued([])).toMatchObject({ state: 'due', walked: { of: 2, done: 0 } });
    const half = walk({ 'circuit-a/source-plus': 20 });
    expect(torqued([half])).toMatchObject({ state: 'due', walked: { done: 1, bad: [] } });
    // 22.1 N·m is beyond 10 % over 20.
    const over = walk({ 'circuit-a/source-minus': 22.1 });
    expect(torqued([half, over])).toMatchObject({ state: 'failed', walked: { bad: ['A −'] } });
    const both = bothTorqued();
    expect(torqued([over, both])).toMatchObject({ state: 'passed', walked: { done: 2 } });
    const opened = entry(
      { kind: 'work', what: 'Cable exchanged.' },
      { subjects: [{ id: 'circuit-a', tag: 'A' }] },
    );
    expect(torqued([both, opened])).toMatchObject({
      state: 'stale',
      workSince: 'Cable exchanged.',
      walked: { again: ['A +', 'A −'] },
    });
    const elsewhere = entry({ kind: 'work', what: 'x' }, { subjects: [{ id: 'circuit-b', tag: 'B' }] });
    expect(torqued([both, elsewhere]).state).toBe('passed');
    expect(torqued([opened, bothTorqued()]).state).toBe('passed');
  });
  test('a bond counts below its limit, and at a test current that is large enough', () => {
    const bond: ProcedureStep = {
      ...torque,
      id: 'bonds:chassis',
      walk: { work: 'bond', items: [{ id: 'box', tag: 'Box' }], leastA: 0.2 },
      expected: { kind: 'range', max: 0.1, unit: 'Ω' },
    };
    const state = (currentA: number, dropV: number) =>
      assess(
        none,
        [bond],
        [
          entry({
            kind: 'joints',
            work: 'bond',
            currentA,
            joints: [{ joint: 'box', tag: 'Box', value: dropV }],
          }),
        ],
      ).steps[0]!.state;
    expect([state(2, 0.19), state(2, 0.2), state(2, -0.19), state(0.19, 0.001)]).toEqual([
      'passed',
      'failed',
      'passed',
      'failed',
    ]);
  });
  test('work on something that a step names as touching it makes it due again', () => {
    const measured = result('i', 2, 1);
    const touched = procedure.map((one) => (one.id === 'i' ? { ...one, touchedBy: ['circuit-a'] } : one));
    const work = entry(
      { kind: 'work', what: 'Contactor exchanged.' },
      { subjects: [{ id: 'circuit-a', tag: 'A' }] },
    );
    const stateOf = (steps: ProcedureStep[]) =>
      assess(none, steps, [measured, work]).steps.find(({ step: { id } }) => id === 'i')!.state;
    expect([stateOf(procedure), stateOf(touched)]).toEqual(['passed', 'stale']);
  });
  test('a reading by a stand-in is marked, and opens no gate of a real job', () => {
    const standIn = { kind: 'meter' as const, name: 'Stand-in meter', standIn: true };
    const p = { ...result('p', 2, 1), instrument: standIn };
    const status = assess(none, procedure, [p]);
    expect(status.steps[0]).toMatchObject({ state: 'passed', standIn: true });
    expect(status.gates.find(({ id }) => id === 'insulation')).toMatchObject({
      open: false,
      waitsFor: ['Parts (1 reading by a stand-in: no vehicle was measured)'],
    });
    const practice = assess(none, procedure, [p], { practice: true });
    expect(practice.gates.find(({ id }) => id === 'insulation')!.open).toBe(true);
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
