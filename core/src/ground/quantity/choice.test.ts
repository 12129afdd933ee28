import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { awgAreaMm2, metricChoice, nearestAwg, parseQuantity, readAwg, shownIn, type UnitChoice } from '.';

const imperial: UnitChoice = { length: 'inch', area: 'AWG', temperature: '°F', pressure: 'psi' };
const show = (value: number, unit: string, choice = imperial) => {
  const { scale, offset } = shownIn(unit, choice);
  return value / scale + offset;
};

describe('units by choice', () => {
  test('known equivalents', () => {
    expect(show(25.4, 'mm')).toBeCloseTo(1, 12);
    expect(show(0.3048, 'm')).toBeCloseTo(1, 12);
    expect([show(100, '°C'), show(-40, '°C')]).toEqual([212, -40]);
    expect(show(1, 'bar')).toBeCloseTo(14.503774, 5);
    expect(show(1, 'bar', { ...imperial, pressure: 'kPa' })).toBe(100);
    expect(shownIn('V', imperial, 2)).toEqual({ unit: 'V', scale: 2, offset: 0 });
    expect(shownIn('mm', metricChoice)).toEqual({ unit: 'mm', scale: 1, offset: 0 });
  });

  test('what is shown, typed back, is what is stored', () => {
    const units = fc.constantFrom('mm', 'm', '°C', 'bar');
    fc.assert(
      fc.property(units, fc.double({ min: -200, max: 5000, noNaN: true }), (unit, stored) => {
        const { unit: shown, scale, offset } = shownIn(unit, imperial);
        const text = (stored / scale + offset).toFixed(9);
        const parsed = parseQuantity(text, shown);
        expect(parsed.ok && (parsed.value - offset) * scale).toBeCloseTo(stored, 5);
      }),
    );
  });

  test('a temperature in the other scale is read by its letter', () => {
    expect(parseQuantity('212 °F', '°C')).toMatchObject({ ok: true, value: 100 });
    expect(parseQuantity('40C', '°F')).toMatchObject({ ok: true, value: 104 });
    expect(parseQuantity('40 °C', '°C')).toEqual({ ok: true, value: 40 });
  });
});

describe('AWG', () => {
  test.each([
    ['4/0', 107.2],
    ['2/0', 67.43],
    ['4 AWG', 21.15],
    ['AWG 10', 5.261],
  ])('%s is %f mm², with a note', (text, area) => {
    const parsed = parseQuantity(text, 'mm²');
    expect(parsed).toMatchObject({ ok: true, note: expect.stringContaining('mm²') });
    expect(parsed.ok && parsed.value).toBeCloseTo(area, 2);
  });
  test('a bare number stays mm², and a fraction in another field stays arithmetic', () => {
    expect(parseQuantity('35', 'mm²')).toEqual({ ok: true, value: 35 });
    expect(parseQuantity('6/2', 'm')).toEqual({ ok: true, value: 3 });
    expect([readAwg('5/0'), readAwg('35'), readAwg('x')]).toEqual([null, null, null]);
  });
  test('the nearest size of an area, and none beyond the ends', () => {
    expect([nearestAwg(70), nearestAwg(35), nearestAwg(16), nearestAwg(0.5)]).toEqual([
      '2/0',
      '2',
      '5',
      '20',
    ]);
    expect([nearestAwg(150), nearestAwg(0), nearestAwg(-1)]).toEqual([null, null, null]);
    for (let gauge = -3; gauge <= 30; gauge += 1)
      expect(nearestAwg(awgAreaMm2(gauge))).toBe(gauge <= 0 ? `${1 - gauge}/0` : String(gauge));
  });
});
