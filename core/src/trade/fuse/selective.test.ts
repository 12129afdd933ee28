import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankDesign, mainCircuit, type Design } from '../../model/document';
import { pin } from '../pack';
import { catalogueOf, type FuseData } from '../../model/parts';
import { clearingTimeS, meltTimeS, selectivity, upstreamOf } from '.';

const fuseOf = (id: string) => catalogueOf('fuse').find((part) => part.id === `calderside-${id}`)!;
const up = (id: string, share = 1) => ({ label: id, share, data: fuseOf(id).data });

describe('a branch’s fuse and the one upstream', () => {
  test('a tenth of the rating is done long before the other melts', () => {
    const found = selectivity(fuseOf('f32').data, up('f350'), 1000, 12_000);
    expect(found).toMatchObject({ holds: true, fromA: null });
    // Beyond the branch's curve I²t holds: 1280 A for 2.4 ms with 10 % tolerance, and its arc.
    expect(found.clearingI2t).toBeCloseTo(2 * 0.0024 * (1280 * 1.1) ** 2, 0);
    expect(found.preArcingI2t!).toBeGreaterThan(found.clearingI2t * 40);
  });

  test('of two alike neither waits for the other; the first current is named', () => {
    const found = selectivity(fuseOf('f160').data, up('f160'), 900, 6000);
    expect(found.holds).toBe(false);
    expect(found.fromA).toBe(900);
  });

  test('an upstream fuse that carries half of the fault waits longer', () => {
    const [branch, upstream] = [fuseOf('f160').data, 'f250'];
    expect(selectivity(branch, up(upstream, 0.5), 1000, 12_000).holds).toBe(true);
    expect(selectivity(branch, up('f200', 1), 1000, 12_000).holds).toBe(false);
  });

  test('it is the longest clearing against the fastest melting at the current itself', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('f32', 'f63', 'f100', 'f160', 's250'),
        fc.constantFrom('f160', 'f250', 'f350', 'f500'),
        fc.double({ min: 500, max: 12_000, noNaN: true }),
        fc.constantFrom(1, 0.5, 1 / 3),
        (branch, other, currentA, share) => {
          const [one, two] = [fuseOf(branch).data, fuseOf(other).data];
          const clears = clearingTimeS(one, currentA);
          const melts = meltTimeS(two.curve, (currentA * share) / (1 - two.currentToleranceFraction));
          const holds = melts === null || (clears !== null && clears < melts);
          expect(selectivity(one, up(other, share), currentA, currentA).holds).toBe(holds);
        },
      ),
    );
  });
});

describe('what lies upstream', () => {
  function design(tap: 'before' | 'after'): Design {
    const draft = blankDesign();
    const fuse = (id: string) => pin(draft, fuseOf(id));
    draft.strings = {
      'string-1': { tag: 'S1', modules: [], fuse: fuse('f250') },
      'string-2': { tag: 'S2', modules: [], fuse: fuse('s250') },
      'string-3': { tag: 'S3', modules: [] },
    };
    draft.circuits[mainCircuit]!.fuse = fuse('f350');
    draft.circuits['circuit-b'] = { tag: 'B', role: 'branch', tap, fuse: fuse('f32') };
    return draft;
  }
  const ratings = (tap: 'before' | 'after') =>
    upstreamOf(design(tap), 'circuit-b').map(
      ({ label, share, data }: { label: string; share: number; data: FuseData }) => [
        label,
        data.ratedA,
        Number(share.toFixed(4)),
      ],
    );
  test('the main fuse only behind the mains, each string’s with its share', () => {
    expect(ratings('after')).toEqual([
      ['the main fuse', 350, 1],
      ['the fuse of S1', 250, 0.3333],
      ['the fuse of S2', 250, 0.3333],
    ]);
    expect(ratings('before').map(([label]) => label)).toEqual(['the fuse of S1', 'the fuse of S2']);
  });
});
