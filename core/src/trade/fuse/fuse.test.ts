import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogueOf } from '../../model/parts';
import { clearingTimeS, fuse, meltBand, meltTimeS, type FuseInput, uncoveredAt } from '.';
import { fuseNeeds } from './choose';

const curve: FuseInput['curve'] = [
  [320, 1000],
  [600, 15],
  [2000, 0.08],
  [8000, 0.0024],
];

const input: FuseInput = {
  curve,
  currentToleranceFraction: 0.1,
  ratedA: 200,
  ratedVoltageV: 500,
  breakingA: 20000,
  minBreakingA: 0,
  arcI2tFactor: 2,
  busVoltageV: 403,
  faultMinA: 1500,
  faultMaxA: 6500,
  maxClearS: 1,
  ambientC: 25,
  loadProfile: [[60, 80]],
  cable: { areaMm2: 50, k: 143 },
};

const found = (change: Partial<FuseInput>) =>
  fuse.calculate({ ...input, ...change }).findings.map(({ rule }) => rule.id);

describe('melting', () => {
  test('passes through the curve’s points, never melts at or below the first, holds I²t beyond the last', () => {
    expect(meltTimeS(curve, 600)).toBeCloseTo(15, 12);
    expect(meltTimeS(curve, 320)).toBeNull();
    expect(meltTimeS(curve, 16000)! * 16000 ** 2).toBeCloseTo(0.0024 * 8000 ** 2, 6);
    expect(meltTimeS(curve, Math.sqrt(600 * 2000))).toBeCloseTo(Math.sqrt(15 * 0.08), 12);
  });

  test('more current never melts later, and the band stays in order', () => {
    const current = fc.double({ min: 1, max: 50_000, noNaN: true });
    fc.assert(
      fc.property(current, current, (a, b) => {
        const [low, high] = a < b ? [a, b] : [b, a];
        expect(meltTimeS(curve, high) ?? Infinity).toBeLessThanOrEqual(meltTimeS(curve, low) ?? Infinity);
        const { fastestS, averageS, slowestS } = meltBand(input, a);
        expect(fastestS ?? Infinity).toBeLessThanOrEqual(averageS ?? Infinity);
        expect(averageS ?? Infinity).toBeLessThanOrEqual(slowestS ?? Infinity);
        expect(clearingTimeS(input, a) ?? Infinity).toBeGreaterThanOrEqual(slowestS ?? Infinity);
      }),
    );
  });

  test('of two catalogue fuses of one shape the larger never clears sooner', () => {
    const fast = catalogueOf('fuse')
      .filter(({ id }) => id.startsWith('calderside-f') && !id.endsWith('l'))
      .sort((a, b) => a.data.ratedA - b.data.ratedA);
    expect(fast).toHaveLength(18);
    fc.assert(
      fc.property(fc.double({ min: 200, max: 20_000, noNaN: true }), (currentA) => {
        const times = fast.map(({ data }) => clearingTimeS(data, currentA) ?? Infinity);
        expect(times).toEqual([...times].sort((a, b) => a - b));
      }),
    );
  });

  test('the arc adds at most a tenth of a second times its factor less one', () => {
    const slowest = meltTimeS(curve, 600 / 1.1)!;
    expect(clearingTimeS(input, 600)).toBeCloseTo(slowest + 0.1, 12);
  });
});

describe('findings', () => {
  test('a fuse that holds raises none', () => expect(found({})).toEqual([]));
  test.each<[string, Partial<FuseInput>]>([
    ['fuse.voltage', { busVoltageV: 500.1 }],
    ['fuse.breaking-capacity', { breakingA: 6499 }],
    ['fuse.below-minimum-breaking', { minBreakingA: 1501, cable: undefined }],
    ['fuse.slow-at-smallest-fault', { maxClearS: 0.1 }],
    ['fuse.continuous-load', { loadProfile: [[60, 161]] }],
    [
      'fuse.cyclic-wear',
      {
        loadProfile: [
          [1, 400],
          [600, 0],
        ],
      },
    ],
    [
      'fuse.derating-held',
      {
        ambientC: 120,
        ambientDerating: [
          [0, 1],
          [80, 0.9],
        ],
      },
    ],
    ['fuse.cable-unprotected', { cable: { areaMm2: 2.5, k: 143 } }],
  ])('%s', (rule, change) => {
    expect(found(change)).toEqual([rule]);
  });
  test('limits that are met exactly pass', () => {
    expect(
      found({ busVoltageV: 500, breakingA: 6500, minBreakingA: 1500, loadProfile: [[60, 160]] }),
    ).toEqual([]);
  });
});

describe('judgements', () => {
  test('profile currents count by magnitude', () => {
    const charge = fuse.calculate({
      ...input,
      loadProfile: [
        [10, -100],
        [30, 50],
      ],
    }).result.rmsA;
    expect(charge).toBeCloseTo(Math.sqrt((10 * 100 ** 2 + 30 * 50 ** 2) / 40), 12);
  });
  test('derating is linear between its points', () => {
    const { rmsFraction } = fuse.calculate({
      ...input,
      ambientC: 40,
      ambientDerating: [
        [20, 1],
        [60, 0.8],
      ],
    }).result;
    expect(rmsFraction).toBeCloseTo(80 / (200 * 0.9), 12);
  });
  test('without a cable there is no judgement on one', () => {
    expect(fuse.calculate({ ...input, cable: undefined }).result).toMatchObject({
      protectsCable: null,
      unprotectedAtA: [],
    });
  });
  test('where clearing takes longer than 5 s the adiabatic limit does not protect', () => {
    const { unprotectedAtA } = fuse.calculate({ ...input, faultMinA: 600, maxClearS: 100 }).result;
    expect(unprotectedAtA[0]).toBe(600);
    expect(Math.max(...unprotectedAtA)).toBeLessThan(1000);
  });
  test('wear is the sum of shares of the fastest melting time', () => {
    const { wearPerPeriod, periodsToWearOut } = fuse.calculate({
      ...input,
      loadProfile: [
        [2, 540],
        [600, 0],
      ],
    }).result;
    expect(wearPerPeriod).toBeCloseTo(2 / 15, 9);
    expect(periodsToWearOut).toBeCloseTo(7.5, 9);
  });
});

describe.each([1, 1000])('on a bus of %s V', (busVoltageV) => {
  test('the rating decides at that voltage exactly, everything else does not depend on it', () => {
    const at = (ratedVoltageV: number) => fuse.calculate({ ...input, busVoltageV, ratedVoltageV });
    expect([at(busVoltageV).result.voltageOk, at(busVoltageV * 0.999).result.voltageOk]).toEqual([
      true,
      false,
    ]);
    expect(at(busVoltageV).result).toEqual({ ...fuse.calculate(input).result, voltageOk: true });
  });
});

test('what a place needs is said in its own numbers', () => {
  const circuit: FuseInput = {
    ...input,
    ambientDerating: [
      [20, 1],
      [60, 0.8],
    ],
    ambientC: 60,
  };
  const needs = fuseNeeds({ circuit, upstream: [], downstream: [], shortTime: null, inrushA2s: null }, null);
  expect(needs).toEqual([
    '403 V DC or more',
    '6500 A breaking capacity or more',
    'a least breaking current of 1500 A or less',
    'to clear 1500 A within 1 s',
    // 80 A over 80 % and the derating of 0.8.
    'a rating of 125 A or more at this ambient',
    'a clearing I²t below 51.1 MA²s',
  ]);
});

describe('a conductor and the faults that its fuse clears', () => {
  const band = {
    curve: [
      [100, 100],
      [1000, 0.1],
    ] as [number, number][],
    currentToleranceFraction: 0,
    arcI2tFactor: 1,
    minBreakingA: 0,
    faultMinA: 200,
    faultMaxA: 1000,
  };
  test('a fuse that takes longer than 5 s covers nothing there, however much the conductor bears', () => {
    const uncovered = uncoveredAt(band, Infinity);
    expect(uncovered[0]).toBe(200);
    expect(uncovered.every((currentA) => clearingTimeS(band, currentA)! > 5)).toBe(true);
    expect(uncoveredAt({ ...band, faultMinA: 300 }, Infinity)).toEqual([]);
  });
  test('below its least breaking current it is not relied on, and above it I²t decides', () => {
    const few = uncoveredAt({ ...band, faultMinA: 300, minBreakingA: 400 }, Infinity);
    expect(few.length).toBeGreaterThan(0);
    expect(Math.max(...few)).toBeLessThan(400);
    expect(uncoveredAt({ ...band, faultMinA: 300 }, 1)).toHaveLength(40);
  });
});
