import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { typicalOcv } from '../../model/parts';
import { pack, type PackInput } from '.';

const base: PackInput = {
  cell: { ocvTable: typicalOcv.NMC, capacityAh: 60, resistanceOhm: 0.001, minV: 3, maxV: 4.2, massKg: 1.1 },
  series: 96,
  parallel: 2,
  socWindow: [0.1, 0.9],
  linkResistanceOhm: 0.004,
  peakCurrentA: 300,
  socForPeakFraction: 0.5,
};

const result = (change: Partial<PackInput>) => pack.calculate({ ...base, ...change }).result;
const refused = (change: object) => {
  const parsed = pack.parse({ ...base, ...change });
  return parsed.ok ? [] : parsed.issues.map(({ path }) => path);
};

describe('a pack', () => {
  test('windows side by side add up to the whole', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (cut) => {
        const parts =
          result({ socWindow: [0, cut] }).usableEnergyKWh + result({ socWindow: [cut, 1] }).usableEnergyKWh;
        expect(parts).toBeCloseTo(result({}).energyKWh, 9);
      }),
    );
  });
  test('voltage goes with series, capacity with parallel, energy with both, resistance with their ratio', () => {
    const one = result({ series: 1, parallel: 1, linkResistanceOhm: 0 });
    const many = result({ series: 12, parallel: 3, linkResistanceOhm: 0 });
    expect(many.voltageMaxV / one.voltageMaxV).toBeCloseTo(12, 12);
    expect(many.capacityAh / one.capacityAh).toBeCloseTo(3, 12);
    expect(many.energyKWh / one.energyKWh).toBeCloseTo(36, 12);
    expect(many.resistanceOhm / one.resistanceOhm).toBeCloseTo(4, 12);
    expect(many.massKg).toBeCloseTo(36 * 1.1, 12);
  });
  test('links count in the sag of the pack, not in the cell', () => {
    const { sagAtPeakV, cellVoltageAtPeakV } = result({});
    expect(sagAtPeakV).toBeCloseTo((96 * 0.0005 + 0.004) * 300, 12);
    expect(cellVoltageAtPeakV).toBeCloseTo(3.69 - 0.0005 * 300, 12);
  });
  test('without a mass of the cell there is none of the pack', () => {
    const { massKg: _none, ...cell } = base.cell;
    expect(result({ cell }).massKg).toBeNull();
  });
});

describe('what is refused, and by which path', () => {
  const cell = (change: object) => ({ cell: { ...base.cell, ...change } });
  test.each<[string, object, string[]]>([
    ['half a cell', { series: 1.5 }, ['series']],
    ['no strings', { parallel: 0 }, ['parallel']],
    ['a window that falls', { socWindow: [0.9, 0.1] }, ['socWindow']],
    ['a window beyond full', { socWindow: [0.1, 1.2] }, ['socWindow.1']],
    ['a window of three', { socWindow: [0, 0.5, 1] }, ['socWindow']],
    [
      'a table that does not reach 1',
      cell({
        ocvTable: [
          [0, 3],
          [0.9, 4],
        ],
      }),
      ['cell.ocvTable'],
    ],
    [
      'a table whose voltage falls',
      cell({
        ocvTable: [
          [0, 3],
          [0.5, 2.9],
          [1, 4],
        ],
      }),
      ['cell.ocvTable'],
    ],
    [
      'a table out of order',
      cell({
        ocvTable: [
          [0, 3],
          [0.6, 3.5],
          [0.5, 3.6],
          [1, 4],
        ],
      }),
      ['cell.ocvTable'],
    ],
    [
      'a cell of text in the table',
      cell({
        ocvTable: [
          [0, '3'],
          [1, 4],
        ],
      }),
      ['cell.ocvTable.0.1'],
    ],
    ['limits the wrong way round', cell({ minV: 4.3 }), ['cell.maxV']],
    ['a cell that is a list', { cell: [] }, ['cell']],
    ['an unknown field of the cell', cell({ colour: 1 }), ['cell.colour']],
    [
      'no resistance anywhere',
      { ...cell({ resistanceOhm: 0 }), linkResistanceOhm: 0 },
      ['cell.resistanceOhm'],
    ],
  ])('%s', (_name, change, paths) => {
    expect(refused(change)).toEqual(paths);
  });
});
