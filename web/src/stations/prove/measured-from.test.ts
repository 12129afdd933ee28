import { describe, expect, test } from '@jest/globals';
import { doubtAboutMeasured, measuredFrom, type TakenMeasurement } from './measured-from';
import { emptyHold } from './hold';

const typed = (text: string, more: { packVoltage?: string } = {}) => ({
  text,
  packVoltage: '',
  hold: { ...emptyHold },
  ...more,
});
const refused = (taken: TakenMeasurement) => (taken.ok ? 'taken' : taken.message);
const value = { kind: 'range', min: 3, max: 4.2, unit: 'V' } as const;

describe('what was measured', () => {
  test('a value in the unit of its step, also typed in another; beyond the range it is kept as such', () => {
    expect(measuredFrom(value, typed('3287 mV'))).toEqual({
      ok: true,
      measured: { kind: 'value', value: 3.287, unit: 'V' },
      entered: 'typed',
    });
    expect(measuredFrom({ kind: 'range', min: 1e6, unit: 'Ω' }, typed('>2 GΩ'))).toMatchObject({
      measured: { value: 2e9, unit: 'Ω', over: true },
    });
    expect(refused(measuredFrom(value, typed('three')))).toMatch(/^Value: /);
  });

  test('a list and a ladder are as long as what they are of', () => {
    const list = { kind: 'list', items: ['a', 'b'], unit: 'V' } as never;
    expect(measuredFrom(list, typed('1.5\n2.5'))).toEqual({
      ok: true,
      measured: { kind: 'list', values: [1.5, 2.5], unit: 'V' },
      entered: 'pasted',
    });
    expect(refused(measuredFrom(list, typed('1.5')))).toMatch(/^Readings: /);
    const ladder = { kind: 'ladder', cells: 2, tied: 0, cellMinV: 3, cellMaxV: 4.2, unit: 'V' } as never;
    expect(measuredFrom(ladder, typed('3.3\n6.6'))).toMatchObject({
      measured: { kind: 'ladder', taps: [3.3, 6.6] },
    });
    expect(refused(measuredFrom(ladder, typed('3.3')))).toMatch(/^Ladder: /);
  });

  test('a trace needs the pack’s own voltage, above 0 V', () => {
    const rise = { kind: 'rise', unit: 'V' } as never;
    const samples = Array.from({ length: 12 }, (_, i) => `${i / 10}\t${i * 25}`).join('\n');
    expect(measuredFrom(rise, typed(samples, { packVoltage: '350' }))).toMatchObject({
      ok: true,
      measured: { kind: 'trace', packVoltageV: 350 },
      entered: 'pasted',
    });
    for (const packVoltage of ['', '0', '-5', 'x'])
      expect(refused(measuredFrom(rise, typed(samples, { packVoltage })))).toMatch(/^Pack voltage: /);
    expect(refused(measuredFrom(rise, typed('', { packVoltage: '350' })))).toMatch(/^Trace: /);
  });

  test('is asked about when it is a thousand times off, and not when the range of the instrument ended there', () => {
    expect(doubtAboutMeasured(value, { kind: 'value', value: 3.3, unit: 'V' })).toBeNull();
    expect(doubtAboutMeasured(value, { kind: 'value', value: 3300, unit: 'V' })).toMatch(/3.?300|3300/);
    expect(doubtAboutMeasured(value, { kind: 'value', value: 3300, unit: 'V', over: true })).toBeNull();
  });
});
