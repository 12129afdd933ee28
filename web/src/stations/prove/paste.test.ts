import { describe, expect, test } from '@jest/globals';
import { readReading } from '../../parts/reading';
import { readTrace } from './paste';

const rows = (separator: string, decimal = '.') =>
  Array.from(
    { length: 9 },
    (_, i) => `${`0.0${i + 1}`.replace('.', decimal)}${separator}${`${i}.5`.replace('.', decimal)}`,
  );

describe('a pasted trace', () => {
  test.each([
    ['tabs', rows('\t').join('\n')],
    ['commas between', rows(',').join('\n')],
    ['blanks', rows('  ').join('\r\n')],
    ['semicolons and decimal commas', rows(';', ',').join('\n')],
    ['tabs and decimal commas, with headings', ['Time;s', 'scope 3', ...rows('\t', ',')].join('\n')],
  ])('with %s', (_name, text) => {
    const read = readTrace(text);
    expect(read.ok && read.samples[3]).toEqual([0.04, 3.5]);
    expect(read.ok && read.samples).toHaveLength(9);
  });

  test.each([
    [rows('\t').slice(0, 7).join('\n'), '7 samples were read; at least 8 are needed'],
    [[...rows('\t'), 'end of file'].join('\n'), 'line 10 is not a pair of numbers'],
    [[...rows('\t'), '0.05\t3'].join('\n'), 'the time does not rise at sample 10'],
    ['', '0 samples'],
  ])('%# is refused by its line', (text, message) => {
    const read = readTrace(text);
    expect(!read.ok && read.message).toContain(message);
  });
});

describe('a reading', () => {
  test.each([
    ['0.42', 'V', 0.42, false],
    ['> 2 GΩ', 'Ω', 2e9, true],
    ['>550 MΩ', 'Ω', 550e6, true],
    ['≥ 1.5', 'V', 1.5, true],
  ])('%s', (text, unit, value, over) => {
    expect(readReading(text, unit)).toEqual({ ok: true, value, over });
  });

  test.each([
    ['OL', 'where does its range end'],
    ['over range', 'where does its range end'],
    ['> -3 V', 'a range ends above 0'],
    ['>', ''],
    ['2 A', ''],
  ])('%s is not taken as volts', (text, message) => {
    const read = readReading(text, 'V');
    expect([read.ok, !read.ok && read.message.includes(message)]).toEqual([false, true]);
  });
});
