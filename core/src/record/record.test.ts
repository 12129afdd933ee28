import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { canonicalText, checkEntry, hashText, isCanonical, unrecordable } from '.';

describe('canonical text', () => {
  test('orders keys by UTF-16 and writes numbers as RFC 8785 does', () => {
    expect(canonicalText({ b: 1e2, a: 1e21, '€': 'x', ö: -0 })).toBe('{"a":1e+21,"b":100,"ö":0,"€":"x"}');
  });
  test('the order in which keys were set does not matter', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string({ maxLength: 6 }), fc.integer()), (given) => {
        const turned = Object.fromEntries(Object.entries(given).reverse());
        expect(canonicalText(turned)).toBe(canonicalText(given));
      }),
    );
  });
  test('SHA-256 of a known text', () => {
    expect(hashText('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });
  test('what cannot be kept faithfully is named by its path', () => {
    expect(unrecordable({ a: { b: ['fine', 'x\u0000'] } })).toBe('a.b.1');
    expect(unrecordable({ a: '\ud800' })).toBe('a');
    expect(unrecordable({ a: '😀' })).toBeNull();
    expect(() => canonicalText({ a: '\udc00x' })).toThrow('cannot be recorded');
  });
});

describe('whether a text is the canonical one of its value', () => {
  test.each([
    ['{"a":1,"b":[{"c":null,"d":"ö"}]}', true],
    ['{"b":1,"a":2}', false],
    ['{"a": 1}', false],
    ['{"a":1e2}', false],
    ['{"a":100}', true],
    ['{"a":{"z":1,"b":2}}', false],
    ['{"a":"\\u00f6"}', false],
    ['{"a":"\\u0007"}', true],
  ])('%s: %s', (text, canonical) => {
    expect(isCanonical(JSON.parse(text), text)).toBe(canonical);
  });
});

describe('an entry that came from elsewhere', () => {
  const good = {
    format: 'torvek-entry',
    formatVersion: 2,
    id: 'e1',
    job: 'j',
    seq: 1,
    previous: null,
    takenAt: '2026-11-25T08:00:00Z',
    recordedAt: '2026-11-25T08:00:01.000Z',
    zone: 'UTC',
    by: 'Test',
    witness: null,
    against: { version: 0, sha256: '0'.repeat(64), core: '0.1.0' },
    subjects: [],
    basis: [],
    instrument: null,
    attachments: [],
    body: { kind: 'work', what: 'cleaned' },
  };
  test('of any kind as the server writes it has nothing wrong', () => {
    expect(checkEntry(good)).toEqual([]);
    const instrument = {
      kind: 'meter',
      name: 'M',
      serial: 'S',
      calibrationDue: null,
      overdue: false,
      standIn: false,
    };
    expect(checkEntry({ ...good, instrument })).toEqual([]);
    expect(checkEntry({ ...good, clockWentBack: '2026-11-26T08:00:00.000Z' })).toEqual([]);
  });
  test.each<[string, object, string]>([
    ['an unknown kind', { body: { kind: 'toast' } }, 'body.kind'],
    ['a kind of every object', { body: { kind: 'constructor' } }, 'body.kind'],
    ['a field too many', { body: { kind: 'work', what: 'x', of: 3 } }, 'body.of'],
    ['a missing field', { body: { kind: 'snag', what: 'x' } }, 'body.gate'],
    ['a number that is none', { seq: 1.5 }, 'seq'],
    ['a time that is none', { recordedAt: 'soon' }, 'recordedAt'],
    ['a hash that is none', { previous: 'abc' }, 'previous'],
    ['a format of the future', { formatVersion: 3 }, 'formatVersion'],
    ['an attachment that is none', { attachments: [{}] }, 'attachments.0'],
    ['a verdict that is none', { body: { kind: 'result', verdict: 'maybe' } }, 'body.verdict'],
  ])('with %s is named by its path', (_what, other, path) => {
    expect(checkEntry({ ...good, ...other }).map((issue) => issue.path)).toContain(path);
  });
});
