import { expect, test } from '@jest/globals';
import { readRows, readSteady, rowsOf } from './read-profile';

test('a row of which half is typed waits and is not wrong; an empty one is none', () => {
  expect(
    readRows([
      ['5', '400'],
      ['10', ''],
      ['', ''],
      ['55', '70'],
    ]),
  ).toEqual({
    ok: true,
    profile: [
      [5, 400],
      [55, 70],
    ],
    waiting: 1,
  });
  expect(readRows([['2 min', '1,5 kA']])).toMatchObject({ profile: [[120, 1500]], waiting: 0 });
});

test('what is wrong is named by its row and field', () => {
  expect(
    readRows([
      ['5', '1'],
      ['0', '3'],
    ]),
  ).toMatchObject({ ok: false, message: expect.stringMatching(/^Row 2: seconds above 0/) });
  expect(readRows([['x', '3']])).toMatchObject({ message: expect.stringContaining('Row 1: seconds') });
  expect(readRows([['5', 'y']])).toMatchObject({ message: expect.stringContaining('Row 1: amperes') });
  expect(readRows([['5', '2e9']])).toMatchObject({ ok: false });
});

test('blocks and files: tab, semicolon or comma between; headings before the first row pass', () => {
  expect(rowsOf('time\tA\n1,5\t20\n2\t-30\n')).toEqual([
    ['1.5', '20'],
    ['2', '-30'],
  ]);
  expect(rowsOf('s,A\r\n5,400\r\n55,70')).toEqual([
    ['5', '400'],
    ['55', '70'],
  ]);
  expect(rowsOf('5;0,5')).toEqual([['5', '0.5']]);
  expect(rowsOf('nothing here')).toEqual([]);
});

test('a steady load is amperes, or watts at the lowest voltage', () => {
  expect(readSteady('12', 300)).toEqual({ ok: true, currentA: 12 });
  expect(readSteady('3 kW', 300)).toEqual({ ok: true, currentA: 10 });
  expect(readSteady('3 kW', null)).toMatchObject({
    ok: false,
    message: expect.stringContaining('lowest voltage'),
  });
  expect(readSteady('a lot', 300)).toMatchObject({ ok: false });
});
