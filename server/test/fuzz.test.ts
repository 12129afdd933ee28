import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { openBench, type Bench } from './bench-room';
import { fuzz } from './fuzz';
import { times } from '../../scripts/testing/thorough';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench(false, undefined, { unlimited: true });
});
afterAll(() => bench.close());

test('malformed requests to every route: none is answered 5xx, and what is refused changes nothing', async () => {
  const seed = 20_261_128;
  const count = times(250, 5000);
  const { sent, statuses, bad } = await fuzz(bench, count, seed);
  expect(bad).toEqual([]);
  expect(sent).toBe(count);
  // Doors of every kind were reached.
  for (const status of [200, 400, 401, 403, 404, 422])
    expect([status, (statuses[status] ?? 0) > 0]).toEqual([status, true]);
  expect((await bench.rooms.verifier.job('job-bus')).ok).toBe(true);
});
