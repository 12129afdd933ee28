import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { carryTimeS, clearingTimeS, firstUncovered } from '../fuse';
import { catalogueOf } from '../../model/parts';

const fuseOf = (id: string) => catalogueOf('fuse').find((part) => part.id === `calderside-${id}`)!.data;
const contactorOf = (id: string) => catalogueOf('contactor').find((part) => part.id === `hollin-${id}`)!.data;

describe('contacts and the fuse in their path', () => {
  test('contacts carry what they are rated for without end, ten times as much for a short while', () => {
    const { shortTime, continuousA } = contactorOf('k200');
    expect(carryTimeS(shortTime!, continuousA)).toBeNull();
    // 1600 A is a point of the curve: eight times the rating.
    expect(carryTimeS(shortTime!, 1600)).toBeCloseTo(1.6, 9);
    // Beyond its end I²t holds.
    expect(carryTimeS(shortTime!, 4800)).toBeCloseTo(0.45 / 4, 9);
  });

  test('a fuse of their size clears before; one far above leaves them to weld', () => {
    const contactor = contactorOf('k200').shortTime!;
    expect(firstUncovered(fuseOf('f160'), contactor, 1000, 12_000)).toBeNull();
    const bad = firstUncovered(fuseOf('f500'), contactor, 1000, 12_000)!;
    expect(bad.currentA).toBe(1000);
    expect(bad.clearingS!).toBeGreaterThan(bad.carryS);
  });

  test('a fuse that never melts at a current covers nothing there', () => {
    expect(firstUncovered(fuseOf('f500'), contactorOf('k50').shortTime!, 600, 600)).toMatchObject({
      currentA: 600,
      clearingS: null,
    });
  });

  test('what is named uncovered is so, and nothing below it', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('f63', 'f160', 's250', 'f350', 'f630'),
        fc.constantFrom('k50', 'k200', 'k350', 'h350'),
        fc.double({ min: 300, max: 3000, noNaN: true }),
        (fuseId, contactorId, from) => {
          const [fuse, curve] = [fuseOf(fuseId), contactorOf(contactorId).shortTime!];
          const found = firstUncovered(fuse, curve, from, from * 4);
          const holds = (currentA: number) => {
            const carry = carryTimeS(curve, currentA);
            const clears = clearingTimeS(fuse, currentA);
            return carry === null || (clears !== null && clears <= carry);
          };
          expect(holds(from)).toBe(found === null || found.currentA > from);
          if (found !== null) expect(holds(found.currentA)).toBe(false);
          else expect(holds(from * 4)).toBe(true);
        },
      ),
    );
  });
});
