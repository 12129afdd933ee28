import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { segments, type SegmentsResult } from '.';

function split(body: object): SegmentsResult {
  const parsed = segments.parse(body);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return segments.calculate(parsed.input).result;
}

/** Every set of links, judged by the contract's own words. */
function bruteForce(volts: number[], limitV: number, keep: number[]): number[] {
  const links = volts.length - 1;
  let best: { open: number[]; largest: number } | null = null;
  for (let set = 0; set < 2 ** links; set += 1) {
    const open = Array.from({ length: links }, (_, i) => i + 1).filter((link) => (set >> (link - 1)) & 1);
    if (open.some((link) => keep.includes(link))) continue;
    const ends = [...open, volts.length];
    let from = 0;
    let allowed = true;
    let largest = 0;
    for (const end of ends) {
      const sum = volts.slice(from, end).reduce((a, b) => a + b, 0);
      const inner = Array.from({ length: end - from - 1 }, (_, i) => from + 1 + i);
      const heldTogether = inner.every((link) => keep.includes(link));
      if (sum > limitV + 1e-6 && !heldTogether) allowed = false;
      largest = Math.max(largest, sum);
      from = end;
    }
    if (!allowed) continue;
    const better =
      best === null ||
      open.length < best.open.length ||
      (open.length === best.open.length &&
        (largest < best.largest - 1e-6 ||
          (largest <= best.largest + 1e-6 && lexicographic(open, best.open) < 0)));
    if (better) best = { open, largest };
  }
  return best!.open;
}

function lexicographic(a: number[], b: number[]): number {
  const at = a.findIndex((value, i) => value !== b[i]);
  return at < 0 ? 0 : a[at]! - b[at]!;
}

describe('links to leave out', () => {
  test('equal brute force for up to ten modules, with links that must stay', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 4, max: 40 }), { minLength: 1, maxLength: 10 }),
        fc.integer({ min: 30, max: 90 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 3 }),
        (volts, limitV, keep) => {
          const keepClosed = keep.filter((link) => link < volts.length);
          expect(split({ moduleMaxV: volts, limitV, keepClosed }).linksToOpen).toEqual(
            bruteForce(volts, limitV, keepClosed),
          );
        },
      ),
      { numRuns: 400 },
    );
  });

  test('no segment exceeds the limit when it is feasible, whatever the string', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 59, noNaN: true }), { minLength: 1, maxLength: 200 }),
        (moduleMaxV) => {
          const { feasible, segments: found } = split({ moduleMaxV });
          expect(feasible).toBe(true);
          expect(Math.max(...found.map(({ voltageV }) => voltageV))).toBeLessThanOrEqual(60 + 1e-6);
          expect(found.at(-1)!.to).toBe(moduleMaxV.length);
        },
      ),
    );
  });

  test('3 × 16.8 V is not above 50.4 V', () => {
    expect(split({ moduleMaxV: [16.8, 16.8, 16.8], limitV: 50.4 })).toMatchObject({
      feasible: true,
      linksToOpen: [],
    });
  });

  test('a run held together above the limit stands alone and is named', () => {
    const parsed = segments.parse({ moduleMaxV: [20, 40, 40, 20], keepClosed: [2] });
    if (!parsed.ok) throw new Error();
    const { result, findings } = segments.calculate(parsed.input);
    expect(result).toMatchObject({ feasible: false, linksToOpen: [1, 3] });
    expect(findings[0]!.message).toBe('Modules 2 to 3 are held together at 80 V, the limit is 60 V.');
  });

  test('a link that is none is named', () => {
    expect(segments.parse({ moduleMaxV: [20, 20], keepClosed: [1, 2] })).toMatchObject({
      ok: false,
      issues: [{ path: 'keepClosed.1' }],
    });
  });
});
