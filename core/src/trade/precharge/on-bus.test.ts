import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { inrushPeakA, prechargeChoose, prechargeChooseOnBus, timeToReachS, type ResistorPlace } from '.';
import { resistorCriteria, resistorDuty, type ResistorRatings } from './criteria';

describe('the inrush through resistance and inductance', () => {
  /** Peak of i where L·di/dt = v − R·i, C·dv/dt = −i, by small steps of the fourth order. */
  function byStepsA(V: number, R: number, L: number, C: number): number {
    const endS = 3 * Math.sqrt(L * C);
    const dt = endS / 20_000;
    let [i, v, peak] = [0, V, 0];
    const slope = (a: number, b: number): [number, number] => [(b - R * a) / L, -a / C];
    for (let at = 0; at < endS; at += dt) {
      const k1 = slope(i, v);
      const k2 = slope(i + (dt / 2) * k1[0], v + (dt / 2) * k1[1]);
      const k3 = slope(i + (dt / 2) * k2[0], v + (dt / 2) * k2[1]);
      const k4 = slope(i + dt * k3[0], v + dt * k3[1]);
      i += (dt / 6) * (k1[0] + 2 * k2[0] + 2 * k3[0] + k4[0]);
      v += (dt / 6) * (k1[1] + 2 * k2[1] + 2 * k3[1] + k4[1]);
      peak = Math.max(peak, i);
    }
    return peak;
  }

  test.each([
    ['swings', 0.05, 4e-6],
    ['creeps', 0.05, 0.5e-6],
    ['lies between', 0.05, (0.05 ** 2 * 0.0016) / 4],
    ['lies next to between', 0.05, ((0.05 ** 2 * 0.0016) / 4) * (1 + 1e-9)],
  ])('is what small steps find where it %s', (_, loopOhm, inductanceH) => {
    const loop = { loopOhm, inductanceH, capacitanceF: 0.0016 };
    expect(inrushPeakA(40, loop) / byStepsA(40, loopOhm, inductanceH, 0.0016)).toBeCloseTo(1, 4);
  });

  test('without inductance it is ΔV/R, and never more than the largest fault', () => {
    const loop = { loopOhm: 0.04, capacitanceF: 0.0016 };
    expect(inrushPeakA(40, loop)).toBe(1000);
    expect(inrushPeakA(40, { ...loop, inductanceH: 0 })).toBe(1000);
    expect(inrushPeakA(40, { ...loop, atMostA: 700 })).toBe(700);
  });

  test('inductance only takes from it, and the more the more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-3, max: 1, noNaN: true }),
        fc.double({ min: 1e-9, max: 1e-3, noNaN: true }),
        fc.double({ min: 1e-5, max: 0.01, noNaN: true }),
        (loopOhm, inductanceH, capacitanceF) => {
          const peakA = inrushPeakA(100, { loopOhm, inductanceH, capacitanceF });
          expect(peakA).toBeGreaterThan(0);
          expect(peakA).toBeLessThanOrEqual(100 / loopOhm);
          expect(
            inrushPeakA(100, { loopOhm, inductanceH: inductanceH * 2, capacitanceF }),
          ).toBeLessThanOrEqual(peakA * (1 + 1e-9));
        },
      ),
    );
  });
});

const place: ResistorPlace = {
  packVoltageV: 400,
  busCapacitanceF: 0.001,
  parallelLoadOhm: 1900,
  thresholdFraction: 0.95,
  timeoutS: 2,
  attemptsPerMinute: 2,
};
const resistor: ResistorRatings = {
  resistanceOhm: 50,
  toleranceFraction: 0.1,
  pulseEnergyJ: 1000,
  continuousW: 100,
  maxVoltageV: 1000,
};
const failing = (over: Partial<ResistorRatings> = {}, at: Partial<ResistorPlace> = {}) =>
  resistorCriteria({ ...resistor, ...over }, { ...place, ...at }).flatMap(({ rule, problem }) =>
    problem === null ? [] : [rule.id],
  );

describe('a resistor on a bus that carries a load', () => {
  test('does by hand what it does here', () => {
    const duty = resistorDuty(resistor, place);
    // k = 1900/1950; τ = 50 mΩF·k; t = −τ·ln(1 − 0.95/k).
    const k = 1900 / 1950;
    expect(duty.timeToThresholdS).toBeCloseTo(-50 * 0.001 * k * Math.log(1 - 0.95 / k), 12);
    const kHigh = 1900 / 1955;
    expect(duty.timeWorstS).toBeCloseTo(-55 * 0.001 * kHigh * Math.log(1 - 0.95 / kHigh), 12);
    // A short until the limit: 400²/45 Ω·2 s.
    expect(duty.shortedEnergyJ).toBeCloseTo(7111.1, 1);
    expect(duty.shortedPowerW).toBeCloseTo(237.04, 2);
    // More than what a bus without load takes, and no more than the load can add in that time.
    expect(duty.energyJ).toBeGreaterThan(80);
    expect(duty.energyJ).toBeLessThan(80 + (400 ** 2 / 1950) * duty.timeToThresholdS!);
    expect(duty.averagePowerW).toBeCloseTo(duty.energyJ / 30, 12);
  });

  test('each number alone decides its own criterion', () => {
    // 400 V²/45 Ω on a short: 7111 J and 237 W.
    const good = { pulseEnergyJ: 7200, continuousW: 240 };
    expect(failing(good)).toEqual([]);
    expect(failing({ ...good, pulseEnergyJ: 7100 })).toEqual(['precharge.shorted-energy']);
    expect(failing({ ...good, continuousW: 236 })).toEqual(['precharge.repeated-on-short']);
    expect(failing({ ...good, maxVoltageV: 399 })).toEqual(['precharge.resistor-voltage']);
    // 0.95 of 400 V is reached at k ≥ 0.95, R ≤ 100 Ω; a tenth more may not lie beyond.
    expect(failing({ ...good, resistanceOhm: 90 }, { timeoutS: 1.9 })).toEqual([]);
    expect(failing({ ...good, resistanceOhm: 91 }, { timeoutS: 1.9 })).toEqual([
      'precharge.threshold-never-reached',
    ]);
    const worstS = resistorDuty(resistor, place).timeWorstS!;
    expect(failing(good, { timeoutS: worstS })).toContain('precharge.slower-than-limit');
    expect(failing(good, { timeoutS: worstS * 1.001 })).toEqual([]);
  });

  test('the ideal resistance reaches the threshold in the wanted time, whatever stands on the bus', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 200, max: 1e5, noNaN: true }),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (parallelLoadOhm, wantedTimeS) => {
          // Beyond that, the resistance lies nearer to the largest possible one than a number can tell.
          fc.pre(wantedTimeS < 10 * 0.001 * parallelLoadOhm * (1 / 0.95 - 1));
          const parsed = prechargeChooseOnBus.parse({
            ...place,
            parallelLoadOhm,
            wantedTimeS,
            resistors: [{ partId: 'a', ...resistor }],
          });
          if (!parsed.ok) throw new Error('refused');
          const { idealResistanceOhm } = prechargeChooseOnBus.calculate(parsed.input).result;
          const plant = { ...place, resistanceOhm: idealResistanceOhm, parallelLoadOhm };
          expect(timeToReachS(plant, 0.95)! / wantedTimeS).toBeCloseTo(1, 4);
        },
      ),
    );
  });

  test('the calculator of the contract knows neither load nor starts on a short', () => {
    const input = {
      ...place,
      wantedTimeS: 0.15,
      resistors: [{ partId: 'a', ...resistor, pulseEnergyJ: 7200 }],
    };
    const { parallelLoadOhm: _, ...contract } = input;
    expect(prechargeChoose.parse(input).ok).toBe(false);
    const parsed = prechargeChoose.parse(contract);
    if (!parsed.ok) throw new Error('refused');
    const [only] = prechargeChoose.calculate(parsed.input).result.ranked;
    expect([only!.fits, only!.reasons]).toEqual([true, []]);
    expect(only!.timeToThresholdS).toBeCloseTo(50 * 0.001 * Math.log(20), 12);
    const onBus = prechargeChooseOnBus.parse(input);
    if (!onBus.ok) throw new Error('refused');
    expect(prechargeChooseOnBus.calculate(onBus.input).result.ranked[0]!.reasons).toHaveLength(1);
  });
});
