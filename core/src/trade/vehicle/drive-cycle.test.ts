import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { cycleMoments, driveCycle, driveCycles, loadProfileOf, range, type DriveCycleInput } from '.';

const body = {
  points: [
    [0, 60],
    [100, 60],
  ],
  massKg: 6000,
  rollingCoefficient: 0.01,
  dragAreaM2: 4.5,
  drivetrainEfficiency: 0.85,
  accessoriesW: 1500,
  voltageV: 350,
  resistanceOhm: 0.04,
};
const parse = (change: object = {}): DriveCycleInput => {
  const parsed = driveCycle.parse({ ...body, ...change });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return parsed.input;
};
const result = (change: object = {}) => driveCycle.calculate(parse(change)).result;

describe('a drive cycle', () => {
  test('at steady speed equals road load', () => {
    const steady = range.parse({
      method: 'road-load',
      usableEnergyKWh: 60,
      massKg: 6000,
      speedKmH: 60,
      rollingCoefficient: 0.01,
      dragAreaM2: 4.5,
      drivetrainEfficiency: 0.85,
      accessoriesW: 1500,
    });
    if (!steady.ok) throw new Error('road load');
    expect(result().whPerKm).toBeCloseTo(range.calculate(steady.input).result.whPerKm, 6);
    expect(result().distanceKm).toBeCloseTo((60 * 100) / 3600, 9);
  });

  test('up and down again without loss gives back what it took: only accessories remain', () => {
    const ideal = {
      points: [
        [0, 0],
        [10, 36],
        [20, 0],
      ],
      rollingCoefficient: 0,
      dragAreaM2: 0,
      drivetrainEfficiency: 1,
      accessoriesW: 0,
      regenFraction: 1,
    };
    expect(result(ideal).energyWh).toBeCloseTo(0, 9);
    // Half of ½·m·v² for half of the braking recovered, 10 m/s, with 5 % that turns.
    const half = result({ ...ideal, regenFraction: 0.5 }).energyWh;
    expect(half).toBeCloseTo((0.5 * 6000 * 1.05 * 100 * 0.5) / 3600, 6);
  });

  test('current and voltage give the power: P = U·I − R·I²', () => {
    for (const { powerW, currentA } of cycleMoments(parse({ points: driveCycles.country.points })))
      expect(350 * currentA! - 0.04 * currentA! ** 2).toBeCloseTo(powerW, 5);
  });

  test('standing still draws the accessories, and nothing rolls', () => {
    const still = result({
      points: [
        [0, 0],
        [3600, 0],
      ],
    });
    expect(still.energyWh).toBeCloseTo(1500, 9);
    expect(still.whPerKm).toBeNull();
  });

  test('more than the pack can give is never, with a finding', () => {
    const outcome = driveCycle.calculate(parse({ points: driveCycles.burst.points, resistanceOhm: 0.2 }));
    expect(outcome.result).toMatchObject({ peakA: null, rmsA: null });
    expect(outcome.findings.map(({ rule }) => rule.id)).toEqual(['drive-cycle.beyond-source']);
    // U²/(4·R) = 350²/0.8
    expect(outcome.findings[0]!.message).toContain('153 kW');
  });

  test.each([
    ['points', { points: [[0, 10]] }],
    [
      'points',
      {
        points: [
          [0, 10],
          [0, 20],
        ],
      },
    ],
    ['massKg', { massKg: 0 }],
    ['regenFraction', { regenFraction: 1.1 }],
    ['windA', { windA: 1 }],
  ])('refuses a wrong %s', (path, change) => {
    const parsed = driveCycle.parse({ ...body, ...change });
    expect(parsed.ok ? [] : parsed.issues.map((issue) => issue.path.split('.')[0])).toContain(path);
  });
});

describe('the load profile of a cycle', () => {
  test.each(Object.entries(driveCycles))('%s: as long, and as hot, in at most 24 steps', (_, cycle) => {
    const input = parse({ points: cycle.points, gradeFraction: cycle.gradeFraction, resistanceOhm: 0.02 });
    const moments = cycleMoments(input);
    const profile = loadProfileOf(moments)!;
    const { durationS, rmsA, peakA } = driveCycle.calculate(input).result;
    const seconds = profile.reduce((sum, [s]) => sum + s, 0);
    const squares = profile.reduce((sum, [s, amps]) => sum + s * amps ** 2, 0);
    expect(profile.length).toBeLessThanOrEqual(24);
    expect(seconds).toBeCloseTo(durationS, 6);
    expect(Math.sqrt(squares / seconds)).toBeCloseTo(rmsA!, 6);
    expect(Math.max(...profile.map(([, amps]) => amps))).toBeLessThanOrEqual(peakA! + 1e-9);
    expect(Math.max(...profile.map(([, amps]) => amps))).toBeGreaterThan(peakA! * 0.6);
  });

  test('of any length asked for heats the same and lasts the same', () => {
    const input = parse({ points: driveCycles.town.points });
    const { durationS, rmsA } = driveCycle.calculate(input).result;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), (most) => {
        const profile = loadProfileOf(cycleMoments(input), most)!;
        expect(profile.length).toBeLessThanOrEqual(most);
        const squares = profile.reduce((sum, [s, amps]) => sum + s * amps ** 2, 0);
        expect(squares).toBeCloseTo(rmsA! ** 2 * durationS, 3);
        expect(profile.reduce((sum, [s]) => sum + s, 0)).toBeCloseTo(durationS, 6);
      }),
      { numRuns: 30 },
    );
  });
});
