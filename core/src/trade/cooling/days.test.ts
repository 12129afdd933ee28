import { describe, expect, test } from '@jest/globals';
import { dayAfterDay, heating, type DayInput, type Ran } from './days';
import { packThermal, type PackThermalInput } from './pack-thermal';

const run = (input: PackThermalInput): Ran => {
  const parsed = packThermal.parse(input);
  return parsed.ok
    ? { result: packThermal.calculate(parsed.input).result, gaps: [] }
    : { result: null, gaps: [{ kind: 'never', label: parsed.issues[0]!.message }] };
};

/** 100 kJ/K behind 10 W/K: a time constant of 10 000 s. */
const tauS = 10_000;
const drive: PackThermalInput = {
  massKg: 100,
  specificHeatJPerKgK: 1000,
  startC: 20,
  ambientC: 35,
  uaToAmbientWPerK: 10,
  resistanceOhm: 0.1,
  // 250 W for an hour: 25 K above ambient in the end.
  profile: [[3600, 50]],
  repeat: 1,
  heaterW: 0,
};
const day: DayInput = { drive, resistanceOhm: 0.1, fast: null, home: null, nightC: 15, nightH: 10 };
const towards = (endC: number, fromC: number, s: number) => endC + (fromC - endC) * Math.exp(-s / tauS);

describe('days one after the other', () => {
  test('the night falls towards its own ambient, and mornings settle where the closed form says', () => {
    const { days } = dayAfterDay(day, run);
    const evening = towards(35 + 25, 20, 3600);
    expect(days!.firstNight.endC).toBeCloseTo(towards(15, evening, 36_000), 6);
    // The fixed point of one day: T = 15 + (60 + (T − 60)·a − 15)·b.
    const [a, b] = [Math.exp(-0.36), Math.exp(-3.6)];
    const settled = (15 - 15 * b + 60 * b * (1 - a)) / (1 - a * b);
    expect(days!.morningsC[0]).toBe(20);
    expect(Math.abs(days!.morningsC.at(-1)! - settled)).toBeLessThan(0.1);
    expect(days!.night.endC).toBeCloseTo(settled, 2);
  });

  test('behind thick walls every day is warmer than the one before, until it is not', () => {
    const thick = { ...day, drive: { ...drive, uaToAmbientWPerK: 1, ambientC: 25 }, nightC: 20 };
    const { days } = dayAfterDay(thick, run);
    expect(days!.settles).toBe(true);
    const thicker = dayAfterDay({ ...thick, drive: { ...thick.drive, uaToAmbientWPerK: 0.2 } }, run).days!;
    expect([thicker.settles, thicker.morningsC.length]).toEqual([false, 14]);
    expect(days!.morningsC.length).toBeGreaterThan(5);
    expect(days!.morningsC).toEqual([...days!.morningsC].sort((x, y) => x - y));
    expect(days!.maxC).toBeCloseTo(days!.drive.maxC, 2);
    expect(days!.maxC).toBeGreaterThan(run(thick.drive).result!.maxC + 5);
  });

  test('a charge at home warms the night, no longer than it lasts; cooling does not run in it', () => {
    const home = { minutes: 300, packHeatW: 100 };
    const { days } = dayAfterDay({ ...day, home }, run);
    const evening = towards(60, 20, 3600);
    const charged = towards(15 + 10, evening, 18_000);
    expect(days!.firstNight.endC).toBeCloseTo(towards(15, charged, 18_000), 6);
    const long = dayAfterDay({ ...day, home: { minutes: 6000, packHeatW: 100 } }, run);
    expect(long.days!.firstNight.endC).toBeCloseTo(towards(25, evening, 36_000), 6);
    expect(long.days!.firstNight.curve.at(-1)![0]).toBe(36_000);
    const cooling = { uaWPerK: 500, coolantC: 0, onAboveC: 10, offBelowC: 5 };
    const cooled = dayAfterDay({ ...day, drive: { ...drive, cooling } }, run);
    expect(cooled.days!.firstNight.coolingOnS).toBeNull();
  });

  test('a fast charge heats as much as its heat, after the drives', () => {
    const { days } = dayAfterDay({ ...day, fast: { minutes: 30, packHeatW: 1000 } }, run);
    expect(heating({ minutes: 30, packHeatW: 1000 }, 0.1)).toEqual([1800, 100]);
    const evening = towards(60, days!.morningsC.at(-1)!, 3600);
    expect(days!.charge!.endC).toBeCloseTo(towards(35 + 100, evening, 1800), 6);
    expect(days!.maxC).toBeGreaterThanOrEqual(days!.charge!.maxC);
  });

  test('a first day that is known already changes nothing', () => {
    const fast = { minutes: 30, packHeatW: 1000 };
    const driven = run(drive).result!;
    const charged = run({ ...drive, startC: driven.endC, profile: [heating(fast, 0.1)] }).result!;
    const known = dayAfterDay({ ...day, fast, first: { drive: driven, charge: charged } }, run);
    expect(known).toEqual(dayAfterDay({ ...day, fast }, run));
  });

  test('what cannot be run is not guessed', () => {
    const bad = dayAfterDay({ ...day, drive: { ...drive, massKg: 0 } }, run);
    expect(bad.days).toBeNull();
    expect(bad.gaps).toHaveLength(1);
  });
});
