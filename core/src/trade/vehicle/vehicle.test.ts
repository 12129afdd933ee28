import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankDesign, type Design } from '../../model/document';
import { catalogueOf } from '../../model/parts';
import type { FigureId } from '../../ground/figure';
import { evaluate } from '../../whole/design';
import { axleLoads, massBlocks, range, type RoadLoadInput } from '.';

const change = fc.record({
  name: fc.constant('mass'),
  massKg: fc.double({ min: -50, max: 300, noNaN: true }),
  xM: fc.double({ min: -6, max: 2, noNaN: true }),
});

describe('axle loads', () => {
  test('axles carry the whole mass, and moments about both axles balance', () => {
    fc.assert(
      fc.property(
        fc.array(change, { maxLength: 12 }),
        fc.double({ min: 1.5, max: 6, noNaN: true }),
        (changes, wheelbaseM) => {
          const { result } = axleLoads.calculate({ wheelbaseM, frontKg: 1000, rearKg: 1400, changes });
          const total = changes.reduce((sum, { massKg }) => sum + massKg, 2400);
          const moment = changes.reduce((sum, { massKg, xM }) => sum + massKg * -xM, 1400 * wheelbaseM);
          expect(result.frontKg + result.rearKg).toBeCloseTo(total, 8);
          expect(result.rearKg * wheelbaseM).toBeCloseTo(moment, 6);
          expect(result.shiftPoints).toBeCloseTo((result.frontKg / total - 1000 / 2400) * 100, 8);
        },
      ),
    );
  });
  test('taking a mass out where it was put in changes nothing', () => {
    const { result } = axleLoads.calculate({
      wheelbaseM: 2.5,
      frontKg: 500,
      rearKg: 500,
      changes: [
        { name: 'in', massKg: 80, xM: -1.3 },
        { name: 'out', massKg: -80, xM: -1.3 },
      ],
    });
    expect(result).toMatchObject({ frontKg: 500, rearKg: 500, shiftPoints: 0 });
  });
  test('an axle that would lift is a Stop that names it', () => {
    const { findings } = axleLoads.calculate({
      wheelbaseM: 2,
      frontKg: 100,
      rearKg: 100,
      changes: [{ name: 'tail', massKg: 300, xM: -4 }],
    });
    expect(findings.map(({ rule, message }) => [rule.grade, message])).toEqual([
      ['stop', 'The front axle load comes to -200 kg.'],
    ]);
  });
});

const road: RoadLoadInput = {
  method: 'road-load',
  usableEnergyKWh: 40,
  massKg: 1500,
  speedKmH: 80,
  rollingCoefficient: 0.011,
  dragAreaM2: 0.75,
  airDensityKgM3: 1.2,
  gradeFraction: 0,
  drivetrainEfficiency: 0.86,
  accessoriesW: 500,
};

describe('range', () => {
  test('on the level: rolling and drag over the efficiency, by hand', () => {
    const v = 80 / 3.6;
    const power = ((1500 * 9.80665 * 0.011 + 0.5 * 1.2 * 0.75 * v * v) * v) / 0.86 + 500;
    const { result } = range.calculate(road);
    expect(result.batteryPowerW).toBeCloseTo(power, 8);
    expect(result.rangeKm).toBeCloseTo(40_000 / (power / 80), 8);
  });
  test('more mass, grade or drag never goes further', () => {
    const more = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        more,
        fc.constantFrom('massKg', 'gradeFraction', 'dragAreaM2', 'accessoriesW'),
        (share, field) => {
          const step = { massKg: 3000, gradeFraction: 0.2, dragAreaM2: 2, accessoriesW: 4000 }[field] * share;
          const worse = range.calculate({ ...road, [field]: road[field] + step }).result.rangeKm!;
          expect(worse).toBeLessThanOrEqual(range.calculate(road).result.rangeKm! * (1 + 1e-12));
        },
      ),
    );
  });
  test('downhill the wheels charge through the efficiency, and a range may not exist', () => {
    const { result, findings, working } = range.calculate({ ...road, gradeFraction: -0.06, accessoriesW: 0 });
    expect(result.rangeKm).toBeNull();
    expect(findings.map(({ rule }) => rule.id)).toEqual(['range.no-consumption']);
    expect(working.find(({ symbol }) => symbol === 'P')?.formula).toBe('F·v·η + P_acc');
  });
  test('each school refuses the other’s fields by name', () => {
    const parsed = range.parse({ method: 'mass-rule', usableEnergyKWh: 40, massKg: 1500, speedKmH: 80 });
    expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['speedKmH']);
    const missing = range.parse({ method: 'road-load', usableEnergyKWh: 40, massKg: 1500 });
    expect(missing.ok ? [] : missing.issues.map(({ path }) => path).sort()).toEqual([
      'accessoriesW',
      'dragAreaM2',
      'drivetrainEfficiency',
      'rollingCoefficient',
      'speedKmH',
    ]);
    const other = range.parse({ method: 'guess', usableEnergyKWh: 40, massKg: 1500 });
    expect(other.ok ? [] : other.issues.map(({ path }) => path)).toEqual(['method']);
  });
  test('defaults are filled and named', () => {
    const parsed = range.parse({ method: 'mass-rule', usableEnergyKWh: 40, massKg: 1500 });
    expect(parsed).toMatchObject({ ok: true, input: { whPerKmPerKg: 0.14 }, defaulted: ['whPerKmPerKg'] });
  });
});

describe('masses of a design', () => {
  const module = catalogueOf('module')[0]!;
  const design: Design = {
    ...blankDesign(),
    parts: { 'brackwater-m12@1': module },
    boxes: { a: { tag: 'A', xM: -1, emptyKg: 20 }, b: { tag: 'B' }, c: { tag: 'C' } },
    modules: {
      m1: { tag: 'M1', part: 'brackwater-m12@1', box: 'a' },
      m2: { tag: 'M2', part: 'brackwater-m12@1', box: 'a' },
      m3: { tag: 'M3', part: 'brackwater-m12@1' },
    },
    masses: { engine: { tag: 'Engine', change: 'out', massKg: 180, xM: 0.2 } },
  };
  test('a box weighs its modules and itself; an empty one without mass weighs nothing', () => {
    const { blocks, gaps, placeGaps } = massBlocks(design);
    expect(blocks.map(({ name, massKg }) => [name, massKg])).toEqual([
      ['Engine', -180],
      ['A', 20 + 2 * 31.5],
      ['M3', 31.5],
    ]);
    expect(gaps).toEqual([]);
    // A module in no box weighs something and stands nowhere.
    expect(placeGaps.map((gap) => 'path' in gap && gap.path)).toEqual(['modules.m3.box']);
  });
  test('what is missing or has a sign of its own is a gap at its field', () => {
    const { gaps, placeGaps } = massBlocks({
      ...design,
      boxes: { ...design.boxes, b: { tag: 'B', emptyKg: 10 } },
      masses: { x: { tag: 'X', change: 'in' }, y: { tag: 'Y', change: 'out', massKg: -5, xM: 0 } },
    });
    expect(gaps.map((gap) => 'path' in gap && gap.path)).toEqual(['masses.x.massKg', 'masses.y.massKg']);
    expect(placeGaps.map((gap) => 'path' in gap && gap.path)).toEqual([
      'masses.x.xM',
      'boxes.b.xM',
      'modules.m3.box',
    ]);
  });

  const hose = catalogueOf('hose')[0]!;
  const plate = catalogueOf('plate')[0]!;
  const looped: Design = {
    ...design,
    modules: { m1: design.modules.m1!, m2: design.modules.m2! },
    parts: { ...design.parts, 'hose@1': hose, 'plate@1': plate },
    vehicle: { wheelbaseM: 2.5, frontKg: 600, rearKg: 500, grossLimitKg: 1400 },
    loops: { l: { tag: 'Loop', tank: 'j1' } },
    joins: { j1: { tag: 'One', loop: 'l', xM: 1, zM: 0.5 }, j2: { tag: 'Two', loop: 'l', xM: 0 } },
    plumbing: {
      h: { tag: 'Hose', loop: 'l', kind: 'hose', hose: 'hose@1', lengthM: 4, from: 'j1', to: 'j2' },
      p: { tag: 'Plate', loop: 'l', kind: 'plate', plate: 'plate@1', from: 'j2', to: 'j2', modules: ['m1'] },
    },
  };
  const loopOf = (of: Design) => massBlocks(of).blocks.find(({ kind }) => kind === 'loop');

  test('a loop weighs its parts and the coolant in them, in the middle of both', () => {
    const boreL = 4000 * Math.PI * (hose.data.innerMm / 2000) ** 2;
    const hoseKg = 4 * hose.data.massKgPerM + boreL * 1.076;
    const plateKg = plate.data.massKg + plate.data.volumeL * 1.076;
    const block = loopOf(looped)!;
    expect(block.massKg).toBeCloseTo(hoseKg + plateKg, 9);
    expect(block.xM).toBeCloseTo((hoseKg * 0.5 + plateKg * 0) / (hoseKg + plateKg), 9);
    expect(massBlocks(looped).uncounted).toEqual([]);
    // As filled and read: the same parts, 10 L in them.
    const filled = loopOf({ ...looped, loops: { l: { tag: 'Loop', volumeL: 10 } } })!;
    expect(filled.massKg).toBeCloseTo(4 * hose.data.massKgPerM + plate.data.massKg + 10.76, 9);
    // Nothing but what was filled: it lies in the tank.
    const bare = { ...looped, plumbing: {}, loops: { l: { tag: 'Loop', tank: 'j1', volumeL: 2 } } };
    expect(loopOf(bare)).toMatchObject({ massKg: 2.152, xM: 1, zM: 0.5 });
    expect(loopOf({ ...looped, plumbing: {} })).toBeUndefined();
  });

  test('a plate without places at its joins stands where its modules are; without those the loads wait, the mass does not', () => {
    const nowhere = { ...looped, joins: { j1: { tag: 'One', loop: 'l' }, j2: { tag: 'Two', loop: 'l' } } };
    expect(loopOf(nowhere)!.xM).toBe(-1);
    const { plumbing } = nowhere;
    const lost = { ...nowhere, plumbing: { h: plumbing!.h! } };
    expect(loopOf(lost)!.xM).toBeUndefined();
    const { figures, checks } = evaluate(lost);
    const gapsOf = (name: string) => figures[`vehicle.axles:vehicle:${name}` as FigureId]!;
    expect(gapsOf('frontKg')).toMatchObject({ value: null, gaps: [{ path: 'joins.j1.xM' }] });
    const massKg = 1100 - 180 + 83 + loopOf(lost)!.massKg;
    expect(gapsOf('totalKg').value).toBeCloseTo(massKg, 9);
    expect(figures['vehicle.masses:vehicle:changeKg']!.value).toBeCloseTo(massKg - 1100, 9);
    const stateOf = (rule: string, of = checks) => of.find((one) => one.rule.id === rule)!.state;
    expect(stateOf('vehicle.gross-limit')).toBe('clear');
    expect(stateOf('vehicle.axle-shift')).toBe('not-checked');
  });

  test('what is not known yet is named, and a limit that is kept without it is not checked', () => {
    const open: Design = {
      ...looped,
      plumbing: { ...looped.plumbing, h: { tag: 'Hose', loop: 'l', kind: 'hose', from: 'j1', to: 'j2' } },
      runs: { r: { tag: 'Run 1' } },
    };
    expect(massBlocks(open).uncounted.map(({ label }) => label)).toEqual(['cables of Run 1', 'mass of Hose']);
    const gross = (of: Design) => evaluate(of).checks.find((one) => one.rule.id === 'vehicle.gross-limit')!;
    expect(gross(open)).toMatchObject({
      state: 'not-checked',
      gaps: [{ path: 'runs.r.points' }, { path: 'plumbing.h.hose' }],
    });
    // More than the limit already is too much whatever comes.
    expect(gross({ ...open, vehicle: { ...open.vehicle, grossLimitKg: 900 } }).state).toBe('raised');
  });
});
