import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatNumber, formatQuantity, parseQuantity } from '.';

describe('parseQuantity', () => {
  test.each([
    ['35 mm', 'm', 0.035],
    ['1,2k', 'Ω', 1200],
    ['3*14.8', 'V', 44.4],
    ['400 uF', 'F', 4e-4],
    ['900', 'µF', 900],
    ['0.9 mF', 'µF', 900],
    ['2 in', 'm', 0.0508],
    ['(1 + 2) * 3', 'V', 9],
    ['2 m + 35 cm', 'm', 2.35],
    ['-5,5', '°C', -5.5],
    ['1e-3', 'F', 0.001],
    ['4,7 kΩ', 'Ω', 4700],
    ['50 mph', 'km/h', 80.4672],
    ['−3', 'V', -3],
    ['10/4', 'kg', 2.5],
  ])('%s into %s is %d', (text, unit, value) => {
    const parsed = parseQuantity(text, unit);
    expect(parsed.ok && parsed.value).toBeCloseTo(value, 12);
  });

  test.each([
    ['', 'missing'],
    ['abc', 'missing'],
    ['1,234.5', 'more than one decimal sign'],
    ['3 kg', 'not a unit of V'],
    ['1/0', 'not a finite number'],
    ['(1', 'not closed'],
    ['1 2', 'cannot read'],
    ['1 +', 'missing'],
    ['€5', 'not a number'],
  ])('%j is refused: %s', (text, message) => {
    const parsed = parseQuantity(text, 'V');
    expect(parsed.ok).toBe(false);
    expect(!parsed.ok && parsed.message).toContain(message);
  });

  test('never throws and never gives what is not finite', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (text) => {
        const parsed = parseQuantity(text, 'V');
        return parsed.ok ? Number.isFinite(parsed.value) : parsed.message.length > 0;
      }),
    );
  });
});

describe('formatQuantity', () => {
  test.each([
    [0.00126, 'F', '1.26 mF'],
    [403.2, 'V', '403 V'],
    [0.3095, 's', '310 ms'],
    [4.8, 's', '4.8 s'],
    [0.000999, 'F', '999 µF'],
    [2118.3, 'Ω', '2.12 kΩ'],
    [12600, 'A', '12600 A'],
    [0.352, 'fraction', '35.2 %'],
    [74132100, 'A²s', '74.1 MA²s'],
    [0, 'V', '0 V'],
    [-6.146, 'points', '-6.15 points'],
    [7, '', '7'],
  ])('%d %s reads %s', (value, unit, text) => {
    expect(formatQuantity(value, unit)).toBe(text);
  });

  test('stays within half a unit of its last digit', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 1e6, noNaN: true }), (value) => {
        expect(Math.abs(Number(formatNumber(value, 4)) - value)).toBeLessThanOrEqual(value * 5.1e-4);
      }),
    );
  });
});
