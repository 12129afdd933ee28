import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { liveMap, pathFaults, type LiveMapResult, type NetworkElement } from '.';

const module = (id: string, a: string, b: string, voltageV = 48): NetworkElement => ({
  id,
  kind: 'module',
  a,
  b,
  voltageV,
  reach: 'box',
});
const wire = (id: string, a: string, b: string, closed = true, kind: NetworkElement['kind'] = 'contactor') =>
  ({ id, kind, a, b, closed, reach: 'box' }) satisfies NetworkElement;
const load = (id: string, a: string, b: string, reach = 'car'): NetworkElement => ({
  id,
  kind: 'load',
  a,
  b,
  reach,
});

function map(elements: NetworkElement[], storedV: Record<string, number> = {}): LiveMapResult {
  const parsed = liveMap.parse({ elements, storedV });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return liveMap.calculate(parsed.input).result;
}

/** A pack of three modules with both mains, a pre-charge resistor over the positive one and an inverter. */
const car = (positive: boolean, negative: boolean, precharge: boolean): NetworkElement[] => [
  module('M1', '0', '1'),
  wire('L1', '1', '2', true, 'link'),
  module('M2', '2', '3'),
  wire('L2', '3', '4', true, 'link'),
  module('M3', '4', '5'),
  wire('K+', '5', 'P', positive),
  wire('K-', '0', 'N', negative),
  wire('KP', '5', 'R', precharge),
  { id: 'RP', kind: 'resistor', a: 'R', b: 'P', reach: 'box' },
  load('INV', 'N', 'P'),
];

describe('what is live', () => {
  test('pre-charging with the negative main open lifts the whole bus to the positive pole', () => {
    const { terminals, reaches } = map(car(false, false, true));
    expect(terminals.N).toEqual({ state: 'live', component: 1, potentialV: 144 });
    expect(reaches.car).toEqual({ maxVoltageV: 0, between: null });
    expect(reaches.box).toEqual({ maxVoltageV: 144, between: ['0', '5'] });
  });

  test('with both mains closed the inverter has the pack’s voltage', () => {
    expect(map(car(true, true, false)).reaches.car).toEqual({ maxVoltageV: 144, between: ['N', 'P'] });
  });

  test('a charged capacitor behind open mains is stored from above 60 V, floating below, and has its own component', () => {
    const above = map(car(false, false, false), { INV: 60.5 });
    expect(above.terminals.P).toEqual({ state: 'stored', component: 2, potentialV: 60.5 });
    expect(above.reaches.car).toEqual({ maxVoltageV: 60.5, between: ['N', 'P'] });
    expect(map(car(false, false, false), { INV: 60 }).terminals.P).toEqual({
      state: 'floating',
      component: null,
      potentialV: null,
    });
  });

  test('stored charge on a bus that hangs on one pole stands on top of it', () => {
    const { terminals } = map(car(false, true, false), { INV: 100 });
    expect([terminals.N!.potentialV, terminals.P!.potentialV]).toEqual([0, 100]);
    const welded = map(car(true, false, false), { INV: 100 }).terminals;
    expect([welded.P!.potentialV, welded.N!.potentialV]).toEqual([144, 44]);
  });

  test('strings of different voltage in parallel are a conflict, named by what closes the loop', () => {
    const elements = [module('A', 'n', 'a', 100), module('B', 'n', 'b', 104.8), wire('K', 'a', 'b')];
    expect(map(elements).conflicts).toEqual([{ element: 'K', differenceV: expect.closeTo(4.8, 9) }]);
    expect(
      map([module('A', 'n', 'a', 100), module('B', 'n', 'b', 101), wire('K', 'a', 'b')]).conflicts,
    ).toEqual([]);
    expect(map([module('A', 'n', 'p', 48), wire('short', 'n', 'p')]).conflicts).toEqual([
      { element: 'short', differenceV: 48 },
    ]);
  });

  test('a link left out makes two components; a reach sees the larger of both', () => {
    const elements = car(false, false, false).map((one) =>
      one.id === 'L1' ? { ...one, closed: false } : one,
    );
    const { terminals, reaches } = map(elements);
    expect([terminals['1']!.component, terminals['2']!.component]).toEqual([1, 2]);
    expect(reaches.box).toEqual({ maxVoltageV: 96, between: ['2', '5'] });
  });

  test('closing a switch never makes a terminal less live', () => {
    const rank = { live: 2, stored: 1, floating: 0 };
    const names = ['a', 'b', 'c', 'd', 'e', 'f'];
    const element = fc.record({
      kind: fc.constantFrom('module', 'contactor', 'fuse', 'resistor', 'load' as const),
      a: fc.constantFrom(...names),
      b: fc.constantFrom(...names),
      closed: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(element, { minLength: 2, maxLength: 12 }), fc.nat(), (drawn, pick) => {
        const elements = drawn.map((one, i): NetworkElement => ({
          ...one,
          id: `e${i}`,
          reach: 'r',
          ...(one.kind === 'module' && { voltageV: 40 }),
        }));
        const at = pick % elements.length;
        const states = (closed: boolean) =>
          map(elements.map((one, i) => (i === at ? { ...one, closed } : one))).terminals;
        const [open, shut] = [states(false), states(true)];
        for (const name of Object.keys(open))
          expect(rank[shut[name]!.state]).toBeGreaterThanOrEqual(rank[open[name]!.state]);
      }),
      { numRuns: 300 },
    );
  });

  test('what is wrong is named by its own path', () => {
    const paths = (elements: unknown, storedV?: unknown) => {
      const parsed = liveMap.parse({ elements, ...(storedV !== undefined && { storedV }) });
      return parsed.ok ? [] : parsed.issues.map(({ path }) => path);
    };
    const [one] = car(true, true, true) as [NetworkElement];
    expect(paths([one, { ...one, a: 'x' }])).toEqual(['elements.1.id']);
    expect(paths([{ ...one, voltageV: undefined }])).toEqual(['elements.0.voltageV']);
    expect(paths([one, { id: 'K', kind: 'contactor', a: '0', b: '1', reach: 'box' }])).toEqual([
      'elements.1.closed',
    ]);
    expect(paths([one], { M1: 40 })).toEqual(['storedV.M1']);
    expect(paths([{ ...one, colour: 1 }])).toEqual(['elements.0.colour']);
  });
});

describe('the fault at the end of a path', () => {
  const ohms = (element: NetworkElement, resistanceOhm: number): NetworkElement => ({
    ...element,
    resistanceOhm,
  });
  const fault = (elements: NetworkElement[], from = 'INV') => {
    const parsed = pathFaults.parse({ elements, from });
    if (!parsed.ok) return parsed.issues.map(({ path }) => path);
    return pathFaults.calculate(parsed.input).result;
  };
  const chain = [
    ohms(module('M1', '0', '1', 50), 0.01),
    ohms(wire('F1', '1', '2', true, 'fuse'), 0.001),
    ohms(module('M2', '2', '3', 50), 0.01),
    ohms(wire('K', '3', 'P', false), 0.002),
    ohms(wire('F2', 'P', 'Q', true, 'fuse'), 0.003),
    load('INV', '0', 'Q'),
  ];

  test('a chain is the sum of its parts; fuses nearest to a module first', () => {
    expect(fault(chain)).toEqual({
      prospectiveA: expect.closeTo(100 / 0.026, 6),
      sourceVoltageV: expect.closeTo(100, 9),
      pathResistanceOhm: expect.closeTo(0.026, 12),
      fuses: ['F1', 'F2'],
      unprotected: false,
    });
  });

  test('a branch that carries nothing of it has a fuse that is not in its path; a resistor across the load neither', () => {
    const more = [
      ...chain,
      ohms(wire('F3', 'P', 'dead end', true, 'fuse'), 0.001),
      ohms({ id: 'bleed', kind: 'resistor', a: '0', b: 'Q', reach: 'car' }, 1000),
    ];
    const result = fault(more) as { fuses: string[]; pathResistanceOhm: number; prospectiveA: number };
    expect(result.fuses).toEqual(['F1', 'F2']);
    expect(result.pathResistanceOhm).toBeCloseTo(1 / (1 / 0.026 + 1 / 1000), 9);
    expect(result.prospectiveA).toBeCloseTo(100 / 0.026, 3);
  });

  test('two strings halve the resistance; the one without a fuse is unprotected', () => {
    const twin = (id: string, fused: boolean) => [
      ohms(module(`${id}1`, 'n', `${id}a`, 100), 0.02),
      ohms(wire(`${id}F`, `${id}a`, 'p', true, fused ? 'fuse' : 'link'), 0.001),
    ];
    const both = fault([...twin('A', true), ...twin('B', true), load('INV', 'n', 'p')]);
    expect(both).toMatchObject({
      pathResistanceOhm: expect.closeTo(0.0105, 12),
      fuses: ['AF', 'BF'],
      unprotected: false,
    });
    const one = fault([...twin('A', true), ...twin('B', false), load('INV', 'n', 'p')]);
    expect(one).toMatchObject({ fuses: ['AF'], unprotected: true });
  });

  test('nothing feeds a load that hangs on nothing', () => {
    const none = {
      prospectiveA: 0,
      sourceVoltageV: 0,
      pathResistanceOhm: null,
      fuses: [],
      unprotected: false,
    };
    expect(fault([...chain, load('H', 'x', 'y')], 'H')).toEqual(none);
    expect(
      fault([ohms({ id: 'R', kind: 'resistor', a: 'x', b: 'y', reach: 'car' }, 5), load('H', 'x', 'y')], 'H'),
    ).toEqual(none);
  });

  test('a path of 0 Ω, a load that is none and a missing resistance are refused by name', () => {
    expect(
      fault([ohms(module('M', 'a', 'b'), 0), ohms(wire('K', 'b', 'c'), 0), load('H', 'a', 'c')], 'H'),
    ).toEqual(['elements']);
    expect(fault(chain, 'M1')).toEqual(['from']);
    expect(fault([module('M', 'a', 'b'), load('H', 'a', 'b')], 'H')).toEqual(['elements.0.resistanceOhm']);
  });

  test('a ladder of parts agrees with the closed form to the last digits, whatever the ratio of its resistances', () => {
    const decade = fc.integer({ min: -6, max: 5 }).map((power) => 10 ** power);
    fc.assert(
      fc.property(fc.array(fc.tuple(decade, decade), { minLength: 1, maxLength: 12 }), (rungs) => {
        const elements: NetworkElement[] = [ohms(module('M', '0', 'n0', 100), 0.01)];
        let volts = 100;
        let ohm = 0.01;
        rungs.forEach(([series, shunt], i) => {
          elements.push(ohms(wire(`s${i}`, `n${i}`, `n${i + 1}`, true, 'cable'), series));
          elements.push(ohms({ id: `r${i}`, kind: 'resistor', a: '0', b: `n${i + 1}`, reach: 'r' }, shunt));
          ohm += series;
          volts *= shunt / (shunt + ohm);
          ohm = 1 / (1 / ohm + 1 / shunt);
        });
        elements.push(load('H', '0', `n${rungs.length}`));
        const result = fault(elements, 'H') as { sourceVoltageV: number; pathResistanceOhm: number | null };
        // A source that rungs have divided away to nothing counts as none.
        if (volts < 1e-6) return;
        expect(result.sourceVoltageV / volts).toBeCloseTo(1, 8);
        expect(result.pathResistanceOhm! / ohm).toBeCloseTo(1, 8);
      }),
    );
  });
});
