import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boxUa } from './box-ua';
import { expansion } from './expansion';
import { exchange } from './exchanger';
import { fluidAt, glycol50 } from './fluid';
import { heaterAtVoltage } from './heater-at-voltage';
import { leakTest, type LeakTestInput } from './leak-test';
import { loopThermal, type LoopThermalInput } from './loop-thermal';
import { packThermal, type PackThermalInput } from './pack-thermal';
import { warmUp } from './warm-up';

describe('coolant', () => {
  test('linear between rows, viscosity in its logarithm, ends held', () => {
    const at = fluidAt(glycol50, 10);
    expect([at.densityKgM3, at.specificHeatJPerKgK]).toEqual([1081, 3345]);
    expect(at.viscosityMPaS).toBeCloseTo(Math.sqrt(7.8 * 3.9), 12);
    expect(fluidAt(glycol50, -60).viscosityMPaS).toBeCloseTo(22, 12);
    expect(fluidAt(glycol50, 120).conductivityWPerMK).toBeCloseTo(0.409, 12);
  });
});

describe('a loop with its radiator', () => {
  const input: LoopThermalInput = {
    fluid: {},
    flowLPerMin: 9,
    heatLoads: [
      { id: 'a', heatW: 1500, resistanceKPerW: 0.01 },
      { id: 'b', heatW: 600 },
    ],
    radiator: { uaWPerK: 300, airFlowKgPerS: 0.2, airInC: 35 },
  };

  test('energy: what the loads give, the air takes; what comes out of one goes into the next', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 30, noNaN: true }),
        fc.double({ min: 10, max: 3000, noNaN: true }),
        fc.double({ min: 0.02, max: 3, noNaN: true }),
        (flowLPerMin, uaWPerK, airFlowKgPerS) => {
          const { result } = loopThermal.calculate({
            ...input,
            fluid: { densityKgM3: 1000, specificHeatJPerKgK: 4000 },
            flowLPerMin,
            radiator: { ...input.radiator, uaWPerK, airFlowKgPerS },
          });
          const coolant = (1000 * flowLPerMin * 4000) / 60_000;
          expect(coolant * result.riseK).toBeCloseTo(2100, 6);
          const least = Math.min(coolant, airFlowKgPerS * 1006);
          expect(result.effectiveness * least * (result.coolantHotC - 35)).toBeCloseTo(2100, 6);
          expect(result.loads[0]!.coolantInC).toBeCloseTo(result.coolantColdC, 9);
          expect(result.loads[1]!.coolantInC).toBe(result.loads[0]!.coolantOutC);
          expect(result.loads[1]!.coolantOutC).toBeCloseTo(result.coolantHotC, 9);
        },
      ),
    );
  });

  test('properties iterated are those at the mean that comes out', () => {
    const { result } = loopThermal.calculate(input);
    const mean = (result.coolantHotC + result.coolantColdC) / 2;
    const { result: again } = loopThermal.calculate({ ...input, fluid: { temperatureC: mean } });
    expect(again.coolantHotC).toBeCloseTo(result.coolantHotC, 8);
  });

  test('beyond its table the coolant is as at its end, and it is said', () => {
    const { result, findings } = loopThermal.calculate({
      ...input,
      radiator: { ...input.radiator, airInC: 95 },
    });
    expect(findings.map(({ rule }) => rule.id)).toEqual(['loop-thermal.outside-table']);
    expect(result.riseK).toBeCloseTo(2100 / ((1038 * 9 * 3590) / 60_000), 9);
  });

  test('a limit is judged by the surface; where that is not known, by nothing', () => {
    const { result, findings } = loopThermal.calculate({
      ...input,
      limits: [
        { id: 'a', maxC: 55 },
        { id: 'b', maxC: 20 },
      ],
    });
    expect(result.loads.map(({ ok }) => ok)).toEqual([false, null]);
    expect(findings.map(({ rule }) => rule.id)).toEqual(['loop-thermal.limit']);
    const parsed = loopThermal.parse({ ...input, limits: [{ id: 'c', maxC: 20 }] });
    expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['limits.0.id']);
  });

  test('an endless stream of air leaves 1 − e^−NTU', () => {
    expect(exchange(200, 400, 1e18).effectiveness).toBeCloseTo(1 - Math.exp(-0.5), 12);
    expect(exchange(200, 400, 4e12).effectiveness).toBeCloseTo(1 - Math.exp(-0.5), 6);
  });
});

describe('the pack as one lump', () => {
  const base: PackThermalInput = {
    massKg: 180,
    specificHeatJPerKgK: 1000,
    startC: 30,
    ambientC: 28,
    uaToAmbientWPerK: 6,
    resistanceOhm: 0.11,
    profile: [
      [600, 150],
      [900, 40],
    ],
    repeat: 20,
    heaterW: 0,
    cooling: { uaWPerK: 160, coolantC: 22, onAboveC: 34, offBelowC: 31 },
  };
  const run = (input: PackThermalInput) => packThermal.calculate(input).result;

  test('halving the steps changes nothing', () => {
    const halved = base.profile.flatMap(([s, a]): [number, number][] => [
      [s / 2, a],
      [s / 2, a],
    ]);
    const [one, two] = [run(base), run({ ...base, profile: halved })];
    for (const key of ['endC', 'maxC', 'minC', 'timeAboveOnS', 'coolingOnS'] as const)
      expect(two[key]!).toBeCloseTo(one[key]!, 6);
    expect(one.curve).toHaveLength(400);
    expect([one.curve[0], one.curve[399]]).toEqual([
      [0, 30],
      [30_000, one.endC],
    ]);
  });

  test('what a small step of Euler gives', () => {
    let [t, isOn, onS, aboveS] = [30, false, 0, 0];
    const dt = 0.02;
    for (let turn = 0; turn < 2; turn += 1)
      for (const [s, a] of base.profile)
        for (let k = 0; k < s / dt; k += 1) {
          if (!isOn && t >= 34) isOn = true;
          if (isOn && t <= 31) isOn = false;
          if (isOn) onS += dt;
          if (t > 34) aboveS += dt;
          t += (dt * (a * a * 0.11 - 6 * (t - 28) - (isOn ? 160 * (t - 22) : 0))) / 180_000;
        }
    const exact = run({ ...base, repeat: 2 });
    expect(exact.endC).toBeCloseTo(t, 2);
    expect(exact.coolingOnS! / onS).toBeCloseTo(1, 3);
    expect(exact.timeAboveOnS! / aboveS).toBeCloseTo(1, 2);
  });

  test('the curve passes through what an exponential says', () => {
    const { curve } = run({ ...base, profile: [[1000, 100]], repeat: 1, cooling: undefined as never });
    for (const [s, c] of curve)
      expect(c).toBeCloseTo(28 + 1100 / 6 + (2 - 1100 / 6) * Math.exp((-6 * s) / 180_000), 8);
  });

  test('no losses at all: straight up; a cold one warms to its surroundings', () => {
    const { cooling: _, ...bare } = base;
    expect(run({ ...bare, uaToAmbientWPerK: 0, profile: [[1800, 100]], repeat: 1 }).endC).toBeCloseTo(
      30 + (1100 * 1800) / 180_000,
      9,
    );
    const cold = run({ ...bare, startC: -10, profile: [[1e6, 0]], repeat: 1 });
    expect(cold).toMatchObject({ minC: -10, timeAboveOnS: null, coolingOnS: null });
    expect(cold.endC).toBeCloseTo(28, 6);
  });

  test('it starts with the cooling on where it is warmer than that', () => {
    expect(run({ ...base, startC: 34.1, profile: [[1, 0]], repeat: 1 }).coolingOnS).toBe(1);
    expect(run({ ...base, startC: 34, profile: [[1, 0]], repeat: 1 }).coolingOnS).toBe(0);
  });

  test('a hair of hysteresis: turns beyond number are counted, and the share of time is that of the heat', () => {
    const result = run({
      ...base,
      startC: 34,
      uaToAmbientWPerK: 0,
      profile: [[86_400, 100]],
      repeat: 1,
      cooling: { uaWPerK: 160, coolantC: 22, onAboveC: 34, offBelowC: 34 - 1e-7 },
    });
    expect(result.coolingOnS! / 86_400).toBeCloseTo(1100 / (160 * 12), 4);
    expect(result.maxC).toBeCloseTo(34, 6);
  });

  test.each([
    [{ cooling: { uaWPerK: 1, coolantC: 20, onAboveC: 30, offBelowC: 30 } }, 'cooling.offBelowC'],
    [{ repeat: 1e8 }, 'repeat'],
    [{ profile: [[0, 100]] }, 'profile.0.0'],
  ])('%j is refused', (change, path) => {
    const parsed = packThermal.parse({ ...base, ...change });
    expect(parsed.ok ? [] : parsed.issues.map((issue) => issue.path)).toEqual([path]);
  });
});

describe('cold', () => {
  const cold = {
    massKg: 300,
    specificHeatJPerKgK: 1000,
    startC: -12,
    targetC: 10,
    ambientC: -12,
    uaToAmbientWPerK: 8,
    heaterW: 900,
  };
  const run = (change: Partial<typeof cold>) => warmUp.calculate({ ...cold, ...change }).result;

  test('already warm takes no time; without losses there is no end', () => {
    expect(run({ startC: 10 })).toMatchObject({ timeS: 0, energyKWh: 0, holdW: 176 });
    expect(run({ uaToAmbientWPerK: 0 })).toMatchObject({
      timeS: (300_000 * 22) / 900,
      holdW: 0,
      finalC: null,
    });
    expect(run({ uaToAmbientWPerK: 0, heaterW: 0 })).toMatchObject({ timeS: null, finalC: -12 });
  });
  test('an end exactly at the target is never reached', () => {
    expect(run({ heaterW: 176 })).toMatchObject({ timeS: null, energyKWh: null, finalC: 10 });
  });
  test('warmer surroundings warm it without a heater', () => {
    const { timeS, energyKWh, holdW } = run({ heaterW: 0, ambientC: 20 });
    expect(timeS).toBeCloseTo((300_000 / 8) * Math.log(32 / 10), 6);
    expect([energyKWh, holdW]).toEqual([0, 0]);
  });
  test('walls: layers in series between two films', () => {
    // A bare square metre passes 1/(1/5 + 1/15) = 3.75 W/K; bolts and feet come on top.
    const box = {
      areaM2: 4,
      layers: [{ thicknessM: 0.02, conductivityWPerMK: 0.04 }],
      insideWPerM2K: 5,
      outsideWPerM2K: 15,
    };
    const u = 1 / (0.2 + 0.5 + 1 / 15);
    expect(boxUa.calculate(box).result.uaWPerK).toBeCloseTo(4 * u, 12);
    expect(boxUa.calculate({ ...box, bareM2: 1, bridgeWPerK: 0.8 }).result).toEqual({
      uValueWPerM2K: expect.closeTo(u, 12),
      uaWPerK: expect.closeTo(3 * u + 3.75 + 0.8, 12),
    });
    expect(boxUa.parse({ ...box, bareM2: 4.1 })).toMatchObject({ ok: false, issues: [{ path: 'bareM2' }] });
    const { uValueWPerM2K } = boxUa.calculate({
      areaM2: 2,
      layers: [{ thicknessM: 0.03, conductivityWPerMK: 0.03 }],
      insideWPerM2K: 5,
      outsideWPerM2K: 20,
    }).result;
    expect(uValueWPerM2K).toBeCloseTo(1 / (0.2 + 1 + 0.05), 12);
  });
});

describe('a heater at a voltage', () => {
  const at = (busV: number, kind: 'ptc' | 'resistive') =>
    heaterAtVoltage.calculate({ ratedW: 5000, ratedMinV: 280, ratedMaxV: 420, busV, kind });
  test('in its window rated, beyond it nothing, ends included', () => {
    expect(at(280, 'ptc').result).toEqual({ lowW: 5000, highW: 5000, allowed: true });
    expect(at(420, 'resistive').result.lowW).toBe(5000);
    expect(at(420.1, 'ptc').result).toEqual({ lowW: null, highW: null, allowed: false });
    expect(at(420.1, 'ptc').findings.map(({ rule }) => rule.id)).toEqual(['heater-at-voltage.over-voltage']);
    expect(at(300, 'resistive').findings.map(({ rule }) => rule.id)).toEqual([
      'heater-at-voltage.bare-element',
    ]);
    expect(at(300, 'ptc').findings).toEqual([]);
  });
});

describe('a leak test', () => {
  const held: LeakTestInput = {
    startKPaGauge: 150,
    endKPaGauge: 150,
    startC: 20,
    endC: 20,
    minutes: 30,
    volumeL: 2,
    allowedDropKPa: 1,
    atmosphereKPa: 101.325,
    endAtmosphereKPa: 101.325,
  };
  test('a tight vessel has no corrected drop, whatever temperature and weather do', () => {
    const celsius = fc.double({ min: -30, max: 60, noNaN: true });
    fc.assert(
      fc.property(
        celsius,
        celsius,
        fc.double({ min: 94, max: 106, noNaN: true }),
        (startC, endC, endAtmosphereKPa) => {
          const endKPaGauge = ((150 + 101.325) * (endC + 273.15)) / (startC + 273.15) - endAtmosphereKPa;
          const { result } = leakTest.calculate({ ...held, startC, endC, endKPaGauge, endAtmosphereKPa });
          expect(Math.abs(result.correctedDropKPa)).toBeLessThan(1e-9);
          expect(result.pass).toBe(true);
        },
      ),
    );
  });
  test('the weather at the end is by default that at the start', () => {
    const parsed = leakTest.parse({ ...held, atmosphereKPa: 95, endAtmosphereKPa: undefined });
    expect(parsed.ok && parsed.input.endAtmosphereKPa).toBe(95);
  });
  test('short and passed is passed and short; rising is a finding, not a leak', () => {
    const short = leakTest.calculate({ ...held, minutes: 14.9 });
    expect(short.result).toMatchObject({ pass: true, tooShort: true });
    const rising = leakTest.calculate({ ...held, endKPaGauge: 151.5 });
    expect(rising.result.pass).toBe(true);
    expect(rising.findings.map(({ rule }) => rule.id)).toEqual(['leak-test.pressure-rises']);
    expect(leakTest.calculate({ ...held, endKPaGauge: 148.9 }).findings.map(({ rule }) => rule.id)).toEqual([
      'leak-test.leaks',
    ]);
    expect(leakTest.calculate({ ...held, minutes: 15 }).result.tooShort).toBe(false);
  });
});

test('a tank of just what is needed is enough', () => {
  const { result } = expansion.calculate({
    volumeL: 10,
    coldC: 0,
    hotC: 50,
    betaPerK: 0.001,
    tankL: 0.6,
    reserveFraction: 0.2,
  });
  expect(result.expansionL).toBeCloseTo(0.5, 12);
  expect(result.neededTankL).toBeCloseTo(0.6, 12);
});
