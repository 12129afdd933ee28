import { expect, test } from '@jest/globals';
import { leftText, sorted, type Callback } from './callbacks';

const one = (id: string, endsAt: number, seen = false): Callback => ({
  id,
  job: 'j',
  jobName: 'J',
  step: `s-${id}`,
  title: id,
  endsAt,
  seen,
});

test('what is over and not seen calls; what runs comes in order', () => {
  const all = [one('late', 9000), one('over', 1000), one('seen', 500, true), one('soon', 6000)];
  const { over, running } = sorted(all, 5000);
  expect(over.map(({ id }) => id)).toEqual(['over']);
  expect(running.map(({ id }) => id)).toEqual(['soon', 'late']);
  expect(sorted(all, 6000).over.map(({ id }) => id)).toEqual(['over', 'soon']);
});

test('what is left is said short', () => {
  expect([0, 900, 61_000, 3.6e6 + 120_000, -5].map(leftText)).toEqual([
    '0 s',
    '1 s',
    '1 min 1 s',
    '1 h 2 min',
    '0 s',
  ]);
});
