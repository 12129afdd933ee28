import { expect, test } from '@jest/globals';
import { thresholdRoles } from '../../model/document';
import { acCharge, type AcChargeInput } from './ac-charge';
import { chargeCurve, type ChargeCurveInput } from './charge-curve';
import { thresholdLadder } from './threshold-ladder';

/** Small seeded generator, 0 to 1. */
function random(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

test('no phase above what is available; power out is power in times efficiency; the neutral never above the fullest phase', () => {
  const next = random(19);
  for (let k = 0; k < 600; k += 1) {
    const phases = next() < 0.5 ? 1 : 3;
    const input = {
      phases,
      phaseVoltageV: 110 + 140 * next(),
      pilotA: 6 + 26 * next(),
      cableA: 13 + 50 * next(),
      inletWireA: 10 + 30 * next(),
      ...(next() < 0.5 && { breakerA: 10 + 30 * next(), continuousFraction: 0.7 + 0.3 * next() }),
      chargers: Array.from({ length: 1 + Math.floor(4 * next()) }, (_, i) => ({
        id: `c${i}`,
        phase: phases === 1 ? 1 : ([1, 2, 3, '3ph'] as const)[Math.floor(4 * next())]!,
        maxInputA: 4 + 28 * next(),
        efficiency: 0.85 + 0.12 * next(),
        maxOutputA: 2 + 40 * next(),
        minV: 200,
        maxV: 420,
      })),
      packV: 190 + 240 * next(),
    };
    const parsed = acCharge.parse(input);
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
    const { result } = acCharge.calculate(parsed.input);
    const most = Math.max(...result.phaseA);
    expect(most).toBeLessThanOrEqual(result.availableA * (1 + 1e-9));
    expect(result.neutralA).toBeLessThanOrEqual(most * (1 + 1e-9) + 1e-9);
    const used: AcChargeInput = parsed.input;
    const out = used.chargers.map(
      (one, i) =>
        (one.phase === '3ph' ? 3 : 1) * used.phaseVoltageV * result.chargers[i]!.inputA * one.efficiency,
    );
    result.chargers.forEach((one, i) => {
      expect(one.outputW).toBeCloseTo(out[i]!, 6);
      expect(one.outputW).toBeLessThanOrEqual(used.chargers[i]!.maxOutputA * used.packV * (1 + 1e-9));
    });
    expect(result.outputW).toBeCloseTo(
      out.reduce((sum, one) => sum + one, 0),
      6,
    );
  }
});

test('a charge never takes longer with more power, and conserves energy to a thousandth', () => {
  const next = random(7);
  for (let k = 0; k < 60; k += 1) {
    const base: Omit<ChargeCurveInput, 'source' | 'stepS'> = {
      cell: {
        ocvTable: [
          [0, 3],
          [0.1 + 0.3 * next(), 3.4 + 0.2 * next()],
          [0.8, 3.9 + 0.1 * next()],
          [1, 4.15],
        ],
        capacityAh: 20 + 100 * next(),
        resistanceOhm: 0.0005 + 0.003 * next(),
        maxV: 4.2,
      },
      series: 96,
      parallel: 1 + Math.floor(3 * next()),
      startSoc: 0.05 + 0.2 * next(),
      endSoc: 0.7 + 0.25 * next(),
      cellMaxV: 4.2,
    };
    const run = (maxW: number) => {
      const parsed = chargeCurve.parse({ ...base, source: { maxW, maxV: 403 } });
      if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
      return chargeCurve.calculate(parsed.input).result;
    };
    const watts = 2000 + 60_000 * next();
    const [slow, fast] = [run(watts), run(watts * (1.05 + next()))];
    if (slow.endedBy === 'soc' && fast.endedBy === 'soc')
      expect(fast.minutes).toBeLessThanOrEqual(slow.minutes * (1 + 1e-9));
    for (const one of [slow, fast]) {
      expect(Math.abs(one.energyToPackKWh - one.energyStoredKWh - one.lossKWh)).toBeLessThanOrEqual(
        1e-3 * one.energyToPackKWh,
      );
      // Told again from its curve, by trapezoids.
      const told = one.curve.slice(1).reduce((sum, [m, , amps, volts], i) => {
        const [before, , a, v] = one.curve[i]!;
        return sum + ((m - before) / 60) * ((amps * volts + a * v) / 2000);
      }, 0);
      expect(Math.abs(told - one.energyToPackKWh)).toBeLessThan(0.01 * one.energyToPackKWh);
    }
  }
});

test('the ladder does not depend on the order of entry', () => {
  const next = random(3);
  for (let k = 0; k < 200; k += 1) {
    const thresholds = Array.from({ length: 3 + Math.floor(12 * next()) }, (_, i) => ({
      id: `t${i}`,
      level: 'cell' as const,
      voltageV: 2.8 + 1.5 * next(),
      role: thresholdRoles[Math.floor(thresholdRoles.length * next())]!,
    }));
    const run = (list: typeof thresholds) => {
      const parsed = thresholdLadder.parse({ series: 96, cell: { minV: 2.8, maxV: 4.25 }, thresholds: list });
      if (!parsed.ok) throw new Error('refused');
      const { ordered, violations } = thresholdLadder.calculate(parsed.input).result;
      return { ordered, violations: violations.map(({ upper, lower }) => `${upper} ${lower}`).sort() };
    };
    const shuffled = [...thresholds].sort(() => next() - 0.5);
    expect(run(shuffled)).toEqual(run(thresholds));
  }
});
