import { expect, test } from '@jest/globals';
import { dayOf, momentOf, readDay, timeOf, weekdayOf } from './dates';

test('days read one way, in the zone of the job', () => {
  expect(dayOf('2026-11-16T23:30:00Z', 'UTC')).toBe('16 Nov 2026');
  expect(dayOf('2026-11-16T23:30:00Z', 'Europe/Helsinki')).toBe('17 Nov 2026');
  expect(momentOf('2026-11-16T09:05:00Z', 'UTC')).toBe('16 Nov 2026, 09:05');
  expect(timeOf('2026-11-16T23:30:00Z', 'Europe/Helsinki')).toBe('01:30');
  expect(weekdayOf(Date.parse('2026-11-16T23:30:00Z'), 'UTC')).toBe('Mon 16 Nov');
  // A format that was made for one zone is not taken for another.
  expect(timeOf('2026-11-16T23:30:00Z', 'UTC')).toBe('23:30');
});

test('what is no date says so, and ends nothing', () => {
  for (const write of [dayOf, timeOf, momentOf]) expect(write('soon', 'UTC')).toContain('Invalid Date');
});

test('days are read as people type them; what could be two days is none', () => {
  const read = (text: string) => {
    const day = readDay(text);
    return day === null ? null : [day.getFullYear(), day.getMonth() + 1, day.getDate()];
  };
  for (const text of ['16 Nov 2026', '16. november 2026', '16.11.2026', '2026-11-16', ' 16 nov. 2026 '])
    expect([text, read(text)]).toEqual([text, [2026, 11, 16]]);
  for (const text of [
    '11/16/2026',
    '16 Nov',
    '31 Feb 2026',
    '0 Jan 2026',
    'soon',
    '2026-13-01',
    '16 Foo 2026',
  ])
    expect([text, read(text)]).toEqual([text, null]);
});
