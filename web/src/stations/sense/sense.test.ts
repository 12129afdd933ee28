import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import { blankDesign } from '@torvek/core/document';
import { harnessOf, type BmsMapResult } from '@torvek/core/monitoring';
import { catalogueOf } from '@torvek/core/parts';
import type { Entry } from '@torvek/core/record';
import Papa from 'papaparse';
import { libraryBus } from '../../../../demo/library-bus';
import { orchardTruck } from '../../../../demo/orchard-truck';
import { ladderDoubt, readLadder, readList } from '../prove/ladder';
import { readHarness } from './harness/harness-file';
import { cutRows, harnessRows, harnessTable } from './harness/harness';
import { rungs, typedTaps, verdictOf } from './ladder/picture';
import { limitJson, limitRows, limitTable } from './limits/limits';
import { huntView, sayHunt } from './power/hunt-view';
import { orderRows } from './power/order';
import { sensePanelOf, sensePanelOfRule } from './panels';
import { schoolOptions } from './topology/options';

const truck = orchardTruck.design;
const map = evaluate(truck).runs['monitoring.map:string-1']!.result as BmsMapResult;

describe('ways to watch', () => {
  test('of the truck: one unit for all leads 37 taps and two wires a sensor through the wall, boards none', () => {
    const [central, split, modules, donor] = schoolOptions(truck, catalogueOf('unit'))!;
    expect(central!.row).toMatchObject({
      units: 1,
      senseWiresThroughWalls: 37 + 2 * 6,
      channelsSpare: 60 - 36,
    });
    expect(split!.row).toMatchObject({ units: 2, senseWiresThroughWalls: 0, lvWiresThroughWalls: 4 });
    expect(modules!.row.units).toBe(36);
    expect([donor!.row.units, donor!.unit, donor!.levelH]).toEqual([36, null, null]);
    // One per cent of 160 Ah through half an ampere.
    expect(central!.levelH).toBeCloseTo(1.6 / 0.5, 9);
    expect(schoolOptions(blankDesign(), catalogueOf('unit'))).toBeNull();
  });
  test('of the bus: a board for each module is the smallest that holds its twelve cells', () => {
    const modules = schoolOptions(libraryBus.design, catalogueOf('unit'))![2]!;
    expect(modules.unit!.data.channels).toBe(12);
    expect(modules.row).toMatchObject({ units: 16, channelsSpare: 0 });
  });
});

describe('the harness as rows', () => {
  const rows = harnessRows(harnessOf(map.boards), truck, 'string-1');
  test('labels, colours that differ from their neighbours’, and the fuse of the leads', () => {
    expect(rows[1]).toMatchObject({
      label: 'Board 1-2',
      from: 'C01, tap 1',
      pin: 2,
      fuseA: 1,
      lengthM: null,
    });
    rows.slice(1).forEach((row, i) => {
      if (row.board === rows[i]!.board) expect(row.colour).not.toBe(rows[i]!.colour);
    });
  });
  test('what is said of a wire by its id overrides it', () => {
    const said = harnessRows(
      harnessOf(map.boards),
      { ...truck, senseWires: { 'board-2/3': { tag: 'x', colour: 'gold', lengthM: 0.45, fuseA: 0.5 } } },
      'string-1',
    );
    expect(said.find(({ id }) => id === 'board-2/3')).toMatchObject({
      colour: 'gold',
      lengthM: 0.45,
      fuseA: 0.5,
      pin: 4,
    });
    expect(cutRows(said)).toContainEqual({
      board: 'Board 2',
      pieces: 13,
      'metres known': 0.45,
      'without a length': 12,
    });
  });
  test('as built, from a file: a wrong pin is named and not taken, what ends right brings its length', () => {
    const made = harnessTable(rows).map((row): Record<string, string | number | null> => ({
      ...row,
      'length, m': '0.6',
      colour: 'violet',
    }));
    made[4]!.pin = 6;
    made[5]!['length, m'] = 'long';
    made[6]!.from = 'C07, tap 2';
    const extra = { ...made[0]!, label: 'B-99' };
    const csv = Papa.unparse([...made.slice(0, 30), extra, made[3]!]);
    const read = readHarness(csv, rows);
    expect(read.miswired).toEqual([
      `${rows[4]!.label}: pin 6, the map says 5.`,
      `${rows[6]!.label}: from C07, tap 2, the map says ${rows[6]!.from}.`,
    ]);
    expect(read.problems).toEqual([
      expect.stringMatching(/^Line 7, length, m: long /),
      'Line 32, label: B-99 is no wire of this map.',
      `Line 33, label: ${rows[3]!.label} stands twice.`,
    ]);
    expect(read.absent).toEqual(rows.slice(30).map(({ label }) => label));
    expect(read.changes).toHaveLength(27);
    expect(read.changes[0]).toEqual({
      id: rows[0]!.id,
      label: rows[0]!.label,
      change: { colour: 'violet', lengthM: 0.6, fuseA: 1 },
    });
    expect(readHarness('wire,pin\n1,2', rows).problems).toEqual([
      'The file has no column label, from, board.',
    ]);
  });
  test('as a file', () => {
    expect(harnessTable(rows)).toHaveLength(39);
    expect(harnessTable(rows)[0]).toEqual({
      wire: 1,
      label: 'Board 1-1',
      from: 'C01, tap 0 (reference)',
      board: 'Board 1',
      pin: 1,
      colour: 'white',
      'length, m': '',
      'fuse, A': 1,
    });
  });
});

describe('a ladder as it is typed', () => {
  const shape = { cells: 4, tied: 1, minV: 2.5, maxV: 3.65 };
  test('grows with each reading; a comma is a decimal, V may stand behind', () => {
    expect(typedTaps('3,29\n6.58 V\n9.87')).toEqual({ taps: [3.29, 6.58, 9.87], problem: null });
    expect(rungs([3.29, 6.58], shape).map(({ state }) => state)).toEqual([
      'good',
      'good',
      'waits',
      'waits',
      'waits',
    ]);
    expect(rungs([3.29, 2.1, 9.87, 13.16, 13.15], shape).map(({ state }) => state)).toEqual([
      'good',
      'wrong',
      'wrong',
      'good',
      'tie',
    ]);
    expect(typedTaps('3.29 x').problem).toContain('pin 3: x');
  });
  test('is judged once all are there', () => {
    expect(verdictOf([3.29, 6.58], shape)).toBeNull();
    expect(verdictOf([3.29, 6.58, 9.87, 13.16, 13.16], shape)).toMatchObject({
      ok: true,
      doNotConnect: false,
    });
    expect(verdictOf([6.58, 3.29, 9.87, 13.16, 13.16], shape)).toMatchObject({
      faults: [{ kind: 'swapped', taps: [1, 2] }],
      doNotConnect: true,
    });
    expect(verdictOf([3.29, 6.58, 9.87, 13.16, 0.1], shape)!.faults).toEqual([
      { kind: 'missing-tie', taps: [5] },
    ]);
  });
  test('in Prove it is read whole, and a wrong range is asked about', () => {
    expect(readLadder('3.3 6.6 9.9', 3)).toEqual({ ok: true, taps: [3.3, 6.6, 9.9] });
    expect(readLadder('3.3 6.6', 3)).toEqual({
      ok: false,
      message: '3 readings are expected, from pin 2 to 4; 2 are here',
    });
    expect(readLadder('3.3 six 9.9', 3)).toMatchObject({ ok: false });
    expect(ladderDoubt([3.3, 6.6, 9.9], 3, 2.5, 3.65)).toBeNull();
    expect(ladderDoubt([0.33, 0.66, 0.99], 3, 2.5, 3.65)).toContain('a tenth');
    expect(ladderDoubt([33, 66, 99], 3, 2.5, 3.65)).toContain('ten times');
    expect(ladderDoubt([-3.3, -6.6, -9.9], 3, 2.5, 3.65)).toContain('other way round');
    expect(ladderDoubt([3.3, 6.6, 0], 3, 2.5, 3.65)).toBeNull();
  });
});

describe('limits', () => {
  const rows = limitRows(libraryBus.design)!;
  test('by temperature: nothing below where cells are charged from, nothing above what they stand', () => {
    const at = (c: number) => rows.find(({ temperatureC }) => temperatureC === c)!;
    expect(at(0)).toMatchObject({ chargeA: 0, dischargeA: 360 });
    expect(at(10).chargeA).toBeCloseTo(2 * (35 + 0.5 * 45), 9);
    expect(at(25).chargeA).toBe(234);
    expect(at(50)).toMatchObject({ chargeA: 0, dischargeA: 0 });
    expect(limitRows(blankDesign())).toBeNull();
  });
  test('as files', () => {
    expect(limitTable(rows)[4]).toEqual({
      'temperature, °C': 10,
      'charge at most, A': 115,
      'discharge at most, A': 360,
      by: 'charging current over temperature, of the maker',
    });
    expect(limitJson('Bus', libraryBus.design, rows).cell).toEqual({
      cutAboveV: 4.18,
      warnAboveV: 4.15,
      balanceFromV: 4.08,
      warnBelowV: 3.12,
      cutBelowV: 3.05,
      spreadMv: 30,
    });
  });
});

test('an address, a field and a rule each open their panel', () => {
  expect(sensePanelOf({})).toBe('topology');
  expect(sensePanelOf({ at: 'boards.b.takes' })).toBe('map');
  expect(sensePanelOf({ at: 'sensing.mayStraddle' })).toBe('map');
  expect(sensePanelOf({ at: 'sensing.donorAh' })).toBe('topology');
  expect(sensePanelOf({ at: 'senseWires.x.colour' })).toBe('harness');
  expect(sensePanelOfRule('monitoring.over-break')).toBe('map');
  expect(sensePanelOfRule('monitoring.donor-misreports')).toBe('topology');
  expect(sensePanelOfRule('ladder-check.wiring')).toBe('ladder');
  expect(sensePanelOfRule('monitoring.unusual', ['board-1'])).toBe('map');
  expect(sensePanelOfRule('monitoring.unusual', ['current-1'])).toBe('power');
});

describe('first power-up', () => {
  test('the order says what hangs together, and how high that is', () => {
    const rows = orderRows(truck, 'string-1', map.boards, 60);
    expect(rows.map(({ what }) => what)).toEqual([
      'Ladder of Board 1, then its plug',
      'Ladder of Board 3, then its plug',
      'Link 12 in, between C12 and C13',
      'Service disconnect in, between C18 and C19',
      'Ladder of Board 2, then its plug',
      'Link 24 in, between C24 and C25',
    ]);
    expect(rows[0]).toMatchObject({ segment: 'C01 to C12', above: false });
    expect(rows[0]!.segmentV).toBeCloseTo(12 * 3.65, 9);
    expect(rows[2]).toMatchObject({ segment: 'C01 to C18', above: true });
    expect(rows[2]!.note).toContain('65.7 V hang together');
    expect(rows[4]!.note).toBe('waited for the disconnect');
  });

  test('the hunt that was begun last counts; what comes next is said in words', () => {
    const tried = (seq: number, begins: boolean, out: string[], starts: number, restarts: number) =>
      ({ seq, body: { kind: 'hunt-try', begins, out, names: out, starts, restarts } }) as unknown as Entry;
    const old = [tried(1, true, [], 3, 3), tried(2, false, ['observer'], 3, 0)];
    expect(huntView(truck, old).now).toMatchObject({ state: 'found', left: ['observer'] });
    expect(huntView(truck, old).says).toContain('the laptop or tester');
    const anew = huntView(truck, [...old, tried(3, true, [], 2, 0)]);
    expect(anew.tries).toHaveLength(1);
    expect(anew.says).toBe('It did not come: 1 more cold starts before it counts as gone.');
    expect(huntView(truck, []).says).toContain('First as it stands');
    const five = { ...truck, sensing: { ...truck.sensing, coldStarts: 5 } };
    expect(huntView(five, []).now.startsDue).toBe(5);
    const none = {
      state: 'none-left',
      left: [],
      next: null,
      startsNeeded: 3,
      startsDue: 0,
      restartFraction: 1,
    } as const;
    expect(sayHunt({ ...none, left: [] }, [])).toContain('two causes');
  });

  test('its rules and fields lead to it', () => {
    expect(sensePanelOfRule('monitoring.end-at-link')).toBe('power');
    expect(sensePanelOfRule('monitoring.current-range')).toBe('power');
    expect(sensePanelOf({ at: 'sensing.spinA' })).toBe('power');
    expect(sensePanelOf({ at: 'currentSensors.x.rangeA' })).toBe('power');
  });
});

test('a list of readings is read in its order; what is missing is named', () => {
  const items = ['T1', 'T2', 'T3'];
  expect(readList('18\n19,5\n20 °C', items, '°C')).toEqual({ ok: true, values: [18, 19.5, 20] });
  expect(readList('18\n19', items, '°C')).toEqual({ ok: false, message: 'T3 is still to be read' });
  expect(readList('18\nx\n2', items, '°C')).toMatchObject({
    ok: false,
    message: expect.stringContaining('T2: x'),
  });
  expect(readList('1\n2\n3\n4', items, '°C')).toMatchObject({
    ok: false,
    message: expect.stringContaining('4 are here'),
  });
});
