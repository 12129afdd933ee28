import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  precharge,
  prechargeFit,
  readRise,
  startSequence,
  timerAgainstVoltage,
  weldTestS,
  type PrechargeInput,
} from '.';
import { busVoltageAt } from './precharge';

const times = { mainCloseS: 0.028, mainOpenS: 0.012, prechargeCloseS: 0.018, prechargeOpenS: 0.008 };
const input: PrechargeInput = {
  packVoltageV: 400,
  busCapacitanceF: 0.001,
  resistanceOhm: 100,
  thresholdFraction: 0.95,
  timeoutS: 3,
  loopResistanceOhm: 0.05,
};

describe('the events of a start', () => {
  test('one by one: each alone, with a pause in which a weld shows', () => {
    const { events, readyAtS, riseFromS, weldTests } = startSequence('one-by-one', times, 0.3, 3);
    expect(events.map((one) => `${one.switch} ${one.does}`)).toEqual([
      'negative main closes',
      'pre-charge closes',
      'positive main closes',
      'pre-charge opens',
    ]);
    expect(riseFromS).toBeCloseTo(2 * weldTestS + 0.028 + 0.018, 12);
    expect(readyAtS).toBeCloseTo(riseFromS + 0.3 + 0.028, 12);
    expect(weldTests).toHaveLength(2);
  });

  test('together: sooner by the pauses, and one weld test fewer', () => {
    const { events, readyAtS, weldTests } = startSequence('together', times, 0.3, 3);
    expect(events.map((one) => one.switch)).toEqual([
      'pre-charge',
      'negative main',
      'positive main',
      'pre-charge',
    ]);
    expect(readyAtS).toBeCloseTo(0.028 + 0.3 + 0.028, 12);
    expect(weldTests).toHaveLength(1);
  });

  test.each([null, 3.01])('a rise of %s: given up at the limit, everything opens again', (riseS) => {
    for (const school of ['one-by-one', 'together'] as const) {
      const { events, readyAtS, riseFromS } = startSequence(school, times, riseS, 3);
      expect(readyAtS).toBeNull();
      expect(events.filter(({ does }) => does === 'opens').map((one) => one.switch)).toEqual([
        'pre-charge',
        'negative main',
      ]);
      expect(events.some((one) => one.switch === 'positive main')).toBe(false);
      expect(events.at(-1)!.atS).toBeCloseTo(riseFromS + 3 + 0.012, 12);
    }
  });

  test('whatever the times: in order, and no main closes before the bus has risen', () => {
    const t = fc.double({ min: 0.001, max: 0.2, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom('one-by-one' as const, 'together' as const),
        t,
        t,
        t,
        t,
        t,
        (school, a, b, c, d, rise) => {
          const all = { mainCloseS: a, mainOpenS: b, prechargeCloseS: c, prechargeOpenS: d };
          const { events, riseFromS } = startSequence(school, all, rise, 1);
          expect(events.every((one, i) => i === 0 || one.atS >= events[i - 1]!.atS)).toBe(true);
          const positive = events.find((one) => one.switch === 'positive main')!;
          expect(positive.atS - riseFromS).toBeGreaterThanOrEqual(rise);
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });
});

describe('a bare timer against the voltage check', () => {
  const [designed, more, loaded, short] = timerAgainstVoltage(input, 0.4, {
    loopOhm: 0.05,
    capacitanceF: 0.001,
  });

  test('as designed both close, the check when the threshold is reached', () => {
    // 400·(1 − e⁻⁴) and (400 − 380)/0.05.
    expect(designed!.timer.voltageV).toBeCloseTo(392.674, 3);
    expect(designed!.voltage.atS).toBeCloseTo(-0.1 * Math.log(0.05), 12);
    expect(designed!.voltage.inrushA).toBeCloseTo(400, 9);
    expect(designed!.voltage.atS).toBeCloseTo(precharge.calculate(input).result.timeToThresholdS!, 12);
  });

  test('a third more capacitance: the check waits, the timer does not', () => {
    expect(more!.voltage.atS! / designed!.voltage.atS!).toBeCloseTo(1.33, 12);
    expect(more!.timer.inrushA).toBeGreaterThan(2 * designed!.timer.inrushA);
  });

  test('a load of three times the resistor stays at three quarters: the check gives up, the timer closes on it', () => {
    expect(loaded!.voltage).toEqual({ atS: null, inrushA: null });
    expect(loaded!.at(100)).toBeCloseTo(300, 9);
    expect(loaded!.timer.inrushA).toBeGreaterThan(1900);
  });

  test('a short: nothing rises, the timer closes on the whole voltage', () => {
    expect(short!.timer).toEqual({ voltageV: 0, inrushA: 8000 });
    expect(short!.voltage.atS).toBeNull();
  });
});

describe('energy in the resistor without a load', () => {
  test('is ½CV²·(1−(1−p)²) whatever its resistance, when the threshold is reached in time', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.double({ min: 0.05, max: 0.99, noNaN: true }),
        fc.double({ min: 20, max: 1000, noNaN: true }),
        (resistanceOhm, thresholdFraction, packVoltageV) => {
          const { result } = precharge.calculate({
            ...input,
            resistanceOhm,
            thresholdFraction,
            packVoltageV,
            timeoutS: 1e6,
          });
          const wanted = 0.5 * 0.001 * packVoltageV ** 2 * (1 - (1 - thresholdFraction) ** 2);
          expect(result.resistorEnergyJ / wanted).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: 300, seed: 5 },
    );
  });
});

describe('a measured rise against the design', () => {
  const fitOf = (busCapacitanceF: number, parallelLoadOhm?: number) => {
    const plant = { ...input, busCapacitanceF, ...(parallelLoadOhm !== undefined && { parallelLoadOhm }) };
    const samples = Array.from({ length: 40 }, (_, i): [number, number] => [
      0.02 * (i + 1),
      busVoltageAt(plant, 0.02 * (i + 1)),
    ]);
    return prechargeFit.calculate({ packVoltageV: 400, resistanceOhm: 100, samples }).result;
  };
  const expected = { capacitanceF: 0.001, resistanceOhm: 100, loadOhm: null };

  test.each([
    [0.001, undefined, 'as designed'],
    [0.00112, undefined, 'as designed'],
    // As Prove judges it: a fifth either way.
    [0.00119, undefined, 'as designed'],
    [0.00122, undefined, 'more capacitance'],
    [0.00078, undefined, 'less capacitance'],
    [0.00133, undefined, 'more capacitance'],
    [0.0006, undefined, 'less capacitance'],
    [0.001, 900, 'a load on the bus'],
  ] as const)('%s F with a load of %s: %s', (capacitanceF, loadOhm, verdict) => {
    expect(readRise(fitOf(capacitanceF, loadOhm), expected).verdict).toBe(verdict);
  });

  test('says by how much, and a load that was foreseen is none', () => {
    expect(readRise(fitOf(0.00133), expected).words).toMatch(/^33 % more capacitance/);
    expect(readRise(fitOf(0.001, 2000), { ...expected, loadOhm: 2000 }).verdict).toBe('as designed');
    expect(readRise(fitOf(0.001, 800), { ...expected, loadOhm: 2000 }).words).toMatch(
      /^a load of about 1\.3 kΩ draws on the bus during pre-charge beside the 2 kΩ of the design$/,
    );
  });

  test('a bleed that the design has and the rise does not show is named; one within a third is as designed', () => {
    const withBleed = { ...expected, loadOhm: 2000 };
    expect(readRise(fitOf(0.001), withBleed)).toMatchObject({ verdict: 'a bleed is missing' });
    expect(readRise(fitOf(0.001), withBleed).words).toBe(
      'nothing is to be seen on the bus where the design has 2 kΩ: a bleed is not connected',
    );
    for (const ohm of [1600, 2000, 2700])
      expect([ohm, readRise(fitOf(0.001, ohm), withBleed).verdict]).toEqual([ohm, 'as designed']);
    for (const ohm of [1500, 4000])
      expect([ohm, readRise(fitOf(0.001, ohm), withBleed).verdict]).not.toEqual([ohm, 'as designed']);
    // Too little to be seen at all: R/R_L of 0.5 %.
    expect(readRise(fitOf(0.001), { ...expected, loadOhm: 20_000 }).verdict).toBe('as designed');
  });
});
