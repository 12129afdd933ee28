import { describe, expect, test } from '@jest/globals';
import type { ProcedureStep, StepWalk } from '../commissioning';
import type { Entry } from '../../record';
import { walkStatus } from './walk-status';

/** Entries of walks and of work in one record: neither takes the other for its own. */
const statusAlong = (step: ProcedureStep, walk: StepWalk, entries: Entry[]) =>
  walkStatus(step, walk, entries, entries);

const items = ['a/plus', 'a/minus', 'b/plus'].map((id) => ({ id, tag: id.toUpperCase() }));
const torque = {
  id: 'torque:kind',
  subjects: [{ id: 'kind', tag: 'Lugs' }],
  touchedBy: ['a', 'b'],
  expected: { kind: 'range', min: 9, max: 11, unit: 'N·m' },
} as unknown as ProcedureStep;
const bond = {
  ...torque,
  id: 'bonds',
  expected: { kind: 'range', max: 0.1, unit: 'Ω' },
} as unknown as ProcedureStep;

let seq = 0;
const walked = (
  values: Record<string, number>,
  {
    work = 'torque',
    currentA,
    at = seq,
    standIn = false,
  }: { work?: string; currentA?: number; at?: number; standIn?: boolean } = {},
) =>
  ({
    seq: (seq += 1),
    takenAt: new Date(Date.UTC(2026, 10, 1, 8, at)).toISOString(),
    subjects: [],
    instrument: { standIn },
    body: {
      kind: 'joints',
      work,
      ...(currentA !== undefined && { currentA }),
      joints: Object.entries(values).map(([joint, value]) => ({ joint, value })),
    },
  }) as unknown as Entry;
const worked = (id: string, what = 'Crimp made anew') =>
  ({
    seq: (seq += 1),
    takenAt: new Date(Date.UTC(2026, 10, 1, 8, seq)).toISOString(),
    subjects: [{ id, tag: id }],
    body: { kind: 'work', what },
  }) as unknown as Entry;
const status = (entries: Entry[]) => statusAlong(torque, { work: 'torque', items }, entries);
const all = { 'a/plus': 10, 'a/minus': 9, 'b/plus': 11 };

describe('a step that is walked', () => {
  test('is passed when each was read last within its limits, which belong to them', () => {
    expect(status([])).toMatchObject({ state: 'due', walked: { of: 3, done: 0, last: null } });
    expect(status([walked({ 'a/plus': 10 })])).toMatchObject({ state: 'due', walked: { done: 1 } });
    expect(status([walked(all)]).state).toBe('passed');
    expect(status([walked(all), walked({ 'b/plus': 11.01 })])).toMatchObject({
      state: 'failed',
      walked: { done: 2, bad: ['B/PLUS'] },
    });
    expect(status([walked(all), walked({ 'b/plus': 8.99 })]).state).toBe('failed');
  });

  test('of two readings the later counts, by the time it was taken', () => {
    expect(
      status([walked(all), walked({ 'a/plus': 20 }, { at: 500 }), walked({ 'a/plus': 10 }, { at: 501 })])
        .state,
    ).toBe('passed');
    // Entered afterwards, taken before.
    expect(status([walked(all, { at: 600 }), walked({ 'a/plus': 20 }, { at: 599 })]).state).toBe('passed');
  });

  test('work on what a joint belongs to makes it due again, and that alone', () => {
    const before = walked(all);
    const done = status([before, worked('a')]);
    expect(done).toMatchObject({
      state: 'stale',
      workSince: 'Crimp made anew',
      walked: { done: 1, again: ['A/PLUS', 'A/MINUS'] },
    });
    expect(status([before, worked('elsewhere')]).state).toBe('passed');
    expect(status([before, worked('kind')])).toMatchObject({ state: 'stale', walked: { done: 0 } });
    expect(status([before, worked('a'), walked({ 'a/plus': 10, 'a/minus': 10 })]).state).toBe('passed');
  });

  test('one reading by a stand-in marks the whole', () => {
    expect(status([walked(all)]).standIn).toBe(false);
    expect(status([walked(all), walked({ 'a/plus': 10 }, { standIn: true })]).standIn).toBe(true);
  });

  test('a bond is volts over the current, below its limit, and shows nothing at too small a current', () => {
    const bonds = (volts: number, currentA: number) =>
      statusAlong(bond, { work: 'bond', items: [items[0]!], leastA: 0.2 }, [
        walked({ 'a/plus': volts }, { work: 'bond', currentA }),
      ]).state;
    expect(bonds(0.09, 1)).toBe('passed');
    // Leads the wrong way round.
    expect(bonds(-0.09, 1)).toBe('passed');
    expect(bonds(0.1, 1)).toBe('failed');
    expect(bonds(0.01, 0.2)).toBe('passed');
    expect(bonds(0.001, 0.19)).toBe('failed');
    // A walk with the wrench says nothing of bonds.
    expect(statusAlong(bond, { work: 'bond', items: [items[0]!] }, [walked(all)]).state).toBe('due');
  });

  test('without an expectation nothing passes', () => {
    expect(statusAlong({ ...torque, expected: null }, { work: 'torque', items }, [walked(all)]).state).toBe(
      'due',
    );
  });
});

describe('a length that is recorded with the cut list', () => {
  const cutStep = {
    ...torque,
    id: 'run-cut:run-x',
    subjects: [{ id: 'run-x', tag: 'X' }],
    touchedBy: [],
    expected: { kind: 'range', min: 2, unit: 'm' },
  } as unknown as ProcedureStep;
  const walk: StepWalk = { work: 'cut', items: [{ id: 'runs.run-x.cutLengthM', tag: 'X' }] };
  const cut = (lengthM: number, place = 'runs.run-x.cutLengthM') =>
    ({
      seq: (seq += 1),
      takenAt: new Date(Date.UTC(2026, 10, 1, 8, seq)).toISOString(),
      subjects: [],
      body: { kind: 'cable-cut', place, lengthM },
    }) as unknown as Entry;

  test('counts by its place, the last one cut, and is due again when its run was worked on', () => {
    expect(statusAlong(cutStep, walk, [cut(2.4, 'runs.run-y.cutLengthM')]).state).toBe('due');
    expect(statusAlong(cutStep, walk, [cut(1.99)])).toMatchObject({
      state: 'failed',
      walked: { bad: ['X'] },
    });
    expect(statusAlong(cutStep, walk, [cut(1.9), cut(2)]).state).toBe('passed');
    expect(statusAlong(cutStep, walk, [cut(2), cut(1.9)]).state).toBe('failed');
    expect(statusAlong(cutStep, walk, [cut(2), worked('run-x')]).state).toBe('stale');
    expect(statusAlong(cutStep, walk, [cut(2), worked('run-y')]).state).toBe('passed');
  });
});
