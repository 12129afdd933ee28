import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { evaluate } from '../../whole/design/evaluate';
import { blankDesign, edit, mainCircuit, type BondItem, type Design } from '../../model/document';
import { bodiesOf, bondOhm, bondPath, inConduit, mostBondOhm } from '.';

describe('one bond', () => {
  test('half a metre of 16 mm² and its contacts: 0.605 + 1 mΩ', () => {
    expect(bondOhm({ by: 'strap', areaMm2: 16, lengthM: 0.5 })).toBeCloseTo(0.5 * 1.21e-3 + 1e-3, 12);
    expect(bondOhm({ by: 'strap', areaMm2: 16, lengthM: 0.5, contactOhm: 0 })).toBeCloseTo(0.605e-3, 12);
    expect(bondOhm({ by: 'bolted', contactOhm: 0.0004 })).toBe(0.0004);
  });
  test('what is not given, or cannot be, is no resistance', () => {
    const bad: BondItem[] = [
      {},
      { by: 'none' },
      { by: 'not-conductive' },
      { by: 'strap', areaMm2: 16 },
      { by: 'strap', areaMm2: 17, lengthM: 1 },
      { by: 'strap', areaMm2: 16, lengthM: -1 },
      { by: 'strap', areaMm2: 16, lengthM: 1, contactOhm: -1 },
    ];
    expect(bad.map(bondOhm)).toEqual(bad.map(() => null));
  });
});

describe('the way to the chassis', () => {
  test('leads over other bodies, and a circle is told', () => {
    const bonds = { a: { to: 'b' }, b: { to: 'c' }, c: {}, x: { to: 'y' }, y: { to: 'x' } };
    expect(bondPath(bonds, 'a')).toEqual(['a', 'b', 'c']);
    expect(bondPath(bonds, 'c')).toEqual(['c']);
    expect(bondPath(bonds, 'x')).toBeNull();
    expect(bondPath({}, 'alone')).toEqual(['alone']);
  });
});

const base = blankDesign();
base.boxes = { 'box-a': { tag: 'A' }, 'box-b': { tag: 'B' } };
base.devices = { 'device-i': { tag: 'Inverter', kind: 'inverter' } };
const changed = (recipe: (draft: Design) => void) => edit(base, (draft) => recipe(draft as Design))!.design;
const check = (design: Design, rule: string, subject: string) =>
  evaluate(design).checks.find((one) => one.rule.id === rule && one.subjects[0] === subject);

describe('bodies', () => {
  test('are boxes, devices, conduits, and what is added', () => {
    const design = changed((draft) => {
      draft.circuits[mainCircuit]!.stretches = [{ tag: 'under', install: 'steel-conduit' }];
      draft.bonds = { 'bond-1': { tag: 'Bracket' }, 'bond-2': {} };
    });
    const bodies = bodiesOf(design, mainCircuit, () => null);
    expect(bodies.map(({ tag }) => tag)).toEqual(['A', 'B', 'Inverter', 'Conduit of Main', 'Bracket']);
    expect(inConduit({ tag: 'x', role: 'branch' })).toBe(false);
  });

  test('each adds to the way of those behind it, however the bonds are chosen', () => {
    const bond = fc.record({
      by: fc.constant('strap' as const),
      areaMm2: fc.constantFrom(2.5, 6, 16, 35),
      lengthM: fc.double({ min: 0, max: 30, noNaN: true }),
    });
    fc.assert(
      fc.property(bond, bond, (a, b) => {
        const { figures, checks } = evaluate(
          changed((draft) => void (draft.bonds = { 'box-a': { ...a, to: 'box-b' }, 'box-b': b })),
        );
        const value = (id: string) => figures[`bonding.body:${id}:pathOhm`]!.value!;
        expect(value('box-a')).toBeCloseTo(bondOhm(a)! + value('box-b'), 12);
        const raised = checks.find(({ key }) => key === 'bonding.resistance|box-a')!.state === 'raised';
        expect(raised).toBe(value('box-a') > mostBondOhm);
      }),
      { numRuns: 40 },
    );
  });

  test('a way in a circle, or over a body without a bond, is not computed and says so', () => {
    const circle = changed(
      (draft) =>
        void (draft.bonds = {
          'box-a': { by: 'bolted', to: 'box-b' },
          'box-b': { by: 'bolted', to: 'box-a' },
        }),
    );
    expect(check(circle, 'bonding.resistance', 'box-a')).toMatchObject({
      state: 'not-checked',
      gaps: [
        { kind: 'invalid', path: 'bonds.box-a.to', message: 'leads in a circle and never to the chassis' },
      ],
    });
    const over = changed(
      (draft) => void (draft.bonds = { 'box-a': { by: 'bolted', to: 'box-b' }, 'box-b': { by: 'none' } }),
    );
    expect(check(over, 'bonding.resistance', 'box-a')).toMatchObject({ state: 'not-checked' });
    expect(check(over, 'bonding.none', 'box-b')).toMatchObject({ state: 'raised' });
    expect(check(over, 'bonding.none', 'device-i')).toMatchObject({ state: 'not-checked' });
  });

  test('a strap without a section is no strap', () => {
    const design = changed((draft) => {
      draft.bonds = { 'box-a': { by: 'strap', areaMm2: 0, lengthM: 1 } };
    });
    for (const rule of ['bonding.resistance', 'bonding.withstand'])
      expect(check(design, rule, 'box-a')).toMatchObject({ state: 'not-checked' });
    const gaps = check(design, 'bonding.withstand', 'box-a') as { gaps: object[] };
    expect(gaps.gaps).toContainEqual(
      expect.objectContaining({ path: 'bonds.box-a.areaMm2', message: 'must be above 0' }),
    );
  });

  test('a body that does not conduct is asked for nothing', () => {
    const design = changed((draft) => void (draft.bonds = { 'box-a': { by: 'not-conductive' } }));
    const own = evaluate(design).checks.filter(({ subjects }) => subjects[0] === 'box-a');
    expect(own.filter(({ rule }) => rule.id.startsWith('bonding.')).map(({ state }) => state)).toEqual([
      'clear',
    ]);
  });
});
