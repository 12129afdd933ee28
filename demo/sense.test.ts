import { describe, expect, test } from '@jest/globals';
import { judgeMeasurement, procedureFor, standInReading } from '@torvek/core/commissioning';
import { evaluate } from '@torvek/core/design';
import { removeBoard, removeString, type Design } from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { boardsOf, breaksOf, harnessOf, type BmsMapResult } from '@torvek/core/monitoring';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';
import { watched } from './sense-cases';

const truck = orchardTruck.design;
const watchedBus = changed(watched);
const evaluated = evaluate(truck);
const mapOf = (design: Design, string: string) =>
  evaluate(design).runs[`monitoring.map:${string}`]!.result as BmsMapResult;
const change = (recipe: (draft: Design) => void): Design => {
  const draft = structuredClone(truck);
  recipe(draft);
  return draft;
};
const raised = (design: Design, rule: string) =>
  evaluate(design).checks.flatMap((check) =>
    check.state === 'raised' && check.rule.id === rule ? [check.message] : [],
  );

describe('the map of the truck', () => {
  test('three boards of twelve read all 36 cells; the middle one reaches over the disconnect by 33 mV', () => {
    const { boards, cellsLeft, straddles, wires } = mapOf(truck, 'string-1');
    expect(boards.map(({ cells }) => cells.length)).toEqual([12, 12, 12]);
    expect([cellsLeft, wires]).toEqual([0, 39]);
    expect(straddles).toMatchObject([
      { board: 'board-2', afterModule: 'module-c18', kind: 'service-disconnect' },
    ]);
    // 220 A over 0.15 mΩ of its contacts.
    expect(straddles[0]!.mvAtPeak).toBeCloseTo(220 * 0.15, 9);
    expect(raised(truck, 'monitoring.over-break')).toEqual([
      'Board 2 reaches over the service disconnect behind C18: 33 mV at the peak.',
    ]);
  });

  test('moved, the boards end at the disconnect, and six cells want a fourth board', () => {
    const moved = change((draft) => void delete draft.sensing!.mayStraddle);
    const map = mapOf(moved, 'string-1');
    expect(map.boards.map(({ cells }) => cells.length)).toEqual([12, 6, 12]);
    expect([map.cellsLeft, map.straddles]).toEqual([6, []]);
    expect(raised(moved, 'bms-map.cells-left')).toEqual(['6 cells of S1 are left.']);
    const four = change((draft) => {
      delete draft.sensing!.mayStraddle;
      draft.boards!['board-4'] = { ...draft.boards!['board-1']!, tag: 'Board 4', order: 4, address: 4 };
    });
    expect(mapOf(four, 'string-1').cellsLeft).toBe(0);
    expect(raised(four, 'monitoring.over-break')).toEqual([]);
  });

  test('a board that takes fewer cells moves where the next begins; boards serve in the order of their chain', () => {
    const fewer = change((draft) => void (draft.boards!['board-1']!.takes = 9));
    expect(mapOf(fewer, 'string-1').boards.map(({ cells }) => cells[0]!.cell)).toEqual([1, 10, 22]);
    const turned = change((draft) => {
      draft.boards!['board-1']!.order = 3;
      draft.boards!['board-3']!.order = 1;
    });
    expect(boardsOf(turned, 'string-1').map(([id]) => id)).toEqual(['board-3', 'board-2', 'board-1']);
    expect(mapOf(turned, 'string-1').boards[0]!.id).toBe('board-3');
  });

  test('breaks are the disconnect, the fuse and where the string leaves a box', () => {
    const kinds = breaksOf(libraryBus.design, 'string-1', () => 0.001).map(({ kind }) => kind);
    expect(kinds).toContain('service-disconnect');
    expect(kinds.filter((kind) => kind === 'link').length).toBeGreaterThanOrEqual(1);
    expect(breaksOf(truck, 'string-1', () => 0)).toEqual([
      { afterModule: 'module-c18', kind: 'service-disconnect', resistanceOhm: 0 },
    ]);
  });

  test('each string of the bus has boards of its own', () => {
    for (const string of ['string-1', 'string-2']) {
      const map = mapOf(watchedBus, string);
      expect([map.boards.length, map.cellsLeft, map.straddles.length]).toEqual([8, 0, 0]);
    }
  });
});

describe('the harness', () => {
  test('has as many wires as the map says, every cell once, a reference for each board', () => {
    const { boards } = mapOf(truck, 'string-1');
    const wires = harnessOf(boards);
    expect(wires).toHaveLength(39);
    expect(wires.filter(({ what }) => what === 'tap').map(({ cell }) => cell)).toEqual(
      Array.from({ length: 36 }, (_, i) => i + 1),
    );
    expect(new Set(wires.map(({ id }) => id)).size).toBe(39);
    expect(wires.filter(({ pin }) => pin === 1).map(({ module, tap }) => [module, tap])).toEqual([
      ['module-c01', 0],
      ['module-c13', 0],
      ['module-c25', 0],
    ]);
  });

  test('a board that begins inside a module takes its reference from the one before; spare channels are tied to the top', () => {
    const inside = changed((draft) => {
      watched(draft);
      draft.sensing!.strategy = 'fill';
      draft.boards!['board-1']!.takes = 8;
    });
    const wires = harnessOf(mapOf(inside, 'string-1').boards);
    const second = wires.filter(({ board }) => board === 'board-2');
    expect(second[0]).toMatchObject({ what: 'jumper', pin: 1, cell: 8 });
    const modules = changed((draft) => {
      watched(draft);
      draft.sensing!.strategy = 'per-module';
      const key = Object.keys(draft.parts).find((one) => one.startsWith('harrowmere-b12@'))!;
      const part = draft.parts[key];
      if (part?.kind === 'unit') part.data.channels = 14;
    });
    const tied = harnessOf(mapOf(modules, 'string-1').boards).filter(({ what }) => what === 'tie');
    expect(tied).toHaveLength(8 * 2);
    expect(tied[0]).toMatchObject({ pin: 14, cell: 12 });
  });

  test('reading low while it bleeds: twice the lead, of the length that is given', () => {
    const long = change((draft) => {
      draft.pack.sense!['sense-all']!.areaMm2 = 0.5;
      draft.senseWires = {
        'board-1/3': { tag: 'long one', lengthM: 2 },
        'board-1/4': { tag: 'short', lengthM: 1 },
      };
    });
    expect(evaluate(long).figures['monitoring.board:board-1:errorMv' as FigureId]!.value).toBeCloseTo(
      0.2 * 2 * ((0.0175 * 2) / 0.5) * 1000,
      9,
    );
  });
});

describe('a ladder before the plug goes in', () => {
  const steps = procedureFor(truck, evaluated).filter(({ gate }) => gate === 'sense');
  const judge = (behaviour: string, id = 'sense-ladder:board-2') => {
    const step = steps.find((one) => one.id === id)!;
    const judged = judgeMeasurement(step.expected!, standInReading(step, truck, evaluated, behaviour, 11)!);
    return judged.ok ? judged.judgement : null;
  };

  test('is asked of every board, and of no donor board that stays in its module', () => {
    expect(steps.map(({ id }) => id)).toEqual([1, 2, 3].map((i) => `sense-ladder:board-${i}`));
    expect(steps[0]!.expected).toEqual({
      kind: 'ladder',
      cells: 12,
      cellMinV: 2.5,
      cellMaxV: 3.65,
      tied: 0,
      unit: 'V',
    });
    expect(steps[0]!.hazard).toBe('part');
    const bus = libraryBus.design;
    expect(procedureFor(bus, evaluate(bus)).some(({ gate }) => gate === 'sense')).toBe(false);
    expect(
      procedureFor(watchedBus, evaluate(watchedBus)).filter(({ gate }) => gate === 'sense'),
    ).toHaveLength(16);
  });

  test('a right one passes; each miswire is named by its pins', () => {
    expect(judge('true')).toMatchObject({ verdict: 'pass', reasons: [] });
    expect(judge('taps-swapped')).toMatchObject({
      verdict: 'fail',
      reasons: ['pin 7 and 8: neighbours exchanged', 'do not plug it in'],
    });
    expect(judge('open-lead')!.reasons).toEqual(['pin 7: open', 'do not plug it in']);
    expect(judge('plug-reversed')!.reasons).toEqual(['the plug is turned round', 'do not plug it in']);
  });

  test('too few or too many readings are refused', () => {
    const { expected } = steps[0]!;
    expect(judgeMeasurement(expected!, { kind: 'ladder', taps: [3.3, 6.6], unit: 'V' })).toEqual({
      ok: false,
      message: '12 readings are expected, 2 are given',
    });
    expect(judgeMeasurement(expected!, { kind: 'value', value: 3, unit: 'V' })).toMatchObject({ ok: false });
  });
});

describe('a donor’s monitor', () => {
  test('counts by the capacity that it knows: half of it, twice as fast', () => {
    const half = changed((draft) => void (draft.sensing!.donorAh = 117));
    expect(
      evaluate(half).figures['monitoring.donor:pack:chargeErrorFraction' as FigureId]!.value,
    ).toBeCloseTo(1, 9);
    expect(raised(half, 'monitoring.donor-misreports')[0]).toContain('counts 100 % too much');
    const other = changed((draft) => Object.assign(draft.sensing!, { donorCells: 108, donorMaxV: 4.25 }));
    const said = raised(other, 'monitoring.donor-misreports')[0];
    expect(said).toContain('expects 108 cells and finds 96');
    expect(said).toContain('its limit of 4.25 V lies above the cell’s 4.2 V');
  });
});

test('what goes takes along what named it', () => {
  const gone = change((draft) => {
    removeBoard(draft, 'board-1');
    removeString(draft, 'string-1');
  });
  expect(gone.sensors!['sensor-1']).toEqual({ tag: 'T1', place: 'on the busbar side' });
  expect(gone.boards!['board-2']!.string).toBeUndefined();
});
