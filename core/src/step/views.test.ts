import { describe, expect, test } from '@jest/globals';
import { freeze } from 'immer';
import { keptWhereEqual } from './kept';
import { changedPlaces } from './places';
import { Views } from './views';

const told = (place: string) => place.replaceAll('\u0001', '/');
const differences = (was: unknown, is: unknown) => [...changedPlaces(was, is)].map(told).sort();

describe('places at which two trees differ', () => {
  const was = freeze(
    { pack: { peakA: 3 }, circuits: { a: { lengthM: 1, load: [[1, 2]] }, b: { lengthM: 2 } } },
    true,
  );

  test('a field, by its place; nothing when all is equal', () => {
    expect(differences(was, JSON.parse(JSON.stringify(was)) as typeof was)).toEqual([]);
    expect(differences(was, { ...was, pack: { peakA: 4 } })).toEqual(['pack/peakA']);
    const circuits = { ...was.circuits, a: { lengthM: 1, load: [[1, 3]] } };
    expect(differences(was, { ...was, circuits })).toEqual(['circuits/a/load']);
  });

  test('an item that goes, with all of its fields and the list of keys; one that comes likewise', () => {
    const one = { ...was, circuits: { a: was.circuits.a } };
    const places = ['circuits/*', 'circuits/b', 'circuits/b/*', 'circuits/b/lengthM'];
    expect(differences(was, one)).toEqual(places);
    expect(differences(one, was)).toEqual(places);
  });

  test('the order of keys is something that is read', () => {
    const { a, b } = was.circuits;
    expect(differences(was, { ...was, circuits: { b, a } })).toEqual(['circuits/*']);
  });

  test('a list in place of an object, and a field that is undefined or absent', () => {
    expect(differences({ pack: { links: {} } }, { pack: { links: [] } })).toContain('pack/links');
    expect(differences({ pack: {} }, { pack: { peakA: 1 } })).toEqual(['pack/*', 'pack/peakA']);
  });
});

describe('views', () => {
  const design = freeze({ pack: { peakA: 3 }, circuits: { a: { tag: 'A', load: [[1, 2]] } } }, true);
  function watched() {
    const noted: string[] = [];
    const views = new Views((place) => noted.push(told(place)));
    return { noted, views, root: views.of(design, '', 0) as typeof design };
  }

  test('note the fields that are read and no others', () => {
    const { noted, root } = watched();
    expect(root.circuits.a.tag).toBe('A');
    expect(noted).toEqual(['circuits', 'circuits/a', 'circuits/a/tag']);
  });

  test('note which keys there are, and what is asked for in vain', () => {
    const { noted, root } = watched();
    expect(Object.keys(root.circuits)).toEqual(['a']);
    expect((root.pack as Record<string, unknown>).lowA).toBeUndefined();
    expect('highA' in root.pack).toBe(false);
    expect(noted).toEqual(expect.arrayContaining(['circuits/*', 'pack/lowA', 'pack/highA']));
  });

  test('give lists and what lies below three keys as they are, spread into plain copies, and are never written', () => {
    const { root } = watched();
    expect(root.circuits.a.load).toBe(design.circuits.a.load);
    expect({ ...root.circuits.a }).toEqual(design.circuits.a);
    expect(() => Object.assign(root.pack, { peakA: 4 })).toThrow(TypeError);
    expect(JSON.stringify(root)).toBe(JSON.stringify(design));
  });

  test('stay the same as long as what they show does', () => {
    const { views, root } = watched();
    const next = views.of({ ...design, pack: { peakA: 4 } }, '', 0) as typeof design;
    expect(next.circuits).toBe(root.circuits);
    expect(next.pack).not.toBe(root.pack);
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
