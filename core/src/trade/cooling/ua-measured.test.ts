import { describe, expect, test } from '@jest/globals';
import { exchange } from './exchanger';
import { fluidAt, glycol50 } from './fluid';
import { uaFromReading } from './ua-measured';

const reading = { flowLPerMin: 12, inC: 60, airInC: 25, airKgPerS: 0.8 };

describe('what a radiator exchanges, by what was read at work', () => {
  test('is what its effectiveness was made of', () => {
    for (const uaWPerK of [60, 300, 900]) {
      // Out of the heat that such a radiator takes, at the mean of what came out.
      let outC = 50;
      for (let i = 0; i < 60; i += 1) {
        const { densityKgM3, specificHeatJPerKgK } = fluidAt(glycol50, (60 + outC) / 2);
        const wPerK = (12 * densityKgM3 * specificHeatJPerKgK) / 60_000;
        const { effectiveness, leastWPerK } = exchange(uaWPerK, wPerK, 0.8 * 1006);
        outC = 60 - (effectiveness * leastWPerK * 35) / wPerK;
      }
      const found = uaFromReading({ ...reading, outC }, glycol50);
      if (!found.ok) throw new Error(found.message);
      expect(found.uaWPerK / uaWPerK).toBeCloseTo(1, 6);
      expect(found.betweenWPerK[0]).toBeLessThan(uaWPerK);
      expect(found.betweenWPerK[1]).toBeGreaterThan(uaWPerK);
    }
  });

  test('a small difference is said to tell little', () => {
    const found = uaFromReading({ ...reading, outC: 59.5 }, glycol50);
    if (!found.ok) throw new Error(found.message);
    expect(found.betweenWPerK[0]).toBe(0);
    expect(found.betweenWPerK[1]).toBeGreaterThan(2 * found.uaWPerK);
  });

  test('what cannot be is said, by what is wrong', () => {
    const says = (more: object) => {
      const found = uaFromReading({ ...reading, outC: 50, ...more }, glycol50);
      return found.ok ? null : found.message;
    };
    expect(says({})).toBeNull();
    expect(says({ outC: 61 })).toMatch('colder than it comes');
    expect(says({ outC: 24 })).toMatch('than its air comes');
    expect(says({ flowLPerMin: 0 })).toMatch('flow');
    expect(says({ airKgPerS: 0 })).toMatch('air');
    expect(says({ airKgPerS: 0.05 })).toMatch(/W is more than this air can take up/);
  });
});
