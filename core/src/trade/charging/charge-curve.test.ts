import { describe, expect, test } from '@jest/globals';
import { chargeCurve, type ChargeCurveInput } from './charge-curve';

const base: ChargeCurveInput = {
  cell: {
    ocvTable: [
      [0, 3],
      [0.5, 3.6],
      [1, 4.2],
    ],
    capacityAh: 50,
    resistanceOhm: 0.002,
    maxV: 4.25,
  },
  series: 100,
  parallel: 2,
  startSoc: 0.1,
  endSoc: 0.9,
  source: { maxA: 50, maxV: 450 },
  cellMaxV: 4.2,
  stepS: 10,
};
const run = (change: Partial<ChargeCurveInput>) => chargeCurve.calculate({ ...base, ...change }).result;

describe('a charge', () => {
  test('constant current: time is charge over current, stored and lost add up', () => {
    const all = run({});
    expect(all.minutes).toBeCloseTo((0.8 * 100 * 60) / 50, 9);
    expect(all.energyStoredKWh).toBeCloseTo(0.8 * 100 * 0.36, 9);
    expect(all.lossKWh).toBeCloseTo((0.1 * 50 * 50 * (all.minutes / 60)) / 1000, 9);
    expect(all.energyToPackKWh).toBeCloseTo(all.energyStoredKWh + all.lossKWh, 12);
    expect(all).toMatchObject({ endedBy: 'soc', endSocReached: 0.9, startTaperSoc: null, peakA: 50 });
  });

  test('against small steps in time, where power, rate, table and voltage govern in turn', () => {
    const input: Partial<ChargeCurveInput> = {
      endSoc: 1,
      source: { maxW: 30_000, maxA: 90, maxV: 418 },
      cRateLimit: 0.95,
      currentBySoc: [
        [0, 200],
        [0.6, 80],
        [1, 30],
      ],
      taperEndA: 8,
    };
    let [soc, s, stored, lost] = [0.1, 0, 0, 0];
    const dt = 0.05;
    for (;;) {
      const v0 = 100 * (3 + 1.2 * soc);
      const table = soc < 0.6 ? 200 - 200 * soc : 80 - 125 * (soc - 0.6);
      const held = (418 - v0) / 0.1;
      const others = Math.min(90, 95, table, (-v0 + Math.sqrt(v0 * v0 + 4 * 0.1 * 30_000)) / 0.2);
      const a = Math.min(others, held);
      if (soc >= 1 || (held <= others && a <= 8)) break;
      soc += (a * dt) / 360_000;
      stored += v0 * a * dt;
      lost += a * a * 0.1 * dt;
      s += dt;
    }
    const exact = run(input);
    expect(exact.minutes / (s / 60)).toBeCloseTo(1, 4);
    expect(exact.energyStoredKWh / (stored / 3.6e6)).toBeCloseTo(1, 4);
    expect(exact.lossKWh / (lost / 3.6e6)).toBeCloseTo(1, 3);
    expect(exact.endSocReached).toBeCloseTo(soc, 4);
    expect(exact.endedBy).toBe('taper');
  });

  test('held at a voltage without an end of taper it goes on to a hundredth of an ampere', () => {
    const all = run({ endSoc: 1, source: { maxA: 50, maxV: 400 } });
    expect(all.endedBy).toBe('current');
    expect(all.startTaperSoc).toBeCloseTo((400 - 5 - 300) / 120, 9);
    expect(all.endSocReached).toBeCloseTo((400 - 0.001 - 300) / 120, 9);
    // The tail is an exponential of R·Q/(dU/dsoc).
    const head = (360_000 * (all.startTaperSoc! - 0.1)) / 50;
    expect(all.minutes * 60).toBeCloseTo(head + ((0.1 * 360_000) / 120) * Math.log(50 / 0.01), 3);
  });

  test('a full pack takes nothing; a table that ends at nothing ends there', () => {
    expect(run({ startSoc: 0.95, endSoc: 1, source: { maxA: 50, maxV: 410 } })).toMatchObject({
      minutes: 0,
      endedBy: 'current',
      peakA: 0.0,
    });
    const ends = run({
      endSoc: 0.9,
      currentBySoc: [
        [0, 50],
        [0.8, 0],
      ],
    });
    expect(ends.endedBy).toBe('current');
    expect(ends.endSocReached).toBeCloseTo(0.8 - (0.8 * 0.01) / 50, 9);
  });

  test('the cells’ limit governs where it is lower than the charger’s', () => {
    expect(run({ cellMaxV: 4, endSoc: 1 }).startTaperSoc).toBeCloseTo((395 - 300) / 120, 9);
  });

  test.each([
    [{ endSoc: 0.1 }, 'endSoc'],
    [{ cellMaxV: 4.3 }, 'cellMaxV'],
    [{ source: { maxV: 400 } }, 'source'],
  ])('%j is refused', (change, path) => {
    const parsed = chargeCurve.parse({ ...base, ...change });
    expect(parsed.ok ? [] : parsed.issues.map((issue) => issue.path)).toEqual([path]);
  });
  test('a limit by rate alone is enough', () => {
    expect(chargeCurve.parse({ ...base, source: { maxV: 400 }, cRateLimit: 1 }).ok).toBe(true);
  });
});
