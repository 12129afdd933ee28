import { describe, expect, test } from '@jest/globals';
import type { ProcedureStep } from '../commissioning';
import type { Entry } from '../../record';
import { positionText } from '../../record';
import { assess } from '.';
import { step, entry, result, lastSeq } from './entries-on-paper';

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
      { takenAt: `2026-01-01T00:00:${String(lastSeq() % 60).padStart(2, '0')}Z`, ...more },
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
