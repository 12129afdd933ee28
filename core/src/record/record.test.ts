import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { canonicalText, hashText, topicOf, unrecordable, verifyChain, type Entry, type StoredEntry } from '.';

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

describe('a chain', () => {
  /** A well-made chain of `count` entries. */
  function chain(count: number): StoredEntry[] {
    const rows: StoredEntry[] = [];
    for (let seq = 1; seq <= count; seq += 1) {
      const previous = rows.at(-1)?.sha256 ?? null;
      const entry = {
        id: `e${seq}`,
        job: 'j',
        seq,
        previous,
        by: 'Test',
        subjects: [],
        recordedAt: `2026-11-25T08:00:${String(seq).padStart(2, '0')}Z`,
        body: { kind: 'work', what: `w${seq}` },
      } as unknown as Entry;
      const text = canonicalText(entry);
      rows.push({
        job: 'j',
        seq,
        id: entry.id,
        kind: 'work',
        previous,
        sha256: hashText(text),
        recordedAt: entry.recordedAt,
        topic: topicOf(entry),
        target: null,
        verdict: null,
        text,
      });
    }
    return rows;
  }
  const rows = chain(9);

  test('fits in any order of its rows', () => {
    expect(verifyChain('j', [...rows].reverse(), rows)).toEqual({ ok: true, entries: 9, problems: [] });
    expect(verifyChain('j', [], [])).toEqual({ ok: true, entries: 0, problems: [] });
  });

  test('any one altered character of any entry is found at its number', () => {
    fc.assert(
      fc.property(fc.nat(8), fc.nat(), (index, at) => {
        const text = rows[index]!.text;
        const place = at % text.length;
        const other = text[place] === 'x' ? 'y' : 'x';
        const altered = rows.map((row, i) =>
          i === index ? { ...row, text: text.slice(0, place) + other + text.slice(place + 1) } : row,
        );
        const { ok, problems } = verifyChain('j', altered, rows);
        expect([ok, problems[0]?.seq]).toEqual([false, index + 1]);
      }),
    );
  });

  test('a re-hashed entry is found by the one that follows it', () => {
    const text = canonicalText({ ...(JSON.parse(rows[3]!.text) as Entry), by: 'forger' });
    const altered = rows.map((row, i) => (i === 3 ? { ...row, text, sha256: hashText(text) } : row));
    expect(verifyChain('j', altered, null).problems).toEqual([
      { seq: 5, message: 'does not follow the entry before it' },
    ]);
    expect(verifyChain('j', altered, rows).problems[0]!.seq).toBe(4);
  });

  test('a cut tail shows only against what is kept elsewhere', () => {
    expect(verifyChain('j', rows.slice(0, 7), null).ok).toBe(true);
    expect(verifyChain('j', rows.slice(0, 7), rows).problems.map(({ seq }) => seq)).toEqual([8, 9]);
  });
});
