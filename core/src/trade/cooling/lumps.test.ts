import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { followTogether, type LumpsState, type PlateLump } from './lumps';
import { packThermal } from './pack-thermal';

const lump = (change: Partial<PlateLump> = {}): PlateLump => ({
  capacityJPerK: 60_000,
  uaToAmbientWPerK: 0.4,
  coolingWPerK: 40,
  coolantC: 24,
  ...change,
});
const switching = { onAboveC: 30, offBelowC: 27 };
const ambientC = 35;

/** Follows stretches of heat, and tells the highest of each lump and how long cooling ran. */
function follow(lumps: PlateLump[], stretches: [durationS: number, heatW: number][], startC = 25) {
  const state: LumpsState = {
    temperaturesC: lumps.map(() => startC),
    isCooling: startC > switching.onAboveC,
  };
  const maxC = lumps.map(() => startC);
  let onS = 0;
  for (const [durationS, heatW] of stretches)
    followTogether(
      lumps,
      state,
      { ambientC, heatsW: lumps.map(() => heatW), durationS },
      switching,
      (lastsS, at) => {
        lumps.forEach((_, i) => (maxC[i] = Math.max(maxC[i]!, at(i, lastsS))));
        if (state.isCooling) onS += lastsS;
      },
    );
  return { endC: state.temperaturesC, maxC, onS };
}

describe('lumps with one pump', () => {
  test('one alone is the pack of pack-thermal', () => {
    const profile: [number, number][] = [
      [600, 30],
      [300, 0],
      [900, 45],
      [2000, 5],
    ];
    const { result } = packThermal.calculate({
      massKg: 60,
      specificHeatJPerKgK: 1000,
      startC: 25,
      ambientC,
      uaToAmbientWPerK: 0.4,
      resistanceOhm: 0.2,
      profile,
      repeat: 1,
      heaterW: 0,
      cooling: { uaWPerK: 40, coolantC: 24, ...switching },
    });
    const { endC, maxC, onS } = follow(
      [lump()],
      profile.map(([durationS, currentA]) => [durationS, currentA * currentA * 0.2]),
    );
    expect(endC[0]).toBeCloseTo(result.endC, 9);
    expect(maxC[0]).toBeCloseTo(result.maxC, 9);
    expect(onS).toBeCloseTo(result.coolingOnS!, 6);
    expect(onS).toBeGreaterThan(100);
  });

  test('many alike stay alike', () => {
    const one = follow([lump()], [[4000, 300]]);
    const four = follow([lump(), lump(), lump(), lump()], [[4000, 300]]);
    for (const at of four.endC) expect(at).toBeCloseTo(one.endC[0]!, 9);
  });

  test('the starved one decides when the pump runs, and the others are cooler for it', () => {
    const starved = follow([lump({ coolingWPerK: 5 }), lump()], [[6000, 250]]);
    const alone = follow([lump()], [[6000, 250]]);
    expect(starved.maxC[0]).toBeGreaterThan(44);
    expect(starved.endC[1]).toBeLessThan(alone.endC[0]! + 1e-9);
    // In the long run: P + UA·T_a + UA_c·T_c over both.
    const long = follow([lump({ coolingWPerK: 5 }), lump()], [[1e6, 250]]);
    expect(long.endC[0]).toBeCloseTo((250 + 0.4 * 35 + 5 * 24) / 5.4, 6);
    expect(long.endC[1]).toBeCloseTo((250 + 0.4 * 35 + 40 * 24) / 40.4, 6);
    expect(long.onS).toBeGreaterThan(9e5);
  });

  test('cooling stays on while one is warm, though the others are long cool', () => {
    const lumps = [lump(), lump({ capacityJPerK: 600_000 })];
    const state: LumpsState = { temperaturesC: [40, 40], isCooling: true };
    followTogether(lumps, state, { ambientC, heatsW: [0, 0], durationS: 6000 }, switching, () => undefined);
    expect(state.isCooling).toBe(true);
    expect(state.temperaturesC[0]).toBeLessThan(26);
    expect(state.temperaturesC[1]).toBeGreaterThan(27);
  });

  test('the first that is warm switches it on, wherever it stands in the list', () => {
    const quick = lump({ capacityJPerK: 20_000 });
    for (const lumps of [
      [quick, lump()],
      [lump(), quick],
    ]) {
      const state: LumpsState = { temperaturesC: [25, 25], isCooling: false };
      const pieces: number[] = [];
      const heat = { ambientC, heatsW: [200, 200], durationS: 700 };
      followTogether(lumps, state, heat, switching, (lastsS) => pieces.push(lastsS));
      // 5 K in 20 kJ/K with about 200 W: some 500 s.
      expect(pieces[0]).toBeGreaterThan(480);
      expect(pieces[0]).toBeLessThan(500);
      expect(state.isCooling).toBe(true);
    }
  });

  test('one that grows warm while the last of the others cools keeps it on', () => {
    const lumps = [lump({ coolingWPerK: 8 }), lump({ coolingWPerK: 2, capacityJPerK: 20_000 })];
    const state: LumpsState = { temperaturesC: [31, 26], isCooling: true };
    const pieces: number[] = [];
    // The first falls below 27 °C after hours; by then the second is long past it.
    followTogether(lumps, state, { ambientC: 20, heatsW: [5, 60], durationS: 40_000 }, switching, (lastsS) =>
      pieces.push(lastsS),
    );
    expect([pieces, state.isCooling]).toEqual([[40_000], true]);
    expect(state.temperaturesC[0]).toBeLessThan(27);
    expect(state.temperaturesC[1]).toBeGreaterThan(27);
  });

  test('what one gains is what it was given less what it lost, whatever the heat', () => {
    const heats = fc.array(
      fc.tuple(fc.double({ min: 1, max: 4000, noNaN: true }), fc.double({ min: 0, max: 900, noNaN: true })),
      {
        minLength: 1,
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(heats, fc.double({ min: 2, max: 80, noNaN: true }), (stretches, coolingWPerK) => {
        const lumps = [lump(), lump({ coolingWPerK })];
        const state: LumpsState = { temperaturesC: [25, 25], isCooling: false };
        let [givenJ, lostJ] = [0, 0];
        for (const [durationS, heatW] of stretches)
          followTogether(
            lumps,
            state,
            { ambientC, heatsW: [heatW, heatW], durationS },
            switching,
            (lastsS, at) => {
              // Simpson over each piece: an exponential is smooth.
              const steps = 400;
              const loss = (s: number) => {
                const own = at(1, s);
                return 0.4 * (own - ambientC) + (state.isCooling ? coolingWPerK * (own - 24) : 0);
              };
              for (let i = 0; i < steps; i += 1) {
                const [a, b] = [(i * lastsS) / steps, ((i + 1) * lastsS) / steps];
                lostJ += ((b - a) / 6) * (loss(a) + 4 * loss((a + b) / 2) + loss(b));
              }
              givenJ += heatW * lastsS;
            },
          );
        const gainedJ = 60_000 * (state.temperaturesC[1]! - 25);
        expect(Math.abs(gainedJ - (givenJ - lostJ))).toBeLessThan(
          1e-6 * (Math.abs(givenJ) + Math.abs(lostJ) + 1000),
        );
      }),
      { numRuns: 60, seed: 6 },
    );
  });
});
