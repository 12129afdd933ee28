import { describe, expect, test } from '@jest/globals';
import { isOverdue, standing, type Entry, type EntryBody } from '.';

const entry = (seq: number, body: object, subject = 'module-1') =>
  ({ seq, by: 'Ada', subjects: [{ id: subject, tag: subject }], body: body as EntryBody }) as Entry;
const seqs = (...entries: Entry[]) => standing(entries).map(({ seq }) => seq);

describe('what stands', () => {
  test('every intake: together they tell which thing was in a place when', () => {
    const intake = { kind: 'intake' };
    expect(seqs(entry(1, intake), entry(2, intake))).toEqual([1, 2]);
    expect(seqs(entry(1, intake), entry(2, intake, 'module-2'))).toEqual([1, 2]);
  });

  test('every walk along joints: each holds its own', () => {
    const walk = { kind: 'joints', work: 'torque', joints: [] };
    expect(seqs(entry(1, walk), entry(2, walk))).toEqual([1, 2]);
  });

  test('a failed result beside the newest; a corrected one no longer, so that what it replaced stands again', () => {
    const result = (verdict: string) => ({ kind: 'result', step: 's', verdict });
    expect(seqs(entry(1, result('fail')), entry(2, result('pass')), entry(3, result('pass')))).toEqual([
      1, 3,
    ]);
    expect(
      seqs(entry(1, result('pass')), entry(2, result('pass')), entry(3, { kind: 'correction', of: 2 })),
    ).toEqual([1]);
  });

  test('results of a step by the thing that was measured', () => {
    const of = (item?: string) => ({ kind: 'result', step: 'intake-capacity:m1', verdict: 'pass', item });
    expect(seqs(entry(1, of()), entry(2, of('a')), entry(3, of('b')), entry(4, of('b')))).toEqual([1, 2, 4]);
  });

  test('no note', () => {
    expect(seqs(entry(1, { kind: 'note', text: 'x' }))).toEqual([]);
  });
});

test('a calibration holds through its own day, and one that is not kept never runs out', () => {
  expect(isOverdue('2026-11-25', '2026-11-25')).toBe(false);
  expect(isOverdue('2026-11-25', '2026-11-26')).toBe(true);
  expect(isOverdue('2026-11-25', '2026-11-24')).toBe(false);
  expect(isOverdue(null, '2099-01-01')).toBe(false);
});
