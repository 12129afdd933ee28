import { describe, expect, test } from '@jest/globals';
import type { SupplyAnswer } from '@torvek/core/charging';
import { evaluate } from '@torvek/core/design';
import { blankDesign, type Design } from '@torvek/core/document';
import { libraryBus } from '../../../../demo/library-bus';
import { wayOf, waySentence } from './ac/way';
import { schoolsOf } from './budget/schools';
import { ladderScale, ownersOf, storedV } from './ladder/scale';
import { loomTree } from './looms/tree';
import { continuityRows, readWires, wireRows } from './looms/wire-file';
import { csvOf } from '../../parts/csv';
import { chargePanelOf, chargePanelOfRule } from './panels';
import { alike, pointsOf, said, type TimeCurve } from './time/times';

const bus = libraryBus.design;
const evaluated = evaluate(bus);
const answerOf = (id: string) => evaluated.runs[`charge.supply:${id}`]!.result as SupplyAnswer;

describe('the way from the socket', () => {
  test('shows each link in amperes on a phase and marks the narrowest', () => {
    const links = wayOf(bus, 'supply-workshop', answerOf('supply-workshop'), 350);
    expect(
      links.map(({ name, phaseA }) => [name, phaseA === null ? null : Math.round(phaseA * 10) / 10]),
    ).toEqual([
      ['breaker', 32],
      ['pilot', 32],
      ['cable', 32],
      ['inlet', 32],
      ['wires', 20],
      ['charger', 16],
      ['output', expect.any(Number)],
      ['cells', expect.any(Number)],
    ]);
    expect(links.filter(({ narrowest }) => narrowest).map(({ name }) => name)).toEqual(['charger']);
    expect(waySentence('Workshop', links, answerOf('supply-workshop'))).toBe(
      'Workshop: narrowest is charger; 16 A on the busiest phase, 10.4 kW into the pack.',
    );
  });
  test('a link that is not given is shown as such', () => {
    const open = structuredClone(bus);
    delete open.supplies!['supply-depot']!.offersA;
    const links = wayOf(open, 'supply-depot', null, null);
    expect(links.find(({ name }) => name === 'pilot')).toMatchObject({ phaseA: null, said: 'not given' });
    expect(waySentence('Depot', links, null)).toBe('Depot: not computed yet.');
  });
});

describe('the scale of the ladder', () => {
  const volts = [4.2, 4.18, 4.1, 3.1, 3.05, 3];
  const scale = ladderScale(volts, 400);
  test('cuts out the middle that holds nothing, and keeps the order', () => {
    expect(scale.cut).not.toBeNull();
    const heights = volts.map((v) => scale.toY(v));
    expect([...heights].sort((a, b) => a - b)).toEqual(heights);
    expect(scale.toY(4.1)).toBeLessThan(scale.cut!.fromY);
    expect(scale.toY(3.1)).toBeGreaterThan(scale.cut!.toY);
    expect(ladderScale([4.2, 4, 3.8, 3.6], 400).cut).toBeNull();
  });
  test('goes back from a height to the voltage that it shows', () => {
    for (const v of [4.19, 4.12, 3.06, 3.01]) expect(scale.toV(scale.toY(v))).toBeCloseTo(v, 9);
  });
  test('a cell’s threshold lands on millivolts, a pack’s on tenths of a volt', () => {
    expect(storedV({ level: 'cell', voltageV: 4.15, perCellV: 4.15 }, 4.123456)).toBe(4.123);
    expect(storedV({ level: 'pack', voltageV: 396, perCellV: 4.125 }, 4.1301)).toBe(396.5);
  });
  test('owners stand as they come from the top', () => {
    const item = (owner: string, perCellV: number) => ({ owner, perCellV }) as never;
    expect(ownersOf([item('Monitor', 4.15), item('Cells', 4.2), item('Monitor', 3)])).toEqual([
      'Cells',
      'Monitor',
    ]);
  });
});

describe('time', () => {
  const curve: TimeCurve = {
    id: 'a',
    tag: 'A',
    curve: [
      [0, 0.1, 30, 340],
      [60, 0.4, 30, 360],
    ],
  };
  test('points over hours or over charge', () => {
    expect(pointsOf(curve, 'power', 'time')).toEqual([
      [0, 10.2],
      [1, 10.8],
    ]);
    expect(pointsOf(curve, 'charge', 'charge')).toEqual([
      [10, 10],
      [40, 40],
    ]);
  });
  test('like charges share a line', () => {
    const other = { ...curve, id: 'b', tag: 'B' };
    const slow: TimeCurve = {
      ...curve,
      id: 'c',
      tag: 'C',
      curve: [
        [0, 0.1, 15, 340],
        [120, 0.4, 15, 360],
      ],
    };
    expect(alike([curve, slow, other]).map(({ tag }) => tag)).toEqual(['A; B', 'C']);
  });
  test.each([
    [null, '—'],
    [42.4, '42 min'],
    [60, '1 h'],
    [389.4, '6 h 29 min'],
    [59.7, '1 h'],
  ])('%s min: %s', (minutes, text) => expect(said(minutes)).toBe(text));
});

describe('the schools of the low voltage', () => {
  test('say what each takes to be enough for the same loads', () => {
    const [converter, mains] = schoolsOf(bus)!;
    expect(converter!.verdict).toContain('70 A: enough');
    expect(mains!.verdict).toContain('110 Ah end before');
    // Capacity over its usable half for five hours of driving.
    const amps = (110 * 0.5) / mains!.hours!;
    expect(Number(mains!.needed.split(' ')[0])).toBeCloseTo((amps * 5) / 0.5, -1);
    expect(schoolsOf(blankDesign())).toBeNull();
  });
});

describe('looms', () => {
  /** A random tree of ends below a fuse box. */
  const randomLoom = (count: number, seed: number): Design => {
    let state = seed;
    const next = (below: number) => (state = (state * 48271) % 2147483647) % below;
    const design = blankDesign();
    design.ends = { e0: { tag: 'Fuse box', kind: 'fuse box' } };
    design.bundles = {};
    design.wires = {};
    for (let i = 1; i < count; i += 1) {
      design.ends[`e${i}`] = { tag: `End ${i}`, kind: next(3) === 0 ? 'branch' : 'connector' };
      design.bundles[`b${i}`] = { tag: `B${i}`, from: `e${next(i)}`, to: `e${i}`, lengthM: 1 + next(5) };
      design.wires[`w${i}`] = { tag: `W${i}`, from: 'e0', to: `e${i}` };
    }
    return design;
  };
  test('a tree of 200 ends has every outermost end in a row of its own, and draws every bundle', () => {
    for (const seed of [3, 17, 91]) {
      const tree = loomTree(randomLoom(200, seed));
      expect(tree.branches).toHaveLength(199);
      const parents = new Set(tree.branches.map(({ from }) => `${from.x} ${from.y}`));
      const leaves = tree.ends.filter(({ x, y }) => !parents.has(`${x} ${y}`)).map(({ y }) => y);
      const sorted = [...leaves].sort((a, b) => a - b);
      expect(Math.min(...sorted.slice(1).map((y, i) => y - sorted[i]!))).toBeGreaterThanOrEqual(34);
      // No two ends stand on one another, and texts of bundles that begin at one parent stand apart.
      expect(new Set(tree.ends.map(({ x, y }) => `${x} ${y}`)).size).toBe(200);
      const texts = tree.branches.map(({ from, to }) => `${from.x} ${to.y}`);
      expect(new Set(texts).size).toBe(texts.length);
      // Every wire begins at the fuse box: the bundles at it carry all of them together.
      const root = tree.ends.find(({ id }) => id === 'e0')!;
      const first = tree.branches.filter(({ from }) => from.x === root.x && from.y === root.y);
      expect(first.reduce((sum, { wires }) => sum + wires, 0)).toBe(199);
    }
  });
  test('a ring is named, not drawn', () => {
    const ring = randomLoom(4, 5);
    ring.bundles!['ring'] = { tag: 'Ring', from: 'e1', to: 'e3', lengthM: 9 };
    const tree = loomTree(ring);
    expect([tree.branches.length, tree.rings.length]).toEqual([3, 1]);
  });

  const slices = { wires: bus.wires!, ends: bus.ends!, loads: bus.loads!, parts: bus.parts };
  test('wires go out as a file and come in the same', () => {
    const { rows, problems } = readWires(csvOf(wireRows(slices)), slices);
    expect(problems).toEqual([]);
    expect(rows).toHaveLength(18);
    for (const { id, change } of rows) expect(bus.wires![id!]).toMatchObject(change);
    expect(rows.find(({ id }) => id === 'wire-121')!.change.carries).toEqual(['load-dash', 'load-clock']);
    const other = readWires('wire,from,to,feeds\nA,,,Horn of plenty', slices);
    expect(other).toEqual({ rows: [], problems: ['Line 2, feeds: there is no load called Horn of plenty.'] });
  });
  test('a wrong pin, an unknown end and a double name are said by line; the rest is taken', () => {
    const text = [
      'wire,from,pin,to,to pin,part,colour,"fuse, A"',
      '101 Lamps, feed,Fuse box,1,Splice of the lamps,,V2.5,brown,10',
      '"102 Lamp left, dipped",Splice of the lamps,,"Headlamp, left",9,,,',
      'New one,Fuse box,7,Nowhere,,,,',
      'Good one,Fuse box,7,Dashboard,4,V1,red,5',
      'Good one,Fuse box,8,Dashboard,5,,,',
      'Bad fuse,Fuse box,8,Dashboard,5,,,lots',
    ]
      .join('\n')
      .replace('101 Lamps, feed', '"101 Lamps, feed"');
    const { rows, problems } = readWires(text, slices);
    expect(rows.map(({ tag, id }) => [tag, id])).toEqual([
      ['101 Lamps, feed', 'wire-101'],
      ['Good one', null],
    ]);
    expect(rows[1]!.change).toEqual({
      from: 'end-fuses',
      fromPin: 7,
      to: 'end-dash',
      toPin: 4,
      wire: 'marl-v1@1',
      colour: 'red',
      fuseA: 5,
    });
    expect(problems).toHaveLength(4);
    expect(problems[0]).toBe('Line 3, to pin: 9 is beyond the 4 cavities of Headlamp, left.');
    expect(problems[1]).toContain('Line 4, to: there is no end called Nowhere');
    expect(problems[2]).toContain('Line 6, wire: Good one stands twice');
    expect(problems[3]).toContain('Line 7, fuse, A');
    expect(readWires('a,b\n1,2', slices)).toEqual({
      rows: [],
      problems: ['The file has no column wire, from, to.'],
    });
  });
  test('the continuity sheet as rows', () => {
    expect(
      continuityRows([
        {
          kind: 'wire',
          wire: 'w',
          tag: 'W',
          from: 'A',
          fromPin: 1,
          to: 'B',
          toPin: null,
          colour: 'red',
          areaMm2: 1,
          lengthM: 1.23456,
          apartFrom: ['A 2', 'A 3'],
        },
      ]),
    ).toEqual([
      {
        wire: 'W',
        from: 'A',
        pin: 1,
        to: 'B',
        'to pin': '',
        colour: 'red',
        'mm²': 1,
        'length, m': 1.235,
        'apart from': 'A 2; A 3',
      },
    ]);
  });
});

test('an address, a field and a rule each open their panel', () => {
  expect(chargePanelOf({})).toBe('ac');
  expect(chargePanelOf({ panel: 'looms' })).toBe('looms');
  expect(chargePanelOf({ at: 'supplies.s.maxW' })).toBe('dc');
  expect(chargePanelOf({ at: 'supplies.s.offersA' })).toBe('ac');
  expect(chargePanelOf({ at: 'devices.d.endV' })).toBe('ladder');
  expect(chargePanelOf({ at: 'loads.l.powerW' })).toBe('budget');
  expect(chargePanelOf({ at: 'services.s.load' })).toBe('services');
  expect(chargePanelOf({ at: 'wires.w.to' })).toBe('looms');
  expect(chargePanelOfRule('threshold-ladder.order')).toBe('ladder');
  expect(chargePanelOfRule('charge.hot-inlet')).toBe('dc');
  expect(chargePanelOfRule('charge.breaker-trips')).toBe('ac');
  expect(chargePanelOfRule('low-voltage.brake-reserve')).toBe('services');
  expect(chargePanelOfRule('wire-12v.none-fits')).toBe('budget');
  expect(chargePanelOfRule('looms.twist')).toBe('looms');
  const unusual = (subject: string) => chargePanelOfRule('charge.unusual', [subject]);
  expect(['load-1', 'lowVoltage', 'service-1', 'wire-1', 'limits', 'cut-1', 'supply-1'].map(unusual)).toEqual(
    ['budget', 'budget', 'services', 'looms', 'ladder', 'ladder', 'ac'],
  );
});
