import { describe, expect, test } from '@jest/globals';
import {
  acCharge,
  dcfcWindow,
  pilotOf,
  proximity,
  thresholdLadder,
  type AcChargeInput,
  type Threshold,
} from '.';

describe('pilot and proximity', () => {
  test.each([
    [2.9, null, 'no charge'],
    [3, null, 'digital'],
    [7, null, 'digital'],
    [7.1, null, 'no charge'],
    [8, 6, 'pwm'],
    [9.99, 6, 'pwm'],
    [10, 6, 'pwm'],
    [85, 51, 'pwm'],
    [85.1, 52.75, 'pwm'],
    [96, 80, 'pwm'],
    [96.5, 80, 'pwm'],
    [97, 80, 'pwm'],
    [97.1, null, 'no charge'],
  ])('a duty of %d %% offers %s A: %s', (duty, amps, meaning) => {
    const { currentA, meaning: said } = pilotOf(duty);
    expect([currentA === null ? null : Number(currentA.toFixed(9)), said]).toEqual([amps, meaning]);
  });
  test.each([
    [1350, 13],
    [1651, null],
    [612, 20],
    [748, 20],
    [242, 32],
    [90, 63],
    [110, 63],
    [111, null],
    [0, null],
  ])('%d Ω is a cable of %s A', (ohm, cableA) => {
    expect(proximity.calculate({ ohm }).result.cableA).toBe(cableA);
  });
});

describe('charging from the mains', () => {
  const charger = { maxInputA: 16, efficiency: 0.9, maxOutputA: 100, minV: 200, maxV: 420 };
  const base: AcChargeInput = {
    phases: 3,
    phaseVoltageV: 230,
    pilotA: 16,
    cableA: 20,
    inletWireA: 25,
    continuousFraction: 1,
    chargers: [{ id: 'a', phase: '3ph', ...charger }],
    packV: 350,
  };
  const run = (change: Partial<AcChargeInput>) => acCharge.calculate({ ...base, ...change });

  test('what hangs on one phase before the chargers is theirs no more, there alone', () => {
    const own = ([1, 2, 3] as const).map((phase) => ({ id: `c${phase}`, phase, ...charger }));
    const beside = { breakerA: 20, continuousFraction: 0.8, beforeA: [0, 6, 0] as [number, number, number] };
    const { result } = run({ chargers: own, ...beside });
    expect(result.phaseA).toEqual([16, 10, 16]);
    // |16 + 10·a + 16·a²| = 6.
    expect(result.neutralA).toBeCloseTo(6, 9);
    expect([result.availableA, result.limitedBy]).toEqual([10, 'breaker']);
    expect(run(beside).result.phaseA).toEqual([10, 10, 10]);
    // On one phase the others are somebody else’s.
    const one = run({ phases: 1, chargers: [{ id: 'a', phase: 1, ...charger }], ...beside }).result;
    expect([one.phaseA[0], one.availableA]).toEqual([16, 16]);
    const paths = (change: object) => {
      const parsed = acCharge.parse({ ...base, ...change });
      return parsed.ok ? [] : parsed.issues.map(({ path }) => path);
    };
    expect(paths({ beforeA: [0, 1, 0] })).toEqual(['beforeA']);
    expect(paths({ breakerA: 10, beforeA: [0, 11, 0] })).toEqual(['beforeA.1']);
    expect(paths({ breakerA: 10, beforeA: [0, 0] })).toEqual(['beforeA']);
    expect(paths({ breakerA: 10, beforeA: [0, 0, 10] })).toEqual([]);
  });

  test('a three-phase charger draws alike on all, and nothing goes back through the neutral', () => {
    const { result } = run({});
    expect(result.phaseA).toEqual([16, 16, 16]);
    expect(result.neutralA).toBeCloseTo(0, 9);
    expect(result.outputW).toBeCloseTo(3 * 230 * 16 * 0.9, 9);
  });
  test('one beside it on a phase: the three-phase one stops when that is full, the other goes on nowhere', () => {
    const { result } = run({ chargers: [...base.chargers, { id: 'b', phase: 1, ...charger }] });
    expect(result.chargers.map(({ inputA, limitedBy }) => [inputA, limitedBy])).toEqual([
      [8, 'supply'],
      [8, 'supply'],
    ]);
    expect(result.phaseA).toEqual([16, 8, 8]);
    expect(result.neutralA).toBeCloseTo(8, 9);
  });
  test('what one cannot use goes to the other on that phase', () => {
    const small = { ...charger, id: 'small', phase: 1 as const, maxOutputA: 2 };
    const { result } = run({ chargers: [small, { ...charger, id: 'large', phase: 1 }] });
    const need = (2 * 350) / (230 * 0.9);
    expect(result.chargers[0]).toMatchObject({ inputA: expect.closeTo(need, 9), limitedBy: 'output' });
    expect(result.chargers[1]!.inputA).toBeCloseTo(16 - need, 9);
  });
  test('ties go to the first in the order of the way, the breaker counts for long with its part', () => {
    expect(run({ cableA: 16 }).result.limitedBy).toBe('pilot');
    expect(run({ breakerA: 16, continuousFraction: 0.8 }).result).toMatchObject({
      availableA: 12.8,
      limitedBy: 'breaker',
    });
  });
  test('outside its window a charger takes nothing; its ends belong to it', () => {
    const low = run({ packV: 199.9 });
    expect(low.result.chargers[0]).toMatchObject({ inputA: 0, limitedBy: 'window' });
    expect(low.findings.map(({ rule }) => rule.id)).toEqual(['ac-charge.outside-window']);
    expect(run({ packV: 200 }).result.outputW).toBeGreaterThan(0);
  });
  test('two phases loaded alike put as much into the neutral as each carries', () => {
    const { result, findings } = run({
      chargers: [
        { ...charger, id: 'a', phase: 1 },
        { ...charger, id: 'b', phase: 2 },
      ],
    });
    expect(result.neutralA).toBeCloseTo(16, 9);
    expect(findings).toEqual([]);
  });
  test('with one phase every charger is on it', () => {
    const parsed = acCharge.parse({ ...base, phases: 1 });
    expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['chargers.0.phase']);
  });
});

test('a station whose window only touches the pack’s charges nothing', () => {
  const input = {
    packMinV: 100,
    packMaxV: 200,
    stationMinV: 200,
    stationMaxV: 500,
    stationMaxA: 100,
    packMaxChargeA: 80,
  };
  expect(dcfcWindow.calculate(input).result).toEqual({
    possible: false,
    usableFromV: null,
    usableToV: null,
    maxPowerKW: null,
  });
  expect(dcfcWindow.calculate({ ...input, packMaxV: 300 }).result.maxPowerKW).toBe(24);
  expect(dcfcWindow.calculate({ ...input, packMaxV: 300 }).findings.map(({ rule }) => rule.id)).toEqual([
    'dcfc-window.part',
  ]);
  const parsed = dcfcWindow.parse({ ...input, stationMaxV: 200 });
  expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['stationMaxV']);
});

describe('the ladder of thresholds', () => {
  const run = (thresholds: Threshold[], marginMv = 10) =>
    thresholdLadder.calculate({ series: 10, cell: { minV: 2.5, maxV: 4.25 }, thresholds, marginMv });
  const cell = (role: Threshold['role'], voltageV: number, id: string = role): Threshold => ({
    id,
    level: 'cell',
    voltageV,
    role,
  });

  test('where a step is missing its neighbours are compared, with the margin of what lies between', () => {
    const near = run([cell('bms-warn-high', 4.105), cell('balance-start', 4.1)]);
    expect(near.result.violations).toEqual([
      { upper: 'bms-warn-high', lower: 'balance-start', gapMv: expect.closeTo(5, 6), neededMv: 10 },
    ]);
    // Between the charger’s end and the balancing none is asked.
    expect(run([cell('charger-end', 4.1), cell('balance-start', 4.1)]).result.violations).toEqual([]);
    expect(run([cell('charger-end', 4.09), cell('balance-start', 4.1)]).result.violations).toHaveLength(1);
  });
  test('a gap of just what is needed is enough', () => {
    expect(run([cell('bms-cut-high', 4.2), cell('bms-warn-high', 4.19)]).result.violations).toEqual([]);
    expect(run([cell('bms-cut-high', 4.2), cell('bms-warn-high', 4.1901)]).result.violations).toHaveLength(1);
  });
  test('two of one role: each is compared with each', () => {
    const { violations } = run([
      cell('bms-cut-high', 4.2, 'one'),
      cell('bms-cut-high', 4.18, 'two'),
      cell('bms-warn-high', 4.185, 'warn'),
    ]).result;
    expect(violations.map(({ upper, lower }) => [upper, lower])).toEqual([['two', 'warn']]);
  });
  test('braking: no margin below the warning; without one, with margin below the next', () => {
    expect(run([cell('bms-warn-high', 4.1), cell('regen-limit', 4.1)]).result.violations).toEqual([]);
    expect(run([cell('bms-cut-high', 4.1), cell('regen-limit', 4.1)]).result.violations).toMatchObject([
      { upper: 'bms-cut-high', lower: 'regen-limit', neededMv: 10 },
    ]);
    expect(run([cell('absolute-max', 4.2), cell('regen-limit', 4.1)]).result.violations).toEqual([]);
  });
  test('the bottom, and pack voltages by the cell', () => {
    const { result, findings } = run([
      { id: 'derate', level: 'pack', voltageV: 30, role: 'inverter-derate' },
      cell('inverter-cut', 2.995),
      cell('absolute-min', 2.4),
      cell('bms-cut-low', 2.45),
    ]);
    expect(result.ordered).toEqual([
      { id: 'derate', perCellV: 3 },
      { id: 'inverter-cut', perCellV: 2.995 },
      { id: 'bms-cut-low', perCellV: 2.45 },
      { id: 'absolute-min', perCellV: 2.4 },
    ]);
    expect(result.violations.map(({ lower }) => lower)).toEqual(['inverter-cut']);
    expect(findings.map(({ rule }) => rule.id)).toEqual([
      'threshold-ladder.order',
      'threshold-ladder.outside-cell',
    ]);
  });
});
