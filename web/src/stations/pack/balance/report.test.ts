import { describe, expect, test } from '@jest/globals';
import { outlookOf } from '@torvek/core/balance';
import { balanceStates } from '@torvek/core/balance';
import type { EntryBody } from '@torvek/core/record';
import { orchardTruck } from '../../../../../demo/orchard-truck';
import { reportDocument, reportOf } from './report';
import type { BalanceRow } from './use-balance';

const { design } = orchardTruck;
const plan = design.pack.balance!;
const target = { targetV: 2.9, toleranceV: 0.02, restHours: 72 };
const entry = (seq: number, takenAt: string, body: EntryBody) => ({ seq, takenAt, body });
const cells = ['module-c01/cell-1', 'module-c02/cell-1'];
const act = (act: 'on' | 'off'): EntryBody => ({
  kind: 'balance',
  act,
  gear: 'load',
  cells,
  place: null,
  recipe: [],
});
const states = balanceStates(design, [
  entry(1, '2026-11-10T08:00:00Z', act('on')),
  entry(2, '2026-11-10T12:00:00Z', act('off')),
  entry(3, '2026-11-13T13:00:00Z', {
    kind: 'cell-voltages',
    entered: 'typed',
    cells: [
      { cell: cells[0]!, tag: 'C01', samples: [[0, 2.905]] },
      { cell: cells[1]!, tag: 'C02', samples: [[0, 2.951]] },
    ],
  }),
]);
const rows = states.map((state): BalanceRow => ({
  ...state,
  name: state.tag,
  outlook: outlookOf(state.samples, target),
}));
const report = reportOf('Truck', rows, {
  plan,
  toleranceV: 0.02,
  zone: 'Europe/London',
  nowMs: Date.parse('2026-11-14T08:00:00Z'),
  serialOf: (module) => (module === 'module-c01' ? 'OK 1' : undefined),
});

describe('the report of balancing', () => {
  test('counts what is inside and shows every cell', () => {
    expect(report.verdict).toBe('35 cells are not inside yet.');
    expect(Object.fromEntries(report.facts)).toMatchObject({
      way: 'Level at empty',
      target: '2.9 V ± 20 mV',
      load: '100 mΩ, cut off at 2.7 V, on again at 2.85 V, 4 h',
      'cells inside': '1 of 36',
      'spread of those that settled': '46 mV',
    });
    expect(report.lines).toHaveLength(36);
    expect(report.lines.slice(0, 3)).toMatchObject([
      { tag: 'C01', serial: 'OK 1', rounds: 1, settledV: 2.905, verdict: 'settled inside' },
      { tag: 'C02', serial: '', settledV: 2.951, verdict: 'settled too high' },
      { tag: 'C03', rounds: 0, settledV: null, offMv: null, verdict: 'not begun' },
    ]);
    expect(report.lines[0]!.offMv).toBeCloseTo(5, 9);
  });
  test('as a document it writes ohm out: the shipped type lacks the sign', () => {
    const text = JSON.stringify(reportDocument(report));
    expect(text).toContain('100 mohm');
    expect(text).not.toContain('Ω');
    expect(text).not.toMatch(/NaN|undefined/);
  });
});
