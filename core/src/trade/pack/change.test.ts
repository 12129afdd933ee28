import { expect, test } from '@jest/globals';
import { bus350 } from '../../whole/design/clean/library';
import { edit, type Design } from '../../model/document';
import { catalogueOf } from '../../model/parts';
import { checkDesign } from '../../model/document';
import { shapePack, shapeString, takeModuleOut } from './change';

const part = catalogueOf('module').find(({ id }) => id === 'brackwater-m12')!;
let made = 0;
const shaped = (design: Design, strings: number, modulesPerString: number) =>
  edit(design, (draft) =>
    shapePack(draft, { strings, modulesPerString, part }, (prefix) => `${prefix}-n${(made += 1)}`),
  )?.design ?? design;

test('two places never have one name, however the strings were put together', () => {
  // The last of the first string goes to the second: its number is taken when the first grows again.
  const regrouped = edit(bus350, (draft) => {
    const [a, b] = Object.values(draft.strings);
    b!.modules.push(a!.modules.pop()!);
  })!.design;
  const grown = shaped(regrouped, 2, 9);
  const tags = Object.values(grown.modules).map(({ tag }) => tag);
  expect(tags).toHaveLength(18);
  expect(new Set(tags).size).toBe(18);
});

test('places that stay keep their ids and names; a string that goes takes its own with it', () => {
  const less = shaped(bus350, 1, 7);
  expect(Object.keys(less.modules)).toEqual(bus350.strings['string-1']!.modules.slice(0, 7));
  expect(Object.keys(less.strings)).toEqual(['string-1']);
  const more = shaped(less, 1, 8);
  const tags = Object.values(more.modules).map(({ tag }) => tag);
  expect(new Set(tags).size).toBe(8);
});

test('one string is changed by itself: longer, of another kind, and one module out of its middle', () => {
  const newId = (prefix: string) => `${prefix}-n${(made += 1)}`;
  const strings = Object.keys(bus350.strings);
  const [first, second] = [strings[0]!, strings[1]!];
  const before = bus350.strings[first]!.modules;
  const longer = edit(bus350, (draft) => shapeString(draft, second, { modules: 9 }, newId))!.design;
  expect(longer.strings[first]!.modules).toEqual(before);
  expect(longer.strings[second]!.modules).toHaveLength(9);
  expect(longer.modules[longer.strings[second]!.modules[8]!]!.part).toBe('brackwater-m12@1');

  const other = catalogueOf('module').find(({ id }) => id === 'tolvarth-8')!;
  const mixed = edit(longer, (draft) => shapeString(draft, second, { part: other }, newId))!.design;
  const kinds = (string: string) =>
    new Set(mixed.strings[string]!.modules.map((id) => mixed.modules[id]!.part));
  expect([...kinds(first)]).toEqual(['brackwater-m12@1']);
  expect([...kinds(second)]).toEqual(['tolvarth-8@1']);

  const gone = before[3]!;
  const less = edit(bus350, (draft) => takeModuleOut(draft, gone))!.design;
  expect(less.strings[first]!.modules).toEqual(before.filter((id) => id !== gone));
  expect(less.modules[gone]).toBeUndefined();
  // Between the third and the fourth, and between the sixth and the seventh: the one beside it stays, the other moves along.
  const numbered = edit(bus350, (draft) => {
    Object.assign(draft.strings[first]!, { fuseAt: 3, disconnectAt: 6 });
    draft.pack.leads = {
      'lead-a': { tag: 'A', string: first, joint: 4 },
      'lead-b': { tag: 'B', string: second, joint: 4 },
      'lead-c': { tag: 'C', string: first, joint: 0 },
      'lead-d': { tag: 'D', string: first },
    };
    takeModuleOut(draft, gone);
  })!.design;
  expect(numbered.strings[first]).toMatchObject({ fuseAt: 3, disconnectAt: 5 });
  expect(Object.values(numbered.pack.leads!).map(({ joint }) => joint)).toEqual([3, 4, 0, undefined]);
  for (const design of [longer, mixed, less]) expect(checkDesign(design).ok).toBe(true);
});
