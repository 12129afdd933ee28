import { describe, expect, test } from '@jest/globals';
import { catalogueOf } from '../parts';
import { pin, shapePack } from '../../trade/pack';
import {
  applyOperations,
  blankDesign,
  checkDesign,
  differences,
  edit,
  inverseOf,
  keysOf,
  operationsMeet,
  pathsMeet,
  pointerOf,
  setAt,
  stationOfPath,
  valueOf,
  type Design,
} from '.';

let made = 0;
const newId = (prefix: string) => `${prefix}-${(made += 1)}`;
const module = catalogueOf('module')[0]!;
const packed = edit(blankDesign(), (draft) =>
  shapePack(draft, { strings: 2, modulesPerString: 3, part: module }, newId),
)!.design;

describe('edits', () => {
  test('lists are replaced whole: no operation points into one', () => {
    const [string] = Object.keys(packed.strings);
    const { forward, inverse } = edit(packed, (draft) => void draft.strings[string!]!.modules.reverse())!;
    expect(forward).toEqual([
      {
        op: 'replace',
        path: `/strings/${string}/modules`,
        value: [...packed.strings[string!]!.modules].reverse(),
      },
    ]);
    expect(inverse).toEqual([
      { op: 'replace', path: `/strings/${string}/modules`, value: packed.strings[string!]!.modules },
    ]);
  });

  test('a recipe that changes nothing is no change', () => {
    expect(edit(packed, () => undefined)).toBeNull();
  });

  test('an inverse made afterwards undoes operations on the document as it is now', () => {
    const forward = [
      { op: 'add' as const, path: '/vehicle/speedKmH', value: 60 },
      { op: 'replace' as const, path: '/vehicle/speedKmH', value: 70 },
      { op: 'remove' as const, path: '/circuits/circuit-main/tag' },
    ];
    const inverse = inverseOf(packed, forward);
    expect(applyOperations(applyOperations(packed, forward), inverse)).toEqual(packed);
  });

  test.each([
    ['/nowhere/at/all', 'not a place'],
    ['', 'whole design'],
    ['/vehicle/__proto__', 'not allowed'],
    ['/strings/x/modules/0', 'not a place'],
  ])('an operation at %j is refused: %s', (path, message) => {
    expect(() => applyOperations(packed, [{ op: 'add', path, value: 1 }])).toThrow(message);
  });

  test('pointers escape what RFC 6901 asks', () => {
    expect(pointerOf(['a/b', 'c~d', 3])).toBe('/a~1b/c~0d/3');
    expect(keysOf('/a~1b/c~0d/3')).toEqual(['a/b', 'c~d', '3']);
  });

  test('places meet when one lies above the other, not when one is only a prefix of the text', () => {
    expect([pathsMeet('/a/b', '/a'), pathsMeet('/a', '/a/b'), pathsMeet('/a', '/a')]).toEqual([
      true,
      true,
      true,
    ]);
    expect(pathsMeet('/modules/m-1', '/modules/m-10')).toBe(false);
    expect(operationsMeet([{ op: 'remove', path: '/x' }], [{ op: 'remove', path: '/y' }])).toBe(false);
  });
});

describe('a document', () => {
  const issues = (change: (design: Record<string, never>) => void) => {
    const copy = JSON.parse(JSON.stringify(packed)) as Record<string, never>;
    change(copy);
    const checked = checkDesign(copy);
    return checked.ok ? [] : checked.issues.map(({ path }) => path);
  };
  const any = (design: unknown) => design as Record<string, Record<string, unknown>>;

  test('may be incomplete, and passes whole', () => {
    expect(checkDesign(blankDesign()).ok).toBe(true);
    expect(checkDesign(packed).ok).toBe(true);
  });
  test('has no unknown fields and only right types', () => {
    expect(issues((design) => (any(design).vehicle!.colour = 'green'))).toEqual(['vehicle.colour']);
    expect(issues((design) => (any(design).vehicle!.wheelbaseM = '4'))).toEqual(['vehicle.wheelbaseM']);
    expect(issues((design) => (any(design).vehicle!.wheelbaseM = null))).toEqual(['vehicle.wheelbaseM']);
    expect(issues((design) => delete any(design).masses)).toEqual(['masses']);
    expect(issues((design) => ((design as Record<string, unknown>).schema = 2))).toEqual(['schema']);
  });
  test('has no bar, joint or bond that names nothing; a body of its own has a name', () => {
    const where = (change: (design: Design) => void) =>
      issues((design) => change(design as unknown as Design));
    const main = Object.keys(packed.circuits)[0]!;
    const box = main;
    expect(
      where((design) => (design.pack.busbars = { 'bar-1': { tag: 'Bar', circuit: 'circuit-gone' } })),
    ).toEqual(['pack.busbars.bar-1.circuit']);
    expect(
      where((design) => (design.joints = { 'joint-1': { tag: 'M8', on: 'lugs', circuit: 'circuit-gone' } })),
    ).toEqual(['joints.joint-1.circuit']);
    expect(where((design) => (design.bonds = { [box]: { by: 'strap', to: 'box-gone' } }))).toEqual([
      `bonds.${box}.to`,
    ]);
    expect(where((design) => (design.bonds = { 'box-gone': { by: 'strap' } }))).toEqual(['bonds.box-gone']);
    expect(
      where((design) => {
        design.pack.busbars = { 'bar-1': { tag: 'Bar', circuit: main } };
        design.joints = { 'joint-1': { tag: 'M8', on: 'lugs', circuit: main } };
        design.bonds = { 'bond-1': { tag: 'Bracket', by: 'bolted' }, [box]: { by: 'strap', to: 'bond-1' } };
      }),
    ).toEqual([]);
  });
  test('has no reference to nothing, no module twice, no part of another kind', () => {
    const [string] = Object.keys(packed.strings);
    const path = `strings.${string}.modules.3`;
    const list = (design: unknown) => (any(design).strings![string!] as { modules: string[] }).modules;
    expect(issues((design) => list(design).push('module-x'))).toEqual([path]);
    expect(issues((design) => list(design).push(list(design)[0]!))).toContain(path);
    expect(
      issues(
        (design) =>
          (any(design).circuits!['circuit-main'] = { tag: 'Main', role: 'main', fuse: 'brackwater-m12@1' }),
      ),
    ).toEqual(['circuits.circuit-main.fuse']);
    expect(issues((design) => delete any(design).parts!['brackwater-m12@1'])[0]).toMatch(
      /^modules\..*\.part$/,
    );
  });
  test('places are read, set and taken away by their path', () => {
    const copy = JSON.parse(JSON.stringify(packed)) as Design;
    setAt(copy, 'circuits.circuit-main.lengthM', 4);
    expect(valueOf(copy, 'circuits.circuit-main.lengthM')).toBe(4);
    setAt(copy, 'circuits.circuit-main.lengthM', undefined);
    expect('lengthM' in copy.circuits['circuit-main']!).toBe(false);
    expect(() => setAt(copy, 'boxes.none.xM', 1)).toThrow('not a place');
    expect([
      stationOfPath('vehicle.frontKg'),
      stationOfPath('devices.d.bleedOhm'),
      stationOfPath('devices.d.isolation'),
      stationOfPath('joints.j.torqueNm'),
      stationOfPath('strings'),
    ]).toEqual(['brief', 'pack', 'protect', 'protect', 'pack']);
  });
  test('rows of fields are compared one by one where there are as many, whole where there are not', () => {
    const rows = (...x: number[]) => ({ rows: x.map((one) => ({ x: one, y: 1 })) });
    expect(differences(rows(1, 2), rows(1, 3))).toEqual([{ path: 'rows.1.x', from: 2, to: 3 }]);
    expect(differences(rows(1), rows(1, 3)).map(({ path }) => path)).toEqual(['rows']);
    expect(differences({ rows: [] }, { rows: [] })).toEqual([]);
  });

  test('differences are leaves; lists are compared whole', () => {
    expect(differences({ a: { b: 1, c: [1, 2] }, d: 1 }, { a: { b: 2, c: [2, 1] }, e: 1 })).toEqual([
      { path: 'a.b', from: 1, to: 2 },
      { path: 'a.c', from: [1, 2], to: [2, 1] },
      { path: 'd', from: 1, to: undefined },
      { path: 'e', from: undefined, to: 1 },
    ]);
  });
});

describe('the shape of the pack', () => {
  test('modules that stay keep their ids and boxes; new ones go into the emptiest box', () => {
    const boxed = edit(packed, (draft) => {
      draft.boxes.a = { tag: 'A' };
      draft.boxes.b = { tag: 'B' };
      for (const one of Object.values(draft.modules)) one.box = 'a';
    })!.design;
    const grown = edit(boxed, (draft) =>
      shapePack(draft, { strings: 2, modulesPerString: 5, part: module }, newId),
    )!.design;
    const kept = Object.keys(packed.modules);
    expect(kept.every((id) => grown.modules[id]?.box === 'a')).toBe(true);
    expect(Object.values(grown.modules).filter(({ box }) => box === 'b')).toHaveLength(4);
    const shrunk = edit(grown, (draft) =>
      shapePack(draft, { strings: 1, modulesPerString: 3, part: module }, newId),
    )!.design;
    expect(Object.keys(shrunk.modules)).toEqual(Object.values(packed.strings)[0]!.modules);
    expect(checkDesign(shrunk).ok).toBe(true);
  });
  test('another kind of module unpins the one nothing uses any more', () => {
    const other = catalogueOf('module')[2]!;
    const changed = edit(packed, (draft) => {
      draft.circuits['circuit-main']!.fuse = pin(draft, catalogueOf('fuse')[0]!);
      shapePack(draft, { strings: 2, modulesPerString: 3, part: other }, newId);
    })!.design;
    expect(Object.keys(changed.parts).sort()).toEqual(['calderside-f10@1', 'tolvarth-8@1']);
  });
});
