import { describe, expect, test } from '@jest/globals';
import { balanceTime, parallelMatch } from '.';

describe('joining in parallel', () => {
  const base = {
    a: { voltageV: 361.2, resistanceOhm: 0.086, capacityAh: 64 },
    b: { voltageV: 356.4, resistanceOhm: 0.094, capacityAh: 64 },
    linkResistanceOhm: 0.004,
    currentLimitA: 60,
    series: 96,
    ocvTable: [
      [0, 3],
      [1, 4.2],
    ],
  };
  const match = (change: object) => {
    const parsed = parallelMatch.parse({ ...base, ...change });
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
    return parallelMatch.calculate(parsed.input);
  };
  test('turned round it is the same with the other one higher', () => {
    const { result: one } = match({});
    const { result: other } = match({ a: base.b, b: base.a });
    expect(other).toEqual({ ...one, higher: 'b' });
  });
  test('equal voltages move nothing', () => {
    expect(match({ b: { ...base.b, voltageV: 361.2 } }).result).toMatchObject({
      higher: 'equal',
      deltaV: 0,
      ahToMove: 0,
      benchHours: null,
    });
  });
  test('the largest difference is exactly allowed; a hair more is not', () => {
    const { maxDeltaV } = match({}).result;
    const at = (voltageV: number) => match({ a: { ...base.a, voltageV }, b: { ...base.b, voltageV: 100 } });
    expect(at(100 + maxDeltaV * (1 - 1e-12)).result.withinLimit).toBe(true);
    const over = at(100 + maxDeltaV * 1.001);
    expect([over.result.withinLimit, over.findings.map(({ rule }) => rule.id)]).toEqual([
      false,
      ['parallel-match.beyond-table', 'parallel-match.beyond-table', 'parallel-match.current-over-limit'],
    ]);
  });
  test('no resistance anywhere is refused', () => {
    const none = {
      a: { ...base.a, resistanceOhm: 0 },
      b: { ...base.b, resistanceOhm: 0 },
      linkResistanceOhm: 0,
    };
    expect(parallelMatch.parse({ ...base, ...none })).toMatchObject({
      ok: false,
      issues: [{ path: 'a.resistanceOhm' }],
    });
  });
});

describe('balancing by bleeding', () => {
  const body = {
    cells: [
      { id: 'c1', socFraction: 0.9 },
      { id: 'c2', socFraction: 0.8 },
    ],
    capacityAh: 100,
    school: 'top',
    bleedCurrentA: 0.2,
    dutyFraction: 0.5,
  };
  const run = (change: object) => {
    const parsed = balanceTime.parse({ ...body, ...change });
    return parsed.ok ? balanceTime.calculate(parsed.input).result : parsed.issues.map(({ path }) => path);
  };
  test('hours are charge over mean current; a lead at its limit is allowed', () => {
    expect(run({ leadLimitA: 0.2 })).toMatchObject({
      totalHours: expect.closeTo(100, 9),
      bleedAllowed: true,
    });
    expect(run({ leadLimitA: 0.19 })).toMatchObject({ bleedAllowed: false });
  });
  test('over the leads’ limit is a Stop with both currents; at it there is none', () => {
    const rulesAt = (leadLimitA: number) => {
      const parsed = balanceTime.parse({ ...body, leadLimitA });
      return parsed.ok ? balanceTime.calculate(parsed.input).findings : [];
    };
    expect(
      rulesAt(0.1).map(({ rule, message }) => [rule.id, rule.grade, message.includes('0.2 A')]),
    ).toContainEqual(['balance-time.sense-lead-limit', 'stop', true]);
    expect(rulesAt(0.2).map(({ rule }) => rule.id)).toEqual(['balance-time.where-compared']);
  });
  test('a repeated cell is named', () => {
    expect(run({ cells: [body.cells[0], body.cells[0]] })).toEqual(['cells.1.id']);
  });
});
