import { describe, expect, test } from '@jest/globals';
import { freeze } from 'immer';
import { keptWhereEqual } from './kept';
import { Place } from './places';
import { viewOf } from './views';

type Tree = Readonly<Record<string, unknown>>;

/** Reads places, by their paths, each on its own behalf; `*` reads which keys there are, `**` all that is there. */
function reading(...paths: string[]) {
  const root = new Place<string>();
  for (const path of paths) {
    const place = path
      .split('/')
      .reduce((at, key) => (key === '*' ? at.keys : key === '**' ? at.whole : at.at(key)), root);
    place.readers.add(path);
  }
  return (was: unknown, is: unknown) => {
    const changed = new Set<string>();
    root.changed(was, is, changed);
    return [...changed].sort();
  };
}

describe('who read where two trees differ', () => {
  const was = freeze(
    { pack: { peakA: 3 }, circuits: { a: { lengthM: 1, load: [[1, 2]] }, b: { lengthM: 2 } } },
    true,
  );
  const differences = reading(
    ...[
      'pack/peakA',
      'pack/*',
      'pack/lowA',
      'circuits/*',
      'circuits/a/load',
      'circuits/b',
      'circuits/b/lengthM',
    ],
    ...['circuits/b/tag', 'circuits/a/lengthM', 'circuits/c'],
  );

  test('a field by its value; nobody when all is equal', () => {
    expect(differences(was, JSON.parse(JSON.stringify(was)))).toEqual([]);
    expect(differences(was, { ...was, pack: { peakA: 4 } })).toEqual(['pack/peakA']);
    const circuits = { ...was.circuits, a: { lengthM: 1, load: [[1, 3]] } };
    expect(differences(was, { ...was, circuits })).toEqual(['circuits/a/load']);
  });

  test('an item that goes or comes: who read it, any field of it, given or not, or the list of keys', () => {
    const one = { ...was, circuits: { a: was.circuits.a } };
    const readers = ['circuits/*', 'circuits/b', 'circuits/b/lengthM', 'circuits/b/tag'];
    expect(differences(was, one)).toEqual(readers);
    expect(differences(one, was)).toEqual(readers);
  });

  test('the order of keys is something that is read', () => {
    const { a, b } = was.circuits;
    expect(differences(was, { ...was, circuits: { b, a } })).toEqual(['circuits/*']);
  });

  test('a field that comes, and one in whose place a list stands', () => {
    expect(differences(was, { ...was, pack: { peakA: 3, lowA: 1 } })).toEqual(['pack/*', 'pack/lowA']);
    expect(differences(was, { ...was, pack: [] })).toEqual(['pack/*', 'pack/lowA', 'pack/peakA']);
  });

  test('all of something as one value, as soon as anything in it differs', () => {
    const whole = reading('circuits/**', 'circuits/a/**', 'pack/peakA/**');
    expect(whole(was, JSON.parse(JSON.stringify(was)))).toEqual([]);
    const circuits = { ...was.circuits, b: { lengthM: 5 } };
    expect(whole(was, { ...was, circuits })).toEqual(['circuits/**']);
    expect(whole(was, { ...was, pack: { peakA: 5 } })).toEqual(['pack/peakA/**']);
    expect(whole(was, { ...was, circuits: {} })).toEqual(['circuits/**', 'circuits/a/**']);
  });

  test('what no one read costs nothing and calls nobody', () => {
    expect(reading('pack/peakA')(was, { ...was, circuits: {} })).toEqual([]);
  });
});

describe('views', () => {
  const design = freeze({ pack: { peakA: 3 }, circuits: { a: { tag: 'A', load: [[1, 2]] } } }, true);
  function watched() {
    const noted: Place<unknown>[] = [];
    const place = new Place<never>();
    const noter = { note: (one: Place<unknown>) => void noted.push(one) };
    return { noted, place, noter, root: viewOf(design, place, noter) as typeof design };
  }

  test('note the fields that are read and no others', () => {
    const { noted, place, root } = watched();
    expect(root.circuits.a.tag).toBe('A');
    const circuits = place.at('circuits');
    expect(noted).toEqual([circuits, circuits.at('a'), circuits.at('a').at('tag')]);
  });

  test('note which keys there are, and what is asked for in vain', () => {
    const { noted, place, root } = watched();
    expect(Object.keys(root.circuits)).toEqual(['a']);
    expect((root.pack as Tree).lowA).toBeUndefined();
    expect('highA' in root.pack).toBe(false);
    expect(Object.hasOwn(root.pack, 'midA')).toBe(false);
    expect(noted).toContain(place.at('circuits').keys);
    for (const key of ['lowA', 'highA', 'midA']) expect(noted).toContain(place.at('pack').at(key));
  });

  test('give lists and what lies below three keys as they are, spread into plain copies, and are never written', () => {
    const { root } = watched();
    expect(root.circuits.a.load).toBe(design.circuits.a.load);
    expect({ ...root.circuits.a }).toEqual(design.circuits.a);
    expect(() => Object.assign(root.pack, { peakA: 4 })).toThrow(TypeError);
    expect(JSON.stringify(root)).toBe(JSON.stringify(design));
    expect(String(root.pack)).toBe('[object Object]');
  });

  test('stay the same as long as what they show does', () => {
    const { place, noter, root } = watched();
    const next = viewOf({ ...design, pack: { peakA: 4 } }, place, noter) as typeof design;
    expect(next.circuits).toBe(root.circuits);
    expect(next.pack.peakA).toBe(4);
  });
});

describe('what is made again', () => {
  test('keeps the parts that are equal', () => {
    const before = { a: { x: [1, 2] }, b: { y: 1 } };
    const made = keptWhereEqual(before, { a: { x: [1, 2] }, b: { y: 2 } });
    expect(made.a).toBe(before.a);
    expect(made.b).toEqual({ y: 2 });
    expect(keptWhereEqual(before, JSON.parse(JSON.stringify(before)) as typeof before)).toBe(before);
  });

  test('writes nothing into what is frozen', () => {
    const before = { list: [{ x: 1 }, { x: 2 }] };
    const made = freeze({ list: [{ x: 1 }, { x: 3 }] }, true);
    expect(keptWhereEqual(before, made)).toBe(made);
  });
});
