import { expect, test } from '@jest/globals';
import { parseQuantity } from './parse';

test('feet with inches', () => {
  const value = (text: string, unit: string) => {
    const read = parseQuantity(text, unit);
    return read.ok ? read.value : read.message;
  };
  expect(value('10 ft 6 in', 'm')).toBeCloseTo(3.2004, 12);
  expect(value(`10' 6"`, 'mm')).toBeCloseTo(3200.4, 9);
  expect(value('-1 ft 0,5 in', 'in')).toBeCloseTo(-12.5, 12);
  expect(value('10 ft 6 in', 'V')).toMatch(/is not a unit|cannot read/);
  expect(value('10 ft', 'm')).toBeCloseTo(3.048, 12);
});
