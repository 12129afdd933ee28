import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { busDischarge, busVoltageAt, precharge, prechargeChoose, prechargeFit, type PrechargeInput } from '.';

const base: PrechargeInput = {
  packVoltageV: 360,
  busCapacitanceF: 0.0012,
  resistanceOhm: 47,
  thresholdFraction: 0.95,
  timeoutS: 3,
  loopResistanceOhm: 0.05,
};

const inputs = fc.record({
  packVoltageV: fc.double({ min: 50, max: 1000, noNaN: true }),
  busCapacitanceF: fc.double({ min: 1e-5, max: 0.02, noNaN: true }),
  resistanceOhm: fc.double({ min: 1, max: 1000, noNaN: true }),
  thresholdFraction: fc.double({ min: 0.5, max: 0.99, noNaN: true }),
  timeoutS: fc.double({ min: 0.1, max: 10, noNaN: true }),
});

describe('a run', () => {
  test('without load the resistor takes ½CV²·(1−(1−p)²) whatever its resistance, when the threshold is reached in time', () => {
    fc.assert(
      fc.property(inputs, (given) => {
        const input = { ...base, ...given };
        const { result } = precharge.calculate(input);
        fc.pre(result.completes);
        const stored = 0.5 * input.busCapacitanceF * input.packVoltageV ** 2;
        const expected = stored * (1 - (1 - input.thresholdFraction) ** 2);
        expect(result.resistorEnergyJ / expected).toBeCloseTo(1, 9);
      }),
    );
  });

  test('the energy equals the integral of (V−v)²/R, with a load too', () => {
    fc.assert(
      fc.property(inputs, fc.double({ min: 1, max: 100, noNaN: true }), (given, ratio) => {
        const input = { ...base, ...given, parallelLoadOhm: given.resistanceOhm * ratio };
        const { result } = precharge.calculate(input);
        const endS = result.completes ? result.timeToThresholdS! : input.timeoutS;
        const steps = 2000;
        let sum = 0;
        // Simpson over the run, denser where it is steep: time as the square of the parameter.
        for (let i = 0; i <= steps; i += 1) {
          const u = i / steps;
          const power = (input.packVoltageV - busVoltageAt(input, endS * u * u)) ** 2 / input.resistanceOhm;
          sum += power * 2 * u * endS * (i === 0 || i === steps ? 1 : i % 2 === 1 ? 4 : 2);
        }
        expect(sum / (3 * steps) / result.resistorEnergyJ).toBeCloseTo(1, 3);
      }),
      { numRuns: 40 },
    );
  });

  test('a threshold that is met exactly at the limit completes', () => {
    const timeoutS = 47 * 0.0012 * Math.log(20);
    const { result } = precharge.calculate({ ...base, timeoutS: timeoutS * (1 + 1e-12) });
    expect(result.completes).toBe(true);
    expect(precharge.calculate({ ...base, timeoutS: timeoutS * 0.999 }).result).toMatchObject({
      completes: false,
    });
  });

  test('slower than its limit: the voltage is taken at the limit, and a finding says so', () => {
    const { result, findings } = precharge.calculate({ ...base, timeoutS: 0.1 });
    expect(result.voltageAtCloseV).toBeCloseTo(360 * (1 - Math.exp(-0.1 / 0.0564)), 9);
    expect(findings.map(({ rule }) => rule.id)).toEqual(['precharge.slower-than-limit']);
  });

  test('a threshold of exactly what the load leaves is never reached', () => {
    const { result } = precharge.calculate({ ...base, parallelLoadOhm: 47 * 19, thresholdFraction: 0.95 });
    expect(result.timeToThresholdS).toBeNull();
  });
});

describe('choosing', () => {
  test('an empty list is answered with a finding', () => {
    const parsed = prechargeChoose.parse({
      packVoltageV: 380,
      busCapacitanceF: 0.001,
      wantedTimeS: 0.3,
      timeoutS: 3,
      resistors: [],
    });
    if (!parsed.ok) throw new Error('refused');
    const { result, findings } = prechargeChoose.calculate(parsed.input);
    expect([result.ranked, findings[0]?.rule.id]).toEqual([[], 'precharge.no-resistor-fits']);
  });

  test('each failed criterion is named, ties keep their order', () => {
    const weak = {
      resistanceOhm: 4000,
      toleranceFraction: 0.1,
      pulseEnergyJ: 10,
      continuousW: 1,
      maxVoltageV: 300,
    };
    const parsed = prechargeChoose.parse({
      packVoltageV: 380,
      busCapacitanceF: 0.001,
      wantedTimeS: 0.3,
      timeoutS: 3,
      resistors: [
        { partId: 'b', ...weak },
        { partId: 'a', ...weak },
      ],
    });
    if (!parsed.ok) throw new Error('refused');
    const { ranked } = prechargeChoose.calculate(parsed.input).result;
    expect(ranked.map(({ partId }) => partId)).toEqual(['b', 'a']);
    expect(ranked[0]!.reasons).toEqual([
      // 4000 Ω · 1.1 · 1 mF · ln 20; ½ · 1 mF · 380²; 380²/3600 · 3 s; three starts of 72.2 J a minute.
      'needs up to 13.2 s, not less than the limit of 3 s',
      'takes 72.2 J in a start, its pulse rating is 10 J',
      'takes 120 J on a shorted bus until the limit of 3 s, its pulse rating is 10 J',
      'takes 3.61 W on average at 3 starts a minute, it is made for 1 W',
      'is made for 300 V, the pack reaches 380 V',
    ]);
  });
});

describe('fitting a measured rise', () => {
  const samplesOf = (plant: Parameters<typeof busVoltageAt>[0], spanS: number, count = 40) =>
    Array.from({ length: count }, (_, i): [number, number] => [
      (spanS * (i + 1)) / count,
      busVoltageAt(plant, (spanS * (i + 1)) / count),
    ]);

  test('recovers capacitance and load from clean samples', () => {
    const within = fc.record({
      busCapacitanceF: fc.double({ min: 1e-4, max: 5e-3, noNaN: true }),
      resistanceOhm: fc.double({ min: 10, max: 300, noNaN: true }),
      ratio: fc.double({ min: 3, max: 60, noNaN: true }),
    });
    fc.assert(
      fc.property(within, ({ busCapacitanceF, resistanceOhm, ratio }) => {
        const parallelLoadOhm = resistanceOhm * ratio;
        const plant = { packVoltageV: 360, busCapacitanceF, resistanceOhm, parallelLoadOhm };
        const samples = samplesOf(plant, 4 * resistanceOhm * busCapacitanceF);
        const { result } = prechargeFit.calculate({ packVoltageV: 360, resistanceOhm, samples });
        expect(result.capacitanceF / busCapacitanceF).toBeCloseTo(1, 5);
        expect(result.parallelLoadOhm! / parallelLoadOhm).toBeCloseTo(1, 3);
        expect(result.rmsErrorV).toBeLessThan(0.001);
      }),
      { numRuns: 50 },
    );
  });

  test('a straight line is no rise to trust: the fit ends on its bound and says so', () => {
    const samples = Array.from({ length: 20 }, (_, i): [number, number] => [(i + 1) / 1000, (i + 1) / 10]);
    const { findings } = prechargeFit.calculate({ packVoltageV: 360, resistanceOhm: 50, samples });
    expect(findings.map(({ rule }) => rule.id)).toEqual(['precharge-fit.on-bound']);
  });

  test('a bus that never rises is refused at the samples', () => {
    const flat = Array.from({ length: 10 }, (_, i) => [i / 10, 0]);
    expect(prechargeFit.parse({ packVoltageV: 360, resistanceOhm: 50, samples: flat })).toMatchObject({
      ok: false,
      issues: [{ path: 'samples' }],
    });
  });
});

describe('discharge after shut-down', () => {
  const input = { voltageV: 390, capacitanceF: 0.0012, bleedOhm: 1800, safeVoltageV: 60, limitS: 5 };
  test('the largest bleed for the limit meets it exactly and passes', () => {
    const { largestBleedOhmForLimit } = busDischarge.calculate(input).result;
    const { result, findings } = busDischarge.calculate({ ...input, bleedOhm: largestBleedOhmForLimit! });
    expect(result.timeToSafeS).toBeCloseTo(5, 9);
    expect(findings).toEqual([]);
    expect(
      busDischarge.calculate({ ...input, bleedOhm: largestBleedOhmForLimit! * 1.001 }).findings,
    ).toHaveLength(1);
  });
  test('at or below the touch limit there is nothing to wait for', () => {
    expect(busDischarge.calculate({ ...input, voltageV: 60 }).result).toMatchObject({
      timeToSafeS: 0,
      largestBleedOhmForLimit: null,
    });
  });
});
