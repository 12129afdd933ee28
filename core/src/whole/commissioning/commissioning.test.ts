import { describe, expect, test } from '@jest/globals';
import { busVoltageAt } from '../../trade/precharge';
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
    expect(reasons).toEqual([
      'the bus ends at 322 V: a load of about 700 Ω draws on the bus during pre-charge',
    ]);
    expect(details.find(({ label }) => label === 'capacitance fitted')!.value).toBeCloseTo(0.00126, 6);
  });
  test('a bleed that the design has is expected; one that does not show fails', () => {
    const plant = { busCapacitanceF: 0.00126, resistanceOhm: 82 };
    const bled: Expectation = { ...rise, loadOhm: 2000 };
    expect(verdict(trace({ ...plant, parallelLoadOhm: 2000 }), bled)).toMatchObject({ verdict: 'pass' });
    expect(verdict(trace(plant), bled).reasons).toEqual([
      'the bus ends at 360 V: nothing is to be seen on the bus where the design has 2 kΩ: a bleed is not connected',
    ]);
    expect(verdict(trace({ ...plant, parallelLoadOhm: 700 }), bled).reasons[0]).toContain(
      'a load of about 1.1 kΩ draws on the bus during pre-charge beside the 2 kΩ of the design',
    );
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

describe('a value a thousandfold off', () => {
  const insulationRange: Expectation = { kind: 'range', min: 0.2, unit: 'MΩ' };
  const bond: Expectation = { kind: 'range', max: 0.1, unit: 'Ω' };
  const maker: Expectation = { kind: 'range', nominal: 0.009, unit: 'Ω' };
  const stop: Expectation = { kind: 'range', min: 0, max: 5, nominal: 4.7, unit: 's' };
  test.each([
    // kΩ typed where MΩ are asked.
    [insulationRange, 14_200, '14200 MΩ is 71000 times the 0.2 MΩ asked'],
    [insulationRange, 0.0011, 'a thousand times as large (1.1 MΩ) would fit'],
    [insulationRange, 0.0142, 'a thousand times as large (14.2 MΩ) would fit'],
    [bond, 12, 'a thousandth of it (12 mΩ) would fit'],
    [bond, 2.1, 'a thousandth of it (2.1 mΩ) would fit'],
    [bond, 0.000003, '3 µΩ is 1/33333 of the 100 mΩ allowed'],
    [maker, 9, '1000 times the 9 mΩ expected'],
    [maker, 0.000009, '1/1000 of the 9 mΩ expected'],
    [stop, 0.0047, '1/1000 of the 4.7 s expected'],
    [stop, 4700, 'a thousandth of it (4.7 s) would fit'],
  ] as const)('%j asks about %d', (expected, value, text) => {
    expect(doubtAbout(expected, value)).toContain(text);
  });
  test.each([
    [insulationRange, 14.2],
    [insulationRange, 1900],
    // A real leak is not talked away.
    [insulationRange, 0.09],
    [bond, 0.0012],
    [bond, 0.3],
    [maker, 0.012],
    [stop, 4.2],
    [stop, 6],
    [bond, 0],
  ] as const)('%j takes %d as it is', (expected, value) => {
    expect(doubtAbout(expected, value)).toBeNull();
  });
});

describe('a reading beyond the range of an instrument', () => {
  const over = (value: number, unit: string) => ({ kind: 'value' as const, value, unit, over: true });
  const least: Expectation = { kind: 'range', min: 0.2, unit: 'MΩ' };
  test('is that or more: enough where a least value lies below', () => {
    expect(verdict(over(2000, 'MΩ'), least)).toEqual({ verdict: 'pass', reasons: [], details: [] });
  });
  test('fails where a most value is asked, and does not tell where the range ends before it', () => {
    const both: Expectation = { kind: 'range', min: 78, max: 86, unit: 'Ω' };
    expect(verdict(over(2000, 'Ω'), both)).toMatchObject({
      verdict: 'fail',
      reasons: ['more than 2 kΩ is above 86 Ω'],
    });
    expect(judgeMeasurement(both, over(50, 'Ω'))).toEqual({
      ok: false,
      message: 'the range ends at 50 Ω: take one that reaches beyond 86 Ω',
    });
    expect(judgeMeasurement(least, over(0.1, 'MΩ'))).toMatchObject({ ok: false });
  });
});
