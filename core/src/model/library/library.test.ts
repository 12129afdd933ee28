import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { evaluate } from '../../whole/design';
import { blankDesign, checkDesign, edit, mainCircuit, type Design } from '../document';
import { pin } from '../../trade/pack';
import {
  catalogue,
  catalogueOf,
  partDataSchema,
  partFields,
  partKey,
  partKinds,
  type Part,
  type PartOf,
} from '../parts';
import {
  checkPart,
  differences,
  makeLibrary,
  newerRevision,
  planArrivals,
  readOff,
  replacePart,
  sayField,
  starterLibrary,
  type OwnPart,
} from '.';

const fuse = catalogueOf('fuse').find(({ id }) => id === 'calderside-f350')!;
const own = (part: Part): OwnPart => ({ part, note: '', savedBy: 'Test', savedAt: '2026-11-26T08:00:00Z' });
const revised: PartOf<'fuse'> = { ...fuse, revision: 2, data: { ...fuse.data, breakingA: 9000 } };
const ours: PartOf<'fuse'> = {
  ...fuse,
  id: 'corrow-r350',
  make: 'Corrow',
  number: 'R350',
  label: 'Corrow R350',
};

describe('the library', () => {
  test('offers each part at its newest revision, its own beside the starter catalogue', () => {
    const library = makeLibrary([own(revised), own(ours)], []);
    expect(library.of('fuse')).toHaveLength(catalogueOf('fuse').length + 1);
    expect(library.of('fuse').find(({ id }) => id === fuse.id)?.data.breakingA).toBe(9000);
    expect(library.revisions(fuse.id).map(({ revision }) => revision)).toEqual([1, 2]);
    expect(library.find('calderside-f350@1')).toEqual(fuse);
    expect(library.of('cable')).toEqual(catalogueOf('cable'));
  });

  test('what is retired is found by its key and not offered', () => {
    const library = makeLibrary([own(ours)], [ours.id, fuse.id]);
    expect(library.of('fuse').map(({ id }) => id)).not.toContain(ours.id);
    expect(library.of('fuse')).toHaveLength(catalogueOf('fuse').length - 1);
    expect(library.find('corrow-r350@1')?.number).toBe('R350');
  });

  test('lists stay the same object: an evaluation does not run again for nothing', () => {
    expect(starterLibrary.of('fuse')).toBe(starterLibrary.of('fuse'));
    expect(starterLibrary.of('lug')).toHaveLength(28);
  });
});

describe('a part at the door', () => {
  test('every part of the starter catalogue passes, and its data the stricter schema', () => {
    for (const part of catalogue)
      expect([partKey(part), checkPart(part)]).toEqual([partKey(part), { ok: true, part }]);
  });

  test('the fields are those of the data, each once', () => {
    for (const kind of partKinds) {
      const names = partFields[kind].map(({ name }) => name);
      expect(new Set(names).size).toBe(names.length);
      const tops = new Set(names.map((name) => name.split('.')[0]));
      for (const part of catalogueOf(kind))
        for (const key of Object.keys(part.data)) expect(tops).toContain(key);
      expect(() =>
        partDataSchema(kind).validateSync(catalogueOf(kind)[0]!.data, { strict: true }),
      ).not.toThrow();
    }
  });

  test.each<[string, (part: PartOf<'fuse'>) => void, string]>([
    ['a curve that does not fall', ({ data }) => void (data.curve[2]![1] = 5000), 'data.curve'],
    ['a curve that does not rise in current', ({ data }) => void (data.curve[2]![0] = 1), 'data.curve'],
    ['a negative rating', ({ data }) => void (data.ratedA = -1), 'data.ratedA'],
    ['a rating above where the curve begins', ({ data }) => void (data.ratedA = 600), 'data.ratedA'],
    [
      'a least breaking current above the capacity',
      ({ data }) => void (data.minBreakingA = 1e6),
      'data.minBreakingA',
    ],
    ['an id that cannot stand in an address', (part) => void (part.id = 'No good'), 'id'],
    [
      'a figure that nobody asked for',
      ({ data }) => void ((data as unknown as Record<string, number>).x = 1),
      'data.x',
    ],
  ])('%s is refused by its field', (_, spoil, path) => {
    const part = JSON.parse(JSON.stringify(fuse)) as PartOf<'fuse'>;
    spoil(part);
    const checked = checkPart(part);
    expect(checked.ok ? [] : checked.issues.map((issue) => issue.path)).toEqual([path]);
  });

  test('figures that do not go together are refused', () => {
    const gland = catalogueOf('gland')[0]!;
    const wrong = { ...gland, data: { ...gland.data, clampMinMm: 9 } };
    expect(checkPart(wrong)).toMatchObject({ ok: false, issues: [{ path: 'data.clampMinMm' }] });
  });
});

describe('parts out of a file', () => {
  test('new, the same again, and another content as the next revision; the number of the file does not matter', () => {
    const arrivals = planArrivals(
      [
        ours,
        fuse,
        { ...revised, revision: 7 },
        { ...revised, revision: 9, data: { ...revised.data, ratedA: 300 } },
      ],
      starterLibrary.revisions,
    );
    expect(arrivals.map(({ as, part }) => [as, partKey(part)])).toEqual([
      ['new', 'corrow-r350@1'],
      ['same', 'calderside-f350@1'],
      ['revision', 'calderside-f350@2'],
      ['revision', 'calderside-f350@3'],
    ]);
  });

  test('what was written out comes in as the same', () => {
    const arrivals = planArrivals(JSON.parse(JSON.stringify(catalogue)) as Part[], starterLibrary.revisions);
    expect(new Set(arrivals.map(({ as }) => as))).toEqual(new Set(['same']));
  });
});

describe('differences', () => {
  test('name the figure with both values and units', () => {
    expect(differences(fuse, revised)).toEqual([
      { label: 'Breaking capacity', from: '20000 A', to: '9000 A' },
    ]);
    expect(differences(fuse, fuse)).toEqual([]);
    expect(sayField(partFields.fuse[5]!, 0.1)).toBe('10 %');
  });
});

describe('a design and a newer revision', () => {
  const design = edit(blankDesign(), (draft) => {
    const document = draft as Design;
    document.circuits[mainCircuit]!.fuse = pin(document, fuse);
    document.strings['string-1'] = { tag: 'S1', modules: [], fuse: pin(document, fuse) };
  })!.design;
  const library = makeLibrary([own(revised)], []);
  const state = (of: Design) =>
    evaluate(of, library).checks.find(
      ({ rule, subjects }) => rule === newerRevision && subjects[0]!.startsWith(fuse.id),
    );

  test('is a note that says what changed', () => {
    const check = state(design);
    expect(check).toMatchObject({ state: 'raised', grade: 'note' });
    expect(check?.state === 'raised' && check.message).toContain('Breaking capacity 20000 A → 9000 A');
    expect(evaluate(design).checks.find(({ rule }) => rule === newerRevision)?.state).toBe('clear');
  });

  test('taking it replaces every place, and the note is gone', () => {
    const taken = edit(design, (draft) => replacePart(draft, partKey(fuse), revised))!.design;
    expect(taken.circuits[mainCircuit]!.fuse).toBe('calderside-f350@2');
    expect(taken.strings['string-1']!.fuse).toBe('calderside-f350@2');
    expect(Object.keys(taken.parts)).toEqual(['calderside-f350@2']);
    expect(checkDesign(taken).ok).toBe(true);
    expect(state(taken)?.state).toBe('clear');
  });
});

describe('reading off a picture', () => {
  const decades = fc.integer({ min: 1, max: 5 });

  test('gives back what was drawn, however the picture is turned, scaled and sheared', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        decades,
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (turn, scale, shear, decadesOfX, shareX, shareY) => {
          const pixel = (u: number, v: number): [number, number] => {
            const [x, y] = [(u + shear * v) * 400 * scale, -v * 300 * scale];
            return [
              x * Math.cos(turn) - y * Math.sin(turn) + 50,
              x * Math.sin(turn) + y * Math.cos(turn) + 700,
            ];
          };
          const reading = readOff({
            x: { scale: 'log', at: [pixel(0, 0), pixel(1, 0)], values: [10, 10 * 10 ** decadesOfX] },
            y: { scale: 'linear', at: [pixel(0, 0.1), pixel(0, 0.9)], values: [1, 9] },
          });
          if (!reading.ok) throw new Error(reading.problem);
          const [x, y] = reading.at(pixel(shareX, shareY));
          expect(x / (10 * 10 ** (decadesOfX * shareX))).toBeCloseTo(1, 9);
          expect(y).toBeCloseTo(shareY * 10, 9);
        },
      ),
      { numRuns: 200, seed: 4 },
    );
  });

  const good = {
    x: {
      scale: 'log' as const,
      at: [
        [0, 100],
        [100, 100],
      ] as const,
      values: [1, 100] as const,
    },
    y: {
      scale: 'log' as const,
      at: [
        [0, 100],
        [0, 0],
      ] as const,
      values: [1, 10] as const,
    },
  };
  test.each([
    [
      'marks on each other',
      {
        ...good,
        x: {
          ...good.x,
          at: [
            [0, 0],
            [1, 1],
          ] as const,
        },
      },
      /lie on each other/,
    ],
    ['a log axis with zero', { ...good, y: { ...good.y, values: [0, 10] as const } }, /above 0/],
    ['equal values', { ...good, y: { ...good.y, values: [5, 5] as const } }, /same value/],
    [
      'one axis marked twice',
      {
        ...good,
        y: {
          ...good.y,
          at: [
            [0, 0],
            [90, 1],
          ] as const,
        },
      },
      /on one line/,
    ],
    ['no value', { ...good, x: { ...good.x, values: [NaN, 1] as const } }, /a value each/],
  ])('%s: says what is wrong', (_, marks, problem) => {
    const reading = readOff(marks);
    expect(reading.ok ? '' : reading.problem).toMatch(problem);
  });
});
