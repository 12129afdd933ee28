import { describe, expect, test } from '@jest/globals';
import {
  judgeMeasurement,
  procedureFor,
  standInReading,
  withRecord,
  type Hazard,
} from '@torvek/core/commissioning';
import { evaluate, liveStateOf, openBoxBeside } from '@torvek/core/design';
import { bleedOf, removeBoard, removeString, type Design } from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import {
  boardsOf,
  breaksOf,
  harnessOf,
  jointsLeftOut,
  plugOrderOf,
  restartSuspects,
  senseLengthM,
  type BmsMapResult,
  type SpinAnswer,
} from '@torvek/core/monitoring';
import { deriveNetwork, stagesOf } from '@torvek/core/network';
import { formatQuantity } from '@torvek/core/quantity';
import type { Entry, EntryOf, GateId, PositionBody } from '@torvek/core/record';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';
import { watched, wrongSense } from './sense-cases';

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

const figure = (design: Design, id: FigureId) => evaluate(design).figures[id];

describe('the chain and the harness', () => {
  test('a reading is at most two rounds of the chain old: three boards of 12 ms', () => {
    expect(figure(truck, 'monitoring.link:string-1:ageS')!.value).toBeCloseTo(2 * 3 * 0.012, 12);
    const slow = change((d) => {
      const part = d.parts['harrowmere-b12@1'];
      if (part?.kind === 'unit') part.data.passMs = 834;
    });
    expect(raised(slow, 'monitoring.reading-old')).toEqual([
      'A reading of S1 can be 5.004 s old; the loop opens within 5 s.',
    ]);
    const soon = change((d) => (d.sensing!.reactionS = 0.07));
    expect(raised(soon, 'monitoring.reading-old')).toHaveLength(1);
    const unsaid = change((d) => {
      const part = d.parts['harrowmere-b12@1'];
      if (part?.kind === 'unit') delete part.data.passMs;
    });
    expect(figure(unsaid, 'monitoring.link:string-1:ageS')).toMatchObject({ value: null });
    expect(raised(unsaid, 'monitoring.reading-old')).toEqual([]);
  });

  test('sense wires are as long as the run that carries them is cut; what is typed of one wire counts before that', () => {
    const run = {
      tag: 'Sense loom',
      boards: ['board-1'],
      bendRadiusMm: 20,
      slackFraction: 0.1,
      terminationMm: 50,
      points: [
        { xM: 0, yM: 0, zM: 1 },
        { xM: -2, yM: 0, zM: 1 },
      ],
    };
    const routed = change((d) => (d.runs = { 'run-sense': run }));
    // 2 m, a tenth of slack, 50 mm at either end.
    expect(figure(routed, 'monitoring.board:board-1:leadM')!.value).toBeCloseTo(2.3, 12);
    expect(figure(routed, 'monitoring.board:board-2:leadM')).toMatchObject({ value: null });
    const typed = change((d) => {
      d.runs = { 'run-sense': run };
      d.senseWires = { 'board-1/3': { tag: 'one', lengthM: 2.9 } };
    });
    expect(figure(typed, 'monitoring.board:board-1:leadM')!.value).toBe(2.9);
    expect(senseLengthM(typed, 'board-1/3')).toBe(2.9);
    expect(senseLengthM(typed, 'board-1/4')).toBeCloseTo(2.3, 12);
    expect(senseLengthM(typed, 'board-2/4')).toBeNull();
    const gone = structuredClone(routed);
    removeBoard(gone, 'board-1');
    expect(gone.runs!['run-sense']!.boards).toBeUndefined();
  });

  test('a wire beyond the cavities of its plug is a finding: thirteen wires of a board of twelve', () => {
    const small = change((d) => {
      const plug = d.parts['lintwell-s16@1'];
      if (plug?.kind === 'connector') plug.data.cavities = 12;
    });
    expect(raised(small, 'monitoring.plug-short')).toHaveLength(3);
    const fits = change((d) => {
      const plug = d.parts['lintwell-s16@1'];
      if (plug?.kind === 'connector') plug.data.cavities = 13;
    });
    expect(raised(fits, 'monitoring.plug-short')).toEqual([]);
  });

  test('a plug over a joint that stays out says which closures come first, and what hangs together then', () => {
    const steps = procedureFor(truck, evaluated);
    const ladder = (i: number) => steps.find(({ id }) => id === `sense-ladder:board-${i}`)!;
    expect(ladder(2)).toMatchObject({ hazard: 'part-hv' });
    expect(ladder(2).do).toMatch(
      /^Its cells lie on both sides of the service disconnect between C18 and C19: that is closed first, in rated gloves with a second person; from then on C\d+ to C\d+ hang together, up to [\d.]+ V/,
    );
    expect(ladder(2).basis).toContainEqual(
      expect.objectContaining({ figure: 'sense:board-2:joint-18', value: 18 }),
    );
    for (const i of [1, 3]) {
      expect(ladder(i).do).toMatch(/^Plug of /);
      expect(ladder(i).hazard).toBe('part');
    }
  });

  test('each wire is read from tap to pin, and each sensor at the plug, before there is a ladder', () => {
    const steps = procedureFor(truck, evaluated).filter(({ gate }) => gate === 'sense');
    expect(steps.map(({ id }) => id)).toEqual([
      ...[1, 2, 3].flatMap((i) => [`sense-continuity:board-${i}`, `sense-thermistors:board-${i}`]),
      ...[1, 2, 3].map((i) => `sense-ladder:board-${i}`),
    ]);
    const wires = steps[0]!.expected;
    if (wires?.kind !== 'list') throw new Error('no list');
    expect(wires).toMatchObject({ max: 1, unit: 'Ω' });
    expect(wires.items).toHaveLength(13);
    expect(wires.items.slice(0, 2)).toEqual(['pin 1, C01 tap 0', 'pin 2, C01 tap 1']);
    expect(steps[1]!.expected).toMatchObject({ min: 4000, max: 30_000, withinOfMiddle: 2000, unit: 'Ω' });
    const unsaid = change((d) => void delete d.sensing!.sensorOhm);
    expect(
      procedureFor(unsaid, evaluate(unsaid)).find(({ id }) => id === 'sense-thermistors:board-1'),
    ).toMatchObject({
      expected: null,
      gaps: [{ path: 'sensing.sensorOhm' }],
    });
  });

  test('a harness is watched after plugging: at once, after 1 and 10 min, no more than 5 K', () => {
    const watch = procedureFor(truck, evaluated).find(({ id }) => id === 'unit-plugged:board-2')!;
    expect(watch).toMatchObject({ instrument: 'thermometer', waitMinutes: 10, gate: 'power-up' });
    expect(watch.expected).toMatchObject({ kind: 'list', max: 5, unit: 'K' });
    const verdict = (values: number[]) => {
      const answer = judgeMeasurement(watch.expected!, { kind: 'list', values, unit: 'K' });
      return answer.ok ? answer.judgement.verdict : answer.message;
    };
    expect(verdict([0.2, 1, 5])).toBe('pass');
    expect(verdict([0.2, 1, 5.1])).toBe('fail');
    expect(verdict([0.2, 1])).toMatch(/3/);
  });
});

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

  test('of two strings side by side each carries half: so much less shows over its break', () => {
    const bus = changed(wrongSense['monitoring.over-break']!);
    // 400 A in two strings, over 0.2 mΩ.
    expect(raised(bus, 'monitoring.over-break')).toEqual([expect.stringContaining(': 40 mV at the peak.')]);
    const one = structuredClone(bus);
    delete one.strings['string-2'];
    for (const [id, board] of Object.entries(one.boards!))
      if (board.string === 'string-2') delete one.boards![id];
    one.sensors = {};
    expect(raised(one, 'monitoring.over-break')).toEqual([expect.stringContaining(': 80 mV at the peak.')]);
  });

  test('a donor counts by all cells of this pack, those side by side within a module as well', () => {
    const error = (design: Design) =>
      evaluate(design).figures['monitoring.donor:pack:chargeErrorFraction' as FigureId]!.value!;
    const two = changed((draft) => {
      for (const part of Object.values(draft.parts))
        if (part.kind === 'module') part.data.cellsInParallel *= 2;
    });
    expect(1 + error(two)).toBeCloseTo(2 * (1 + error(libraryBus.design)), 9);
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
      delete draft.pack.balance!.bleedCurrentA;
      draft.pack.sense!['sense-all']!.areaMm2 = 0.5;
      draft.senseWires = Object.fromEntries(
        Array.from({ length: 13 }, (_, tap) => [
          `board-1/${tap}`,
          { tag: `wire ${tap}`, lengthM: tap === 3 ? 2 : 1 },
        ]),
      );
    });
    expect(evaluate(long).figures['monitoring.board:board-1:errorMv' as FigureId]!.value).toBeCloseTo(
      0.2 * 2 * ((0.0175 * 2) / 0.5) * 1000,
      9,
    );
    // The longest is known once all are.
    const short = structuredClone(long);
    delete short.senseWires!['board-1/7'];
    expect(evaluate(short).figures['monitoring.board:board-1:errorMv' as FigureId]).toMatchObject({
      value: null,
      gaps: [{ path: 'senseWires', label: 'length of 1 of 13 sense wires of Board 1' }],
    });
  });
});

describe('a ladder before the plug goes in', () => {
  const steps = procedureFor(truck, evaluated).filter(({ id }) => id.startsWith('sense-ladder:'));
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
      procedureFor(watchedBus, evaluate(watchedBus)).filter(({ id }) => id.startsWith('sense-ladder:')),
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

describe('powered up for the first time', () => {
  const procedure = procedureFor(truck, evaluated);
  const step = (id: string) => procedure.find((one) => one.id === id)!;
  const entry = (seq: number, of: string, taps: number[], verdict = 'pass') =>
    ({
      seq,
      body: { kind: 'result', step: of, verdict, measured: { kind: 'ladder', taps, unit: 'V' } },
    }) as unknown as Entry;
  const ladder = Array.from({ length: 12 }, (_, i) => 3.3 * (i + 1) + (i >= 4 ? 0.01 : 0));
  const judged = (values: number[], entries = [entry(1, 'sense-ladder:board-1', ladder)]) =>
    judgeMeasurement(withRecord(step('unit-channels:board-1'), entries)!, {
      kind: 'list',
      values,
      unit: 'V',
    });
  const steps = Array.from({ length: 12 }, (_, i) => (i === 4 ? 3.31 : 3.3));

  test('each board has its steps, limits are asked by what the monitor is set to', () => {
    const own = procedure.filter(({ gate }) => gate === 'power-up').map(({ id }) => id);
    expect(own).toEqual([
      ...[1, 2, 3].map((i) => `unit-plugged:board-${i}`),
      'unit-found:string-1',
      ...[1, 2, 3].flatMap((i) => ['channels', 'sensors', 'warmed'].map((what) => `unit-${what}:board-${i}`)),
      'unit-loop:string-1',
      ...[1, 2, 3].map((i) => `unit-trips:board-${i}`),
    ]);
    expect(step('unit-found:string-1').expected).toMatchObject({ min: 3, max: 3 });
    const trips = step('unit-trips:board-2').expected;
    expect(trips).toMatchObject({ kind: 'list', max: 5, unit: 's' });
    expect(trips?.kind === 'list' && trips.items).toHaveLength(6);
    expect(trips?.kind === 'list' && trips.items[0]).toBe(
      `a cell above ${formatQuantity(truck.limits!.cutHighV!, 'V', 4)}`,
    );
    expect(
      procedureFor(libraryBus.design, evaluate(libraryBus.design)).some(({ gate }) => gate === 'power-up'),
    ).toBe(false);
  });

  test('channels are held against the recorded ladder, once what all moved by is taken off', () => {
    const verdict = (values: number[]) => {
      const answer = judged(values);
      if (!answer.ok) throw new Error(answer.message);
      return answer.judgement;
    };
    expect(verdict(steps).verdict).toBe('pass');
    expect(verdict(steps.map((one) => one - 0.08))).toMatchObject({
      verdict: 'pass',
      details: expect.arrayContaining([
        { label: 'all moved since the ladder by', value: expect.closeTo(-0.08, 9), unit: 'V' },
      ]),
    });
    const off = verdict(steps.map((one, i) => (i === 7 ? one + 0.021 : one)));
    expect(off.reasons).toEqual([
      expect.stringContaining('channel 8, cell 8: 3.321 V, 0.021 V off its step'),
    ]);
    expect(verdict(steps.map((one, i) => (i === 7 ? one + 0.0199 : one))).verdict).toBe('pass');
    expect(verdict(steps.map((one, i) => (i === 2 ? 0 : one))).reasons[0]).toMatch(/channel 3.*below 2.5 V/);
  });

  test('without a ladder that passed nothing is judged; a corrected one does not count, the last one does', () => {
    const refused = { ok: false, message: expect.stringContaining('no ladder that passed') };
    expect(judged(steps, [])).toEqual(refused);
    expect(judged(steps, [entry(1, 'sense-ladder:board-1', ladder, 'fail')])).toEqual(refused);
    expect(judged(steps, [entry(1, 'sense-ladder:board-2', ladder)])).toEqual(refused);
    const correction = { seq: 2, body: { kind: 'correction', of: 1, reason: 'x' } } as unknown as Entry;
    expect(judged(steps, [entry(1, 'sense-ladder:board-1', ladder), correction])).toEqual(refused);
    expect(judged(steps.slice(1))).toMatchObject({
      ok: false,
      message: '12 readings are expected, 11 are given',
    });
  });

  test('sensors lie near their middle and are plausible; every limit opens in time', () => {
    const at = (id: string, values: number[], unit: string) => {
      const answer = judgeMeasurement(step(id).expected!, { kind: 'list', values, unit });
      if (!answer.ok) throw new Error(answer.message);
      return answer.judgement.reasons;
    };
    expect(at('unit-sensors:board-1', [18, 19], '°C')).toEqual([]);
    expect(at('unit-sensors:board-1', [18, -40], '°C')).toEqual([expect.stringMatching(/^T2: .*below/)]);
    expect(at('unit-sensors:board-1', [12, 24], '°C')).toHaveLength(2);
    expect(at('unit-warmed:board-1', [1.5, 1.4], 'K')).toEqual([expect.stringContaining('T2')]);
    expect(at('unit-trips:board-1', [1, 2, 5, 0.5, 3, 2], 's')).toEqual([]);
    expect(at('unit-trips:board-1', [1, 2, 5.1, 0.5, 3, 2], 's')).toEqual([
      expect.stringMatching(/sensor above/),
    ]);
  });

  test('stand-ins answer, or leave one dead', () => {
    const reading = (id: string, behaviour: string) => {
      const one = step(id);
      const entries = [entry(1, 'sense-ladder:board-1', ladder)];
      const expected = withRecord(one, entries)!;
      const answer = judgeMeasurement(
        expected,
        standInReading({ ...one, expected }, truck, evaluated, behaviour, 5)!,
      );
      if (!answer.ok) throw new Error(answer.message);
      return answer.judgement.reasons.length;
    };
    expect(reading('unit-channels:board-1', 'true')).toBe(0);
    expect(reading('unit-channels:board-1', 'one-dead')).toBe(1);
    expect(reading('unit-trips:board-1', 'true')).toBe(0);
    expect(reading('unit-trips:board-1', 'no-trip')).toBe(1);
    expect(reading('unit-sensors:board-2', 'true')).toBe(0);
  });
});

describe('plugs, bleed and what restarts', () => {
  test('the middle board waits for the disconnect; a board over a soft link is told where to end', () => {
    const { boards } = mapOf(truck, 'string-1');
    const { moves, reachOver } = plugOrderOf(truck, 'string-1', boards);
    expect(jointsLeftOut(truck, 'string-1')).toContain(18);
    expect(reachOver.filter(({ joint }) => joint === 18)).toEqual([
      { board: 'board-2', joint: 18, cellsBefore: 6 },
    ]);
    const order = moves.map((one) => one.board ?? one.joint);
    expect(order.indexOf('board-2')).toBeGreaterThan(order.indexOf(18));
    // The disconnect is the other rule’s.
    expect(raised(truck, 'monitoring.end-at-link')).toEqual([]);
    const wide = changed((draft) => {
      watched(draft);
      draft.sensing!.strategy = 'fill';
      for (const one of Object.values(draft.boards!)) delete one.takes;
      draft.boards!['board-1']!.takes = 8;
    });
    const text = raised(wide, 'monitoring.end-at-link').join(' ');
    expect(text).toMatch(/Watch \d reads on both sides of link \d of S1; ending after \d+ of its cells/);
  });

  test('a plug over an open link stands in the state of the vehicle', () => {
    const network = deriveNetwork(truck);
    const boxes = stagesOf(truck, network).find(({ id }) => id === 'boxes')!.open;
    const position = (plugged?: string[]) =>
      ({
        seq: 1,
        body: {
          kind: 'position',
          linksOut: 2,
          serviceDisconnect: 'out',
          mains: 'open',
          open: boxes,
          ...(plugged && { plugged }),
        },
      }) as unknown as EntryOf<PositionBody>;
    expect(liveStateOf(truck, position(), [])).toMatchObject({ plugged: null, pluggedOver: [] });
    expect(liveStateOf(truck, position(['board-1']), [])).toMatchObject({
      plugged: ['board-1'],
      pluggedOver: [],
      text: 'HV open at 2 links',
    });
    const over = liveStateOf(truck, position(['board-1', 'board-2', 'board-gone']), []);
    expect(over.plugged).toEqual(['board-1', 'board-2']);
    expect(over.pluggedOver).toEqual([{ board: 'board-2', joint: 18 }]);
    expect(over.text).toBe('HV open at 2 links, Board 2 plugged over the open link 18');
  });

  test('a lid that is off stands in the state of the vehicle, and against charging alone', () => {
    const position = (lidsOff?: string[]) =>
      ({
        seq: 1,
        body: {
          kind: 'position',
          linksOut: 0,
          serviceDisconnect: 'in',
          mains: 'open',
          ...(lidsOff && { lidsOff }),
        },
      }) as unknown as EntryOf<PositionBody>;
    expect(liveStateOf(truck, position(), []).lidsOff).toBeNull();
    const off = liveStateOf(truck, position(['box-seat', 'box-gone']), []);
    expect(off).toMatchObject({
      lidsOff: ['box-seat'],
      text: 'Pack closed, mains open, lid of Box under the seat off',
    });
    const beside = (gate: GateId, hazard: Hazard, lids?: string[]) =>
      openBoxBeside({ gate, hazard }, truck, position(lids));
    expect(beside('charging', 'live', ['box-seat'])).toMatch(
      /^By the record the lid of Box under the seat is off/,
    );
    expect(beside('charging', 'live', [])).toBeNull();
    expect(beside('charging', 'live')).toBeNull();
    expect(beside('charging', 'low-voltage', ['box-seat'])).toBeNull();
    expect(beside('first-hv', 'live', ['box-seat'])).toBeNull();
    expect(openBoxBeside({ gate: 'charging', hazard: 'live' }, truck, null)).toBeNull();
  });

  test('what is bled stands once: typed in the plan, or by the boards', () => {
    expect(bleedOf(truck)).toEqual({ currentA: 0, typed: true });
    const byBoards = change((draft) => void delete draft.pack.balance!.bleedCurrentA);
    expect(bleedOf(byBoards)).toEqual({ currentA: 0.2, typed: false });
    expect(raised(byBoards, 'balance.bleeding-undoes-bottom')).toEqual([
      'Level at empty, and the monitor bleeds 0.2 A.',
    ]);
    expect(bleedOf({ ...truck, pack: { ...truck.pack, balance: {} }, boards: {} })).toBeNull();
    // One cause, one finding: the part’s bleed is judged at the board, a typed one in Balance.
    const strong = change((draft) => {
      delete draft.pack.balance!.bleedCurrentA;
      const part = draft.parts['harrowmere-b12@1'];
      if (part?.kind === 'unit') part.data.bleedA = 9;
    });
    expect(raised(strong, 'monitoring.bleed-lead')).toHaveLength(3);
    expect(raised(strong, 'balance-time.sense-lead-limit')).toEqual([]);
  });

  test('suspects of restarts: who looks on, feed, ground, output, then links, sensors and boards', () => {
    expect(restartSuspects(truck).map(({ id }) => id)).toEqual([
      'observer',
      'supply',
      'ground',
      'output',
      'link:board-1/board-2',
      'link:board-2/board-3',
      'sensors:board-1',
      'sensors:board-2',
      'sensors:board-3',
      'board:board-1',
      'board:board-2',
      'board:board-3',
    ]);
    expect(
      restartSuspects(libraryBus.design)
        .slice(4)
        .map(({ id }) => id),
    ).toEqual(['nose', 'left', 'tail'].map((box) => `box:box-${box}`));
  });

  test('the truck’s inverter wakes from 25 cells of 3.3 V, with a fuse for 20 A', () => {
    const spin = evaluated.runs['monitoring.spin:device-inverter']!.result as SpinAnswer;
    expect(spin).toMatchObject({ modules: 25, cells: 25, tooHigh: false });
    expect(spin.voltageV).toBeCloseTo(25 * 3.3, 9);
    expect(spin.cutHighV).toBeCloseTo(25 * truck.limits!.cutHighV!, 9);
    expect(spin.fuse!.ratedA).toBeGreaterThanOrEqual(25);
    const unsaid = change((draft) => {
      delete draft.sensing!.spinCellV;
      delete draft.sensing!.spinA;
    });
    expect(evaluate(unsaid).runs['monitoring.spin:device-inverter']).toBeUndefined();
  });
});
