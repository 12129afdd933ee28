import { describe, expect, test } from '@jest/globals';
import { procedureFor } from '@torvek/core/commissioning';
import { assess, evaluate, liveStateOf, nextOf } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import {
  isSheet,
  makeSheet,
  sheetKinds,
  subjectsOfSheet,
  type Sheet,
  type SheetContext,
  type SheetId,
} from '@torvek/core/sheets';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';

const contextOf = (design: Design): SheetContext => {
  const evaluation = evaluate(design);
  const procedure = procedureFor(design, evaluation);
  return {
    design,
    evaluation,
    procedure,
    assessment: assess(evaluation, procedure, []),
    live: liveStateOf(design, null, []),
  };
};
const bus = contextOf(libraryBus.design);
const truck = contextOf(orchardTruck.design);
const tables = (sheet: Sheet | null) =>
  (sheet?.blocks ?? []).flatMap((block) => (block.kind === 'table' ? [block] : []));
const texts = (sheet: Sheet | null) => JSON.stringify(sheet?.blocks ?? []);

describe('sheets for paper', () => {
  test('every sheet of both demos, and of each of its subjects, says something and leaves no value open', () => {
    for (const context of [bus, truck])
      for (const id of Object.keys(sheetKinds) as SheetId[]) {
        const subjects = subjectsOfSheet(id, context.design).map((one) => one.id);
        for (const subject of subjects.length === 0 ? [null] : subjects) {
          const sheet = makeSheet(id, context, subject)!;
          expect(sheet.title.length).toBeGreaterThan(3);
          expect(sheet.blocks.length).toBeGreaterThan(0);
          expect(texts(sheet)).not.toMatch(/NaN|undefined|null|\[object/);
          for (const { columns, rows } of tables(sheet))
            for (const row of rows) expect(row).toHaveLength(columns.length);
        }
      }
  });

  test('what is not there is no sheet', () => {
    expect(isSheet('circuits')).toBe(true);
    expect(isSheet('toString')).toBe(false);
    expect(makeSheet('box', bus, 'box-none')).toBeNull();
    expect(makeSheet('circuits', bus, 'x')).toBeNull();
    expect(makeSheet('procedure', bus, 'no-gate')).toBeNull();
  });

  test('the circuit schedule has every circuit with the figures that the screen shows', () => {
    const [loads, ends] = tables(makeSheet('circuits', bus, null));
    const ids = Object.keys(libraryBus.design.circuits);
    expect(loads!.rows).toHaveLength(ids.length);
    const main = loads!.rows[0]!;
    const load = bus.evaluation.figures['network.load:circuit-main:rmsA']!.value!;
    expect(Number(main[2])).toBeCloseTo(load, -Math.floor(Math.log10(load)) + 2);
    expect(main[3]).toBe('400');
    expect(ends!.rows.map((row) => row[0])).toEqual(ids.map((id) => libraryBus.design.circuits[id]!.tag));
    expect(ends!.rows.every((row) => !row.includes('—') || row[7] === '—' || row[8] === '—')).toBe(true);
  });

  test('findings go along, with their grade, and so does what was not checked', () => {
    const thin = structuredClone(libraryBus.design);
    thin.circuits['circuit-heater']!.fuse = thin.circuits['circuit-main']!.fuse!;
    expect(texts(makeSheet('circuits', contextOf(thin), null))).toContain(
      '"Stop","The fuse does not protect the cable over the whole fault range"',
    );
    const unsaid = structuredClone(libraryBus.design);
    delete unsaid.circuits['circuit-main']!.ambientC;
    expect(texts(makeSheet('circuits', contextOf(unsaid), null))).toMatch(
      /Not checked: \d+ rules, because .*mbient/,
    );
  });

  test('a blank procedure gives each gate its precautions, its second person and room for every reading', () => {
    const sheet = makeSheet('procedure', truck, 'power-up')!;
    expect(sheet.title).toBe('Procedure: Monitoring powered up');
    expect(texts(sheet)).toContain('second person');
    const [steps, ...readings] = tables(sheet);
    const channels = readings.find(({ rows }) => rows[0]![0] === 'channel 1, cell 1');
    // A watch after plugging: three readings in one row.
    expect(readings[0]!.rows).toEqual([['at once', '', 'after 1 min', '', 'after 10 min', '']]);
    expect(steps!.rows).toHaveLength(truck.procedure.filter(({ gate }) => gate === 'power-up').length);
    expect(steps!.columns.filter(({ handMm }) => handMm !== undefined)).toHaveLength(2);
    // Twelve channels, three side by side.
    expect(channels!.rows).toHaveLength(4);
    expect(channels!.rows[0]).toEqual([
      'channel 1, cell 1',
      '',
      'channel 5, cell 5',
      '',
      'channel 9, cell 9',
      '',
    ]);
    const all = makeSheet('procedure', truck, '')!;
    expect(all.blocks.filter(({ kind }) => kind === 'break').length).toBeGreaterThan(2);
    expect(all.title).toBe('Procedure');
  });

  test('the box sheet lists what sits in a box and every cable through its walls', () => {
    const sheet = makeSheet('box', bus, 'box-nose')!;
    const [inside, walls] = tables(sheet);
    expect(inside!.rows.filter((row) => row[1] === 'module').map((row) => row[2])).toEqual([
      'S1-M01',
      'S1-M02',
      'S2-M01',
      'S2-M02',
    ]);
    expect(inside!.rows[0]![3]).toContain('Brackwater M12-117');
    expect(walls!.rows.map((row) => row[0])).toEqual([
      'cable 2–3 of S1',
      'negative lead of S1',
      'cable 2–3 of S2',
      'negative lead of S2',
    ]);
  });

  test('the torque walk has every joint of its kind with the torque; a kind without one says so', () => {
    const [first] = tables(makeSheet('torques', truck, null));
    const step = truck.procedure.find(({ id }) => id.startsWith('torque:'))!;
    expect(first!.rows.map((row) => row[0])).toEqual(step.walk!.items.map(({ tag }) => tag));
    const unsaid = structuredClone(orchardTruck.design);
    for (const kind of Object.values(unsaid.joints ?? {})) delete kind.torqueNm;
    expect(texts(makeSheet('torques', contextOf(unsaid), null))).toContain('Nothing is tightened by guess');
  });

  test('what is to do names due steps of open gates, and what shut gates wait for', () => {
    const text = texts(makeSheet('to-do', truck, null));
    expect(text).toContain('Due: Parts');
    expect(text).not.toContain('Due: First high voltage');
    const shut = tables(makeSheet('to-do', truck, null)).at(-1)!;
    expect(shut.rows.find(([gate]) => gate === 'Monitoring powered up')).toEqual([
      'Monitoring powered up',
      'Sense harness',
    ]);
  });

  test('the sense sheet has a row for every wire; the ladder one for every threshold, from the top', () => {
    const boards = tables(makeSheet('sense', truck, null));
    expect(boards.slice(0, 3).map(({ rows }) => rows.length)).toEqual([13, 13, 13]);
    const [ladder] = tables(makeSheet('ladder', bus, null));
    const perCell = ladder!.rows.map((row) => Number(row[4]));
    expect(perCell.length).toBeGreaterThan(8);
    expect([...perCell].sort((a, b) => b - a)).toEqual(perCell);
  });
});

test('the bus comes next at what stops it; accepted findings stop nothing, and then what is due', () => {
  const thin = structuredClone(libraryBus.design);
  thin.circuits['circuit-heater']!.fuse = thin.circuits['circuit-main']!.fuse!;
  const stopped = contextOf(thin);
  expect(nextOf(stopped.evaluation, stopped.assessment)).toMatchObject({ station: 'protect' });
  expect(nextOf(bus.evaluation, bus.assessment)).toMatchObject({
    station: 'prove',
    step: bus.procedure[0]!.id,
  });
});
