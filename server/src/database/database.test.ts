import { describe, expect, it } from '@jest/globals';
import { sha256Of } from '../journal/lines';
import { digesting } from './database';

/** Rows of a list, a hash and a text, as a page of them comes from the database. */
const pageOf = (rows: [list: string, hash: string, text: string][]) =>
  rows.map(([list, hash, text]) => `${list}\n=${hash}\n${text}`).join('\n');
const held = { lines: 3, hashLine: 1 };
const digestOf = async (rows: [string, string, string][], count = rows.length) =>
  (
    await digesting({
      query: <Row>() => Promise.resolve([{ count, text: pageOf(rows), next: null }] as Row[]),
    })('SELECT', [], held)
  ).digest;

describe('the digest of texts that stand beside their hashes', () => {
  const [a, b] = ['{"a":1}', '{"b":"Ω"}'];
  const good: [string, string, string][] = [
    ['[1]', sha256Of(a), a],
    ['[2]', sha256Of(b), b],
  ];
  const altered = (at: number, text: string) =>
    digestOf(good.map(([list, hash, was], i) => [list, hash, i === at ? text : was]));

  it('is that of the rows without them where they fit', async () => {
    const without = await digesting({
      query: <Row>() =>
        Promise.resolve([
          { count: 2, text: `[1]\n=${sha256Of(a)}\n\n[2]\n=${sha256Of(b)}\n`, next: 7 },
        ] as Row[]),
    })('SELECT', [], null);
    expect(await digestOf(good)).toBe(without.digest);
    expect(without.next).toBe(7);
  });

  it('moves with any other text, an empty one too, and with one that brings lines of its own', async () => {
    const was = await digestOf(good);
    const others = await Promise.all([
      altered(0, '{"a":2}'),
      altered(1, ''),
      altered(1, `${b} `),
      altered(0, `${a}\n[2]\n=${sha256Of(b)}\n${b}`),
      digestOf(good, 3),
    ]);
    for (const one of others) expect(one).not.toBe(was);
    expect(new Set(others).size).toBe(others.length);
  });

  it('moves when a text and its hash are altered together', async () => {
    expect(await digestOf([['[1]', sha256Of('{}'), '{}'], good[1]!])).not.toBe(await digestOf(good));
  });
});
