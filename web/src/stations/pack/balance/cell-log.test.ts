import { describe, expect, test } from '@jest/globals';
import { readCellLog, type LogChoice } from './cell-log';

const now = Date.parse('2026-11-18T10:00:00Z');
const hour = 3_600_000;
const ids: Record<string, string> = { c01: 'module-1/cell-1', c02: 'module-2/cell-1' };
const cells = ['module-1/cell-1', 'module-2/cell-1', 'module-3/cell-1', 'module-3/cell-2'];
const setting = {
  idOf: (tag: string) => ids[tag.toLowerCase()],
  nth: (index: number, of: string | null) =>
    cells.filter((cell) => of === null || cell.startsWith(`${of}/`))[index],
  nowMs: now,
  localMs: (year: number, month: number, day: number, h: number, min: number, s: number) =>
    Date.UTC(year, month - 1, day, h, min, s),
};
const read = (text: string, asked: Partial<LogChoice> = {}, begin = '') => {
  const guess = readCellLog(text, setting, null, begin);
  return Object.keys(asked).length === 0
    ? guess
    : readCellLog(text, setting, { ...guess.choice, ...asked }, begin);
};
const samples = (text: string, asked?: Partial<LogChoice>, begin?: string) => {
  const log = read(text, asked, begin);
  if (log.problems.length > 0) throw new Error(log.problems.join('; '));
  return Object.fromEntries(log.cells.map((cell) => [cell.id, cell.samples]));
};

describe('what monitors and loggers put out', () => {
  test('a line for each reading, with times, in any order', () => {
    expect(
      samples(
        'cell,time,V\nC01,2026-11-18T09:00:00Z,2.91\nC02,2026-11-18T09:00:00Z,2.9\nC01,2026-11-18T08:00:00Z,2.9\n',
      ),
    ).toEqual({
      'module-1/cell-1': [
        [now - 2 * hour, 2.9],
        [now - hour, 2.91],
      ],
      'module-2/cell-1': [[now - hour, 2.9]],
    });
  });

  test('a column for each cell; units and a decimal comma are read, gaps are passed over', () => {
    expect(samples('time;C01;C02\n2026-11-18T09:00:00Z;2,91;\n2026-11-18T09:30:00Z;2911 mV;2,9\n')).toEqual({
      'module-1/cell-1': [
        [now - hour, 2.91],
        [now - hour / 2, 2.911],
      ],
      'module-2/cell-1': [[now - hour / 2, 2.9]],
    });
  });

  test('cell and volts alone were read now', () => {
    expect(samples('C01\t2.91\nC02\t2.90')).toEqual({
      'module-1/cell-1': [[now, 2.91]],
      'module-2/cell-1': [[now, 2.9]],
    });
  });

  test('numbers count the cells of the pack, from one or from nought, or those of a module', () => {
    const text = 'No.;Voltage (mV)\n1;3301\n3;3303\n';
    expect(samples(text)).toEqual({ 'module-1/cell-1': [[now, 3.301]], 'module-3/cell-1': [[now, 3.303]] });
    expect(samples('1\t3.301\n2\t3.302')).toEqual({
      'module-1/cell-1': [[now, 3.301]],
      'module-2/cell-1': [[now, 3.302]],
    });
    const log = read('Cell,V\n0,3.3\n1,3.31\n');
    expect([log.choice.firstNumber, log.numbered, log.cells.map(({ id }) => id)]).toEqual([
      0,
      true,
      ['module-1/cell-1', 'module-2/cell-1'],
    ]);
    expect(samples('Cell,V\n1,3.3\n2,3.31\n', { of: 'module-3' })).toEqual({
      'module-3/cell-1': [[now, 3.3]],
      'module-3/cell-2': [[now, 3.31]],
    });
    expect(read(text, { of: 'module-1' }).problems).toEqual(['line 3: “3” is no cell of this design']);
  });

  test('columns by number behind a few lines of a logger’s own; what is no cell is skipped', () => {
    const log = read(
      'Logger 7;serial 22\nInterval;10 s\n\nTime;Cell 01;Cell 02 (V);Pack V;Temp\n2026-11-18 09:00:00;3,301;3,302;6,6;21\n',
    );
    expect(log.choice.columns).toEqual(['time', 'each', 'each', 'skip', 'skip']);
    expect(log.cells).toEqual([
      { id: 'module-1/cell-1', samples: [[now - hour, 3.301]] },
      { id: 'module-2/cell-1', samples: [[now - hour, 3.302]] },
    ]);
    expect(log.head[1]).toBe('Cell 01');
  });

  test('day and month by what can only be one of them; else somebody says', () => {
    const dated = (first: string, second = first) => `time;C01\n${first} 08:00;2.9\n${second} 09:30;2.91\n`;
    expect(samples(dated('17.11.2026', '18.11.2026'))['module-1/cell-1']).toEqual([
      [Date.UTC(2026, 10, 17, 8), 2.9],
      [Date.UTC(2026, 10, 18, 9, 30), 2.91],
    ]);
    expect(read(dated('11/17/2026')).choice.dates).toBe('month first');
    const either = read(dated('05/11/26'));
    expect([either.eitherOrder, either.choice.dates]).toEqual([true, 'day first']);
    expect(either.cells[0]!.samples[0]![0]).toBe(Date.UTC(2026, 10, 5, 8));
    expect(samples(dated('05/11/26'), { dates: 'month first' })['module-1/cell-1']![0]![0]).toBe(
      Date.UTC(2026, 4, 11, 8),
    );
    expect(read(dated('17.11.2026')).eitherOrder).toBe(false);
    expect(read(dated('31.02.2026')).problems[0]).toContain('“31.02.2026 08:00” is no time');
  });

  test('a day in a column of its own, and half days', () => {
    expect(
      samples('Date,Time,C01\n2026-11-17,08:00:30,2.9\n2026-11-17,1:15 PM,2.91\n')['module-1/cell-1'],
    ).toEqual([
      [Date.UTC(2026, 10, 17, 8, 0, 30), 2.9],
      [Date.UTC(2026, 10, 17, 13, 15), 2.91],
    ]);
  });

  test('a clock without a day asks when it began, and goes on over midnight', () => {
    const text = 'time,C01\n22:00:00,2.9\n23:30:00,2.91\n00:30:00,2.92\n';
    const asked = read(text);
    expect([asked.needsBegin, asked.problems]).toEqual([true, ['its times have no day: say when it began']]);
    expect(read(text, {}, 'noon').problems).toEqual(['“noon” is no day and time']);
    expect(samples(text, {}, '2026-11-16')['module-1/cell-1']).toEqual([
      [Date.UTC(2026, 10, 16, 22), 2.9],
      [Date.UTC(2026, 10, 16, 23, 30), 2.91],
      [Date.UTC(2026, 10, 17, 0, 30), 2.92],
    ]);
  });

  test('times since the beginning, in the unit of their heading', () => {
    const text = (unit: string) => `Elapsed (${unit}),C01\n0,2.9\n90,2.91\n`;
    const begin = '2026-11-17 08:00';
    const last = (unit: string) =>
      samples(text(unit), {}, begin)['module-1/cell-1']![1]![0] - Date.UTC(2026, 10, 17, 8);
    expect([last('s'), last('min')]).toEqual([90_000, 90 * 60_000]);
    expect(read('hours,C01\n0,2.9\n1.5,2.91\n', {}, begin).choice.elapsed).toBe('h');
    expect(samples(text('s'), { elapsed: 'min' }, begin)['module-1/cell-1']![1]![0]).toBe(
      Date.UTC(2026, 10, 17, 9, 30),
    );
  });

  test('what somebody chose for a column holds, as long as the file has as many', () => {
    const text = 'a,b,c\nC01,2.9,7\nC02,2.91,8\n';
    expect(read(text).problems[0]).toBe('no column names the cells');
    expect(samples(text, { columns: ['cell', 'volts', 'skip'] })).toEqual({
      'module-1/cell-1': [[now, 2.9]],
      'module-2/cell-1': [[now, 2.91]],
    });
    expect(read(text, { columns: ['cell', 'volts'] }).choice.columns).toHaveLength(3);
  });

  test.each([
    ['', 'no column names the cells'],
    ['cell,V\nC09,2.9', 'line 2: “C09” is no cell'],
    ['cell,V\nC01,x', 'line 2: “x”'],
    ['cell,V\nC01,41', 'line 2: 41 V is no cell’s voltage'],
    ['cell,time,V\nC01,noon,2.9', 'line 2: “noon” is no time'],
    ['cell,time,V\nC01,2026-11-18T12:00:00Z,2.9', 'has not come yet'],
    ['cell,V\nC01,', 'holds no voltage'],
    ['cell,time\nC01,2026-11-18T09:00:00Z', 'no column holds the voltages'],
    ['a,b,c\n1,2,3', 'no column'],
  ])('%j is refused', (text, message) => {
    expect(read(text).problems[0]).toContain(message);
  });

  test('lines are counted as the file has them, blank ones too', () => {
    expect(read('Logger 7\n\ncell,V\n\nC01,2.9\n\nC77,2.9\n').problems).toEqual([
      'line 7: “C77” is no cell of this design',
    ]);
  });

  test('many problems are counted, the first are named', () => {
    const lines = Array.from({ length: 12 }, (_, i) => `X${i},2.9`);
    expect(read(`cell,V\n${lines.join('\n')}`).problems).toEqual([
      ...[2, 3, 4, 5, 6].map((line) => `line ${line}: “X${line - 2}” is no cell of this design`),
      'and 7 more',
    ]);
  });

  test('a long log is averaged: its mean and its ends stay', () => {
    const lines = Array.from(
      { length: 3000 },
      (_, i) => `C01,${new Date(now - (3000 - i) * 60_000).toISOString()},${(2.8 + i * 1e-5).toFixed(5)}`,
    );
    const log = read(`cell,time,V\n${lines.join('\n')}`);
    expect([log.count, log.thinnedFrom]).toEqual([3000, 3000]);
    const own = log.cells[0]!.samples;
    expect(own).toHaveLength(300);
    const mean = own.reduce((sum, [, volts]) => sum + volts, 0) / 300;
    expect(mean).toBeCloseTo(2.8 + 1499.5e-5, 5);
    // Ten readings each: the first mean lies at the middle of the first ten.
    expect(own[0]).toEqual([now - 2_995.5 * 60_000, expect.closeTo(2.800045, 6)]);
  });
});
