import { describe, expect, test } from '@jest/globals';
import { warmUp } from '../cooling';
import { slower } from './warm-first';

const timeS = (heaterW: number, uaToAmbientWPerK: number, startC = -12, targetC = 2) => {
  const parsed = warmUp.parse({
    massKg: 80,
    specificHeatJPerKgK: 1000,
    startC,
    targetC,
    ambientC: startC,
    uaToAmbientWPerK,
    heaterW,
  });
  if (!parsed.ok) throw new Error(parsed.issues[0]!.message);
  return warmUp.calculate(parsed.input).result.timeS;
};

describe('warmed with less power', () => {
  test.each([
    [1000, 500, 10],
    [1000, 141, 10],
    [300, 299, 2],
    [5000, 700, 40],
    [800, 200, 0],
  ])('%d W, then %d W against %d W/K: as the warm-up of that power has it', (fullW, lessW, uaWPerK) => {
    expect(slower(timeS(fullW, uaWPerK)!, fullW, lessW, uaWPerK * 14)).toBeCloseTo(timeS(lessW, uaWPerK)!, 6);
  });

  test('power that only holds what is lost never gets there; more than it asks is no faster', () => {
    expect(timeS(140, 10)).toBeNull();
    expect(slower(100, 1000, 140, 140)).toBeNull();
    expect(slower(100, 1000, 0, 0)).toBeNull();
    expect(slower(100, 1000, 2000, 140)).toBe(100);
  });
});
