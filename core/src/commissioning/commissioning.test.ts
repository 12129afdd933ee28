import { describe, expect, test } from '@jest/globals';
import { busVoltageAt } from '../precharge';
import { doubtAbout, judgeMeasurement, type Expectation } from '.';

const range: Expectation = { kind: 'range', min: 36, max: 50.4, unit: 'V' };
const rise: Extract<Expectation, { kind: 'rise' }> = {
  kind: 'rise',
  resistanceOhm: 82,
  capacitanceF: 0.00126,
  capacitanceToleranceFraction: 0.2,
  loadOhm: null,
  unit: 'V',
};

const trace = (
  plant: { busCapacitanceF: number; resistanceOhm: number; parallelLoadOhm?: number },
  packVoltageV = 360,
) => ({
  kind: 'trace' as const,
  unit: 'V' as const,
  packVoltageV,
  samples: Array.from({ length: 40 }, (_, i): [number, number] => [
    (i + 1) * 0.0125,
    busVoltageAt({ ...plant, packVoltageV }, (i + 1) * 0.0125),
  ]),
});

const verdict = (measured: Parameters<typeof judgeMeasurement>[1], expected: Expectation = rise) => {
  const judged = judgeMeasurement(expected, measured);
  if (!judged.ok) throw new Error(judged.message);
  return judged.judgement;
};

describe('a measured rise', () => {
  test('as designed passes, at any state of charge', () => {
    for (const packVoltageV of [300, 360, 403]) {
      expect(verdict(trace({ busCapacitanceF: 0.00126, resistanceOhm: 82 }, packVoltageV))).toMatchObject({
        verdict: 'pass',
        reasons: [],
      });
    }
  });
  test('more and less capacitance than designed are told by how much', () => {
    expect(verdict(trace({ busCapacitanceF: 0.00126 * 1.33, resistanceOhm: 82 })).reasons[0]).toContain(
      '33 % more than the 1.26 mF designed',
    );
    expect(verdict(trace({ busCapacitanceF: 0.00126 * 0.7, resistanceOhm: 82 })).reasons[0]).toContain(
      '30 % less',
    );
  });
  test('a load on the bus is a load, not less capacitance', () => {
    const {
      verdict: outcome,
      reasons,
      details,
    } = verdict(trace({ busCapacitanceF: 0.00126, resistanceOhm: 82, parallelLoadOhm: 700 }));
    expect(outcome).toBe('fail');
    expect(reasons).toEqual([expect.stringMatching(/a load of about 700 Ω draws on it/)]);
    expect(details.find(({ label }) => label === 'capacitance fitted')!.value).toBeCloseTo(0.00126, 6);
  });
  test('a value where a trace is expected, and the other way round, are refused', () => {
    expect(judgeMeasurement(rise, { kind: 'value', value: 1, unit: 'V' })).toEqual({
      ok: false,
      message: 'a trace of time and voltage is expected',
    });
    expect(judgeMeasurement(range, trace({ busCapacitanceF: 0.001, resistanceOhm: 82 })).ok).toBe(false);
    expect(judgeMeasurement(range, { kind: 'value', value: 40, unit: 'Ω' })).toEqual({
      ok: false,
      message: 'the unit is V, not Ω',
    });
  });
});

describe('doubt before recording', () => {
  test.each([
    [4.47, 'ten times as large (44.7 V)'],
    [447, 'a tenth of it (44.7 V)'],
    [44700, 'a thousandth of it (44.7 V)'],
    [0.0447, 'a thousand times as large (44.7 V)'],
    [-44.7, 'with its sign turned (44.7 V)'],
  ])('%d asks whether it is %s', (value, text) => {
    expect(doubtAbout(range, value)).toContain(text);
  });
  test('a value that fits, or that no slip explains, is not questioned', () => {
    expect(doubtAbout(range, 44.7)).toBeNull();
    expect(doubtAbout(range, 30)).toBeNull();
  });
});
