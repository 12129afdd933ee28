import { expect, test } from '@jest/globals';
import { backupsToKeep } from './keep';

const name = (at: number) =>
  `torvek-backup-${new Date(at).toISOString().slice(0, 16).replace(/[T:]/g, '-')}.zip`;
const day = 86_400_000;
const last = Date.parse('2026-11-28T02:10:00Z');

test('a year and a half of nights: seven days, five weeks, twelve months', () => {
  const names = Array.from({ length: 550 }, (_, i) => name(last - i * day));
  const keep = [...backupsToKeep(names)].sort().reverse();
  expect(keep.slice(0, 7)).toEqual(names.slice(0, 7));
  // Weeks end on Sundays, months with their last day.
  expect(keep.slice(7).map((one) => one.slice(14, 24))).toEqual([
    '2026-11-15',
    '2026-11-08',
    '2026-11-01',
    '2026-10-31',
    '2026-09-30',
    '2026-08-31',
    '2026-07-31',
    '2026-06-30',
    '2026-05-31',
    '2026-04-30',
    '2026-03-31',
    '2026-02-28',
    '2026-01-31',
    '2025-12-31',
  ]);
});

test('of several a day the newest; of few, all', () => {
  const names = [name(last), name(last - 3_600_000), name(last - 2 * day)];
  expect([...backupsToKeep(names)].sort()).toEqual([name(last - 2 * day), name(last)].sort());
  expect(backupsToKeep([])).toEqual(new Set());
});
