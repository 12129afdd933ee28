import { describe, expect, test } from '@jest/globals';
import { readCycle } from './read-cycle';

describe('a drive cycle from CSV', () => {
  test.each([
    ['plain', '0,0\n10,36\n20,0\n'],
    ['with names, quotes and an empty line', 'time s,speed km/h\n"0","0"\n\n10,36\n20,0'],
    ['semicolons and decimal commas', 'Zeit;v\n0;0\n10,0;36,0\n20;0'],
    ['tabs and further columns', '0\t0\tx\n10\t36\ty\n20\t0\tz'],
  ])('%s', (_, text) => {
    expect(readCycle(text)).toEqual({
      ok: true,
      points: [
        [0, 0],
        [10, 36],
        [20, 0],
      ],
    });
  });

  test.each([
    ['too short', '0,0', 'at least two rows'],
    ['a word', 'time,speed\n0,0\n5,fast', 'Line 3: “5 | fast” is not'],
    ['time falling', '0,0\n10,5\n9,5', 'Line 3: time must rise; 9 s comes after 10 s'],
    ['a speed below nothing', '0,0\n10,-5', 'Line 2: time 0 or more'],
    ['a hole', '0,0\n10,', 'Line 2'],
    ['longer than a day', '0,0\n90000,10', 'at most a day'],
  ])('refuses %s, and says where', (_, text, part) => {
    const read = readCycle(text);
    expect(read.ok ? '' : read.message).toContain(part);
  });
});
