import { describe, expect, test } from '@jest/globals';
import { blankDesign } from '@torvek/core/document';
import { canonicalText } from '@torvek/core/record';
import { lineOf, readChain, sha256Of, type Head } from './lines';
import { designHashOf, tell } from './story';

const at = '2026-11-28T08:00:00.000Z';
const design = blankDesign();

function chainOf(bodies: object[]): Buffer[] {
  let head: Head | null = null;
  return bodies.map((body) => {
    const { bytes, link } = lineOf(body, head, at);
    head = link;
    return bytes;
  });
}

const job = { kind: 'job', id: 'j', name: 'Job', demo: false, createdAt: at, design };

function entries(count: number): { kind: string; sha256: string; text: string }[] {
  let previous: string | null = null;
  return Array.from({ length: count }, (_, i) => {
    const text = canonicalText({
      id: `e${i + 1}`,
      job: 'j',
      seq: i + 1,
      previous,
      by: 'Test',
      subjects: [],
      attachments: [],
      recordedAt: at,
      against: { version: 0, sha256: designHashOf(design), core: '1' },
      body: { kind: 'work', what: `w${i + 1}` },
    });
    const sha256 = sha256Of(text);
    previous = sha256;
    return { kind: 'entry', sha256, text };
  });
}

const named = (lines: Buffer[]) =>
  readChain(Buffer.concat(lines)).damage.map(({ n, message }) => `${n} ${message}`);

describe('lines of a chain', () => {
  const lines = chainOf([job, ...entries(4)]);

  test('hold each the one before it; a text stands there to the byte', () => {
    const { links, damage, head, wholeBytes } = readChain(Buffer.concat(lines));
    expect(damage).toEqual([]);
    expect(links.map(({ n }) => n)).toEqual([1, 2, 3, 4, 5]);
    expect(links[2]!.previous).toBe(links[1]!.sha256);
    expect(links[1]!.body.text).toBe(entries(1)[0]!.text);
    expect(head).toEqual({ n: 5, sha256: links[4]!.sha256 });
    expect(wholeBytes).toBe(Buffer.concat(lines).length);
  });

  test.each<[string, (of: Buffer[]) => Buffer[], string[]]>([
    ['one gone', ([a, , c, d, e]) => [a!, c!, d!, e!], ['2 is missing']],
    ['three gone', ([a, , , , e]) => [a!, e!], ['2 is missing, and all up to 4']],
    ['one twice', ([a, b, c, d, e]) => [a!, b!, b!, c!, d!, e!], ['2 stands there twice or out of order']],
    [
      'two swapped',
      ([a, b, c, d, e]) => [a!, b!, d!, c!, e!],
      ['3 is missing', '3 stands there twice or out of order', '5 does not follow the one before it'],
    ],
    [
      'one of another chain',
      ([a, b, , d, e]) => [a!, b!, chainOf([job, job, job])[2]!, d!, e!],
      ['3 does not follow the one before it', '4 does not follow the one before it'],
    ],
  ])('%s', (_what, alter, expected) => {
    expect(named(alter([...lines]))).toEqual(expected);
  });

  test('half a last line is no damage, and is not counted', () => {
    const whole = Buffer.concat(lines);
    const torn = whole.subarray(0, whole.length - 7);
    const { damage, head, wholeBytes } = readChain(torn);
    expect([damage, head!.n, wholeBytes]).toEqual([[], 4, whole.length - lines[4]!.length]);
  });

  test('a text that was exchanged for another well-hashed one in the frame breaks the line', () => {
    const other = entries(1)[0]!.text.replace('w1', 'w9');
    const exchanged = Buffer.from(lines[1]!.toString('utf8').replace(entries(1)[0]!.text, other));
    expect(named([lines[0]!, exchanged, ...lines.slice(2)])).toEqual([
      '2 is damaged: its line does not match its hash',
    ]);
  });
});

describe('a job told from its chain', () => {
  const problems = (bodies: object[]) =>
    tell(readChain(Buffer.concat(chainOf(bodies))))!.problems.map(
      ({ what, message }) => `${what} ${message}`,
    );
  const [one, two, three, four] = entries(4) as [object, object, object, object];

  test('fits, or names the entry that does not', () => {
    expect(problems([job, one, two, three, four])).toEqual([]);
    expect(problems([job, one, three, four])).toEqual(['entry 2 is missing']);
    expect(problems([job, one, two, two, three])).toEqual([
      'entry 2 stands there twice',
      'entry 2 does not follow the entry before it',
    ]);
    const forged = { ...two, ...entryLike(2, 'x', (two as { text: string }).text) };
    expect(problems([job, one, forged, three])).toEqual(['entry 3 does not follow the entry before it']);
  });

  test('of another job, or against a version that is not there, is named', () => {
    const text = (one as { text: string }).text;
    expect(problems([job, entryLike(1, 'k', text.replace('"job":"j"', '"job":"k"'))])).toEqual([
      'entry 1 belongs to another job',
    ]);
    expect(problems([job, entryLike(1, 'v', text.replace('"version":0', '"version":7'))])).toEqual([
      'entry 1 was judged against version 7, which is not there',
    ]);
  });

  /** The same entry with another word in it, well hashed. */
  function entryLike(_seq: number, word: string, text: string) {
    const other = text.replace(/"what":"\w+"/, `"what":"${word}"`);
    return { kind: 'entry', sha256: sha256Of(other), text: other };
  }
});
