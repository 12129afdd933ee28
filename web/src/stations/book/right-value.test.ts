import { expect, test } from '@jest/globals';
import type { Measured } from '@torvek/core/record';
import { canBeTyped, readRight, typedRight } from './right-value';

const value: Measured = { kind: 'value', value: 4.4, unit: 'V' };
const ladder: Measured = { kind: 'ladder', taps: [3.3, 6.6], unit: 'V' };
const list: Measured = { kind: 'list', values: [1, 2, 3], unit: 's' };

test('what was measured is typed again in its own kind and unit', () => {
  expect([value, ladder, list].map(typedRight)).toEqual(['4.4', '3.3\n6.6', '1\n2\n3']);
  expect(readRight('44', value)).toEqual({ ok: true, measured: { kind: 'value', value: 44, unit: 'V' } });
  expect(readRight('440 mV', value)).toMatchObject({ measured: { value: 0.44 } });
  expect(readRight('3,31; 6,6', ladder)).toEqual({
    ok: true,
    measured: { kind: 'ladder', taps: [3.31, 6.6], unit: 'V' },
  });
  expect(readRight('1\n2\n4', list)).toMatchObject({ measured: { values: [1, 2, 4] } });
});

test('too few, too many and what is no number are said', () => {
  expect(readRight('', value)).toEqual({ ok: false, message: 'one value is expected' });
  expect(readRight('1\n2', list)).toEqual({ ok: false, message: '3 readings are expected' });
  expect(readRight('1\nx\n3', list)).toMatchObject({
    ok: false,
    message: expect.stringContaining('reading 2'),
  });
});

test('a trace and a hold are recorded again, not typed', () => {
  expect(canBeTyped({ kind: 'trace', samples: [], packVoltageV: 1, unit: 'V' })).toBe(false);
  expect(canBeTyped(list)).toBe(true);
});
