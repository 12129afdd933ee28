import { describe, expect, test } from '@jest/globals';
import { libraryBus } from './library-bus';
import { cutPlaces, edit, mainCircuit, partPlaces, type Design } from '@torvek/core/document';
import { catalogueOf, partKey, type Part } from '@torvek/core/parts';
import type { Entry, EntryBody } from '@torvek/core/record';
import { evaluate, everyCheck } from '@torvek/core/design';
import { asBuilt, builtChecks, takeBuilt } from '@torvek/core/built';

const { design } = libraryBus;
const mainLength = `circuits.${mainCircuit}.lengthM`;
let seq = 0;
const told = (body: EntryBody) =>
  ({ seq: (seq += 1), takenAt: '2026-11-20T08:00:00Z', subjects: [], body }) as unknown as Entry;
const circuit = Object.entries(design.circuits).find(
  ([, one]) => one.fuse !== undefined && one.role === 'branch',
)!;
const [id, { fuse: designed }] = circuit;
const place = `circuits.${id}.fuse`;
const other = catalogueOf('fuse').find(
  (one) =>
    partKey(one) !== designed &&
    one.data.ratedA > (design.parts[designed!] as { data: { ratedA: number } }).data.ratedA,
)!;
const fitted = (part: string | null, snapshot: Part | string | null = null, change: object = {}) =>
  told({
    kind: 'part-fitted',
    place,
    name: 'fuse',
    part,
    designed: designed!,
    serial: 'F 1',
    snapshot: snapshot === null || typeof snapshot === 'string' ? snapshot : JSON.stringify(snapshot),
    formerPart: null,
    formerSerial: null,
    exchanged: false,
    reason: 'out of stock',
    ...change,
  });
const cut = (path: string, lengthM: number) =>
  told({ kind: 'cable-cut', place: path, name: 'cable', lengthM, designedM: null, batch: null });

describe('places of parts and cables', () => {
  test('every part that the design names, with its words; modules are things of their own', () => {
    const places = partPlaces(design);
    const found = places.find(({ path }) => path === place)!;
    expect(found).toMatchObject({ holder: id, kind: 'fuse', part: designed });
    expect(found.name).toBe(`${design.circuits[id]!.tag}: fuse`);
    expect(places.some(({ path }) => path.startsWith('modules.'))).toBe(false);
    expect(places.filter(({ kind }) => kind === 'device')).toHaveLength(Object.keys(design.devices).length);
    expect(new Set(places.map(({ path }) => path)).size).toBe(places.length);
  });

  test('the way in parts of a circuit is one cable, as long as they are together', () => {
    const { design: staged } = edit(design, (draft) => {
      draft.circuits[id]!.stretches = [
        { tag: 'a', lengthM: 1.5 },
        { tag: 'b', lengthM: 2.5 },
      ];
    })!;
    expect(cutPlaces(staged).find(({ holder }) => holder === id)?.lengthM).toBe(4);
    const { design: built } = asBuilt(staged, [cut(`circuits.${id}.lengthM`, 5)]);
    expect(built.circuits[id]!.stretches!.map(({ lengthM }) => lengthM)).toEqual([1.875, 3.125]);
    const open = edit(staged, (draft) => void delete draft.circuits[id]!.stretches![0]!.lengthM)!.design;
    expect(cutPlaces(open).find(({ holder }) => holder === id)?.lengthM).toBeNull();
  });
});

describe('the vehicle as built', () => {
  test('nothing recorded, or all as designed: the design itself', () => {
    expect(asBuilt(design, []).design).toBe(design);
    const same = asBuilt(design, [fitted(designed!), fitted(null)]);
    expect([same.design === design, same.differences, same.upTo]).toEqual([true, [], seq]);
    expect(builtChecks(design, [])).toEqual([]);
    expect(builtChecks(design, [fitted(designed!)]).every(({ state }) => state === 'clear')).toBe(true);
  });

  test('another part comes with its data, and moves what hangs on it; the design is not touched', () => {
    const before = JSON.stringify(design);
    const { design: built, differences } = asBuilt(design, [fitted(partKey(other), other)]);
    expect(built.circuits[id]!.fuse).toBe(partKey(other));
    expect(built.parts[partKey(other)]).toEqual(other);
    expect(built.modules).toBe(design.modules);
    expect(differences).toMatchObject([{ path: place, holder: id, built: { text: other.label } }]);
    expect(JSON.stringify(design)).toBe(before);
  });

  test('a part whose data is no part, or another one, is not laid over and is a finding', () => {
    for (const snapshot of [null, '{', '{"kind":"fuse"}', JSON.stringify(catalogueOf('cable')[0])]) {
      const entries = [fitted(partKey(other), snapshot)];
      const { design: built, unread } = asBuilt(design, entries);
      expect([built === design, unread.length]).toEqual([true, 1]);
      const raised = builtChecks(design, entries).filter(({ state }) => state === 'raised');
      expect(raised.map(({ rule }) => rule.id)).toEqual(['built.unread']);
    }
  });

  test('a place that the design no longer has tells nothing', () => {
    const gone = told({ ...fitted(partKey(other), other).body, place: 'circuits.gone.fuse' } as EntryBody);
    expect(asBuilt(design, [gone]).differences).toEqual([]);
  });

  test('the last entry of a place counts', () => {
    const { design: built, differences } = asBuilt(design, [cut(mainLength, 9), cut(mainLength, 7.25)]);
    expect([built.circuits[mainCircuit]!.lengthM, differences.length]).toEqual([7.25, 1]);
  });

  test('a longer cable shows from a tenth on, another part always; each acceptance is of that part', () => {
    const was = cutPlaces(design).find(({ path }) => path === mainLength)!.lengthM!;
    const rules = (entries: Entry[]) =>
      builtChecks(design, entries).flatMap((check) => (check.state === 'raised' ? [check.rule.id] : []));
    expect(rules([cut(mainLength, was * 1.09)])).toEqual([]);
    expect(rules([cut(mainLength, was * 1.12)])).toEqual(['built.other-length']);
    expect(rules([cut(mainLength, was * 0.88)])).toEqual(['built.other-length']);
    const [check] = builtChecks(design, [fitted(partKey(other), other)]).filter(
      ({ state }) => state === 'raised',
    );
    expect(check).toMatchObject({ parts: [partKey(other), designed], subjects: [`${id}/fuse`] });
    expect((check as { message: string }).message).toContain('out of stock');
  });

  test('findings of the vehicle alone stand beside those of the design, marked', () => {
    const weak = catalogueOf('fuse').reduce((a, b) => (b.data.ratedVoltageV < a.data.ratedVoltageV ? b : a));
    const entries = [fitted(partKey(weak), weak)];
    const { design: built } = asBuilt(design, entries);
    const [designedEvaluation, builtEvaluation] = [evaluate(design), evaluate(built)];
    const checks = everyCheck(designedEvaluation, builtEvaluation, design, entries, 0);
    const marked = checks.flatMap((one) =>
      one.state === 'raised' && one.message.startsWith('As built: ') ? [one.rule.id] : [],
    );
    expect(marked).toContain('fuse.voltage');
    expect(new Set(checks.map(({ key }) => key)).size).toBe(checks.length);
    expect(everyCheck(designedEvaluation, designedEvaluation, design, [], 0)).toEqual([
      ...designedEvaluation.checks,
    ]);
  });

  test('what was built is taken into the design: nothing differs any more', () => {
    const entries = [fitted(partKey(other), other), cut(mainLength, 7.25)];
    const { differences } = asBuilt(design, entries);
    const { design: taken } = edit(design, (draft) => {
      for (const one of differences) takeBuilt(draft as Design, one, other);
    })!;
    expect([taken.circuits[id]!.fuse, taken.circuits[mainCircuit]!.lengthM]).toEqual([partKey(other), 7.25]);
    expect(asBuilt(taken, entries).differences).toEqual([]);
  });
});

describe('serial numbers of parts as fitted', () => {
  const small = 'calderside-f32@1';
  const branches = Object.keys(design.circuits)
    .filter((one) => design.circuits[one]!.fuse === small)
    .map((one) => `circuits.${one}.fuse`);
  const at = (path: string, serial: string | null) =>
    fitted(small, null, { place: path, serial, designed: small, reason: '' });
  const said = (entries: Entry[]) =>
    builtChecks(design, entries).filter(({ rule }) => rule.id === 'built.serial-twice');

  test('one number in two places is a finding of both; the last of a place counts', () => {
    expect(branches.length).toBeGreaterThan(1);
    const [a, b] = branches as [string, string];
    const both = [at(a, 'F 7'), at(b, ' f 7')];
    expect(said(both)).toMatchObject([
      {
        state: 'raised',
        grade: 'mend',
        message: expect.stringContaining('F 7 is recorded 2 times') as unknown,
      },
    ]);
    expect(said(both)[0]!.subjects).toEqual(
      expect.arrayContaining([a.split('.')[1], b.split('.')[1]].map((one) => expect.stringContaining(one!))),
    );
    expect(said([...both, at(b, 'F 8')])).toMatchObject([{ state: 'clear' }]);
  });

  test('no number is no second one, and another make may have the same', () => {
    const [a, b] = branches as [string, string];
    expect(said([at(a, null), at(b, null)])).toMatchObject([{ state: 'clear' }]);
    const otherMake = fitted(partKey(other), other, { place: b, serial: 'F 7' });
    expect(said([at(a, 'F 7'), otherMake])).toMatchObject([{ state: 'clear' }]);
  });
});
