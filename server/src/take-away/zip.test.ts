import { describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { BadZip, unzip } from './zip';

const text = (words: string) => new TextEncoder().encode(words);
const made = () =>
  Buffer.from(zipSync({ 'a.txt': text('a'.repeat(300)), 'b.txt': [text('stored'), { level: 0 }] }));
const directory = (zip: Buffer, n: number) => {
  let at = zip.indexOf(Buffer.from('PK\u0001\u0002', 'latin1'));
  for (let i = 0; i < n; i += 1) at = zip.indexOf(Buffer.from('PK\u0001\u0002', 'latin1'), at + 4);
  return at;
};

describe('a zip from anybody', () => {
  test('as this program writes it comes out as it went in', () => {
    const out = unzip(made(), 0);
    expect(Object.keys(out)).toEqual(['a.txt', 'b.txt']);
    expect(Buffer.from(out['a.txt']!).toString()).toBe('a'.repeat(300));
    expect(Buffer.from(out['b.txt']!).toString()).toBe('stored');
  });

  test.each<[string, RegExp, (zip: Buffer) => void]>([
    [
      'two files on the same bytes',
      /b\.txt lies on the bytes of a\.txt|a\.txt lies on the bytes of b\.txt/,
      (zip) => {
        const [first, second] = [directory(zip, 0), directory(zip, 1)];
        zip.copy(zip, second + 42, first + 42, first + 46);
        zip.copy(zip, second + 20, first + 20, first + 28);
        zip.copy(zip, second + 10, first + 10, first + 12);
      },
    ],
    [
      'a size that is not said',
      /a\.txt does not say its size/,
      (zip) => void zip.writeUInt16LE(8, directory(zip, 0) + 8),
    ],
    [
      'a size in another format',
      /a\.txt does not say its size/,
      (zip) => void zip.writeUInt32LE(0xffffffff, directory(zip, 0) + 24),
    ],
    [
      'more than it says',
      /a\.txt has another size than it says/,
      (zip) => void zip.writeUInt32LE(20, directory(zip, 0) + 24),
    ],
    [
      'less than it says',
      /a\.txt has another size than it says/,
      (zip) => void zip.writeUInt32LE(900, directory(zip, 0) + 24),
    ],
    [
      'more files than there are',
      /has a damaged directory/,
      (zip) => void zip.writeUInt16LE(3, zip.length - 12),
    ],
    [
      'fewer files than there are',
      /no file accounts for/,
      (zip) => void zip.writeUInt16LE(1, zip.length - 12),
    ],
    [
      'a file that begins beyond the end',
      /is not where the directory says/,
      (zip) => void zip.writeUInt32LE(1e6, directory(zip, 0) + 42),
    ],
    ['one name twice', /a\.txt stands there twice/, (zip) => void zip.write('a.txt', directory(zip, 1) + 46)],
    [
      'another way of packing',
      /is packed in a way/,
      (zip) => void zip.writeUInt16LE(12, directory(zip, 0) + 10),
    ],
    [
      'a total beyond the budget',
      /unpacks to more than 2 GB/,
      (zip) => {
        zip.writeUInt32LE(0xf0000000, directory(zip, 0) + 24);
      },
    ],
  ])('with %s is not unpacked', (_what, message, alter) => {
    const zip = made();
    alter(zip);
    expect(() => unzip(zip, 0)).toThrow(message);
    expect(() => unzip(zip, 0)).toThrow(BadZip);
  });

  test('that swells more than text does is not unpacked', () => {
    const bomb = zipSync({ bomb: [new Uint8Array(68_000_000), { level: 1 }] });
    expect(bomb.length).toBeLessThan(400_000);
    expect(() => unzip(bomb, 0)).toThrow('bomb swells to more than 200 times its size');
  });
});
