import { describe, expect, test } from '@jest/globals';
import { edit, type Design } from '@torvek/core/document';
import { matchInputOf, matchSides, parallelMatch } from '@torvek/core/balance';
import { pin, shapePack } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const sides = matchSides(bus);
const side = (tag: string) => sides.find((one) => one.tag === tag)!;

describe('joining two strings of demo A', () => {
  const { input, limits } = matchInputOf(bus, side('S1'), side('S2'), [357.6, 355.2], 0.006, 10);

  test('takes each string as its cells, and the lowest limit in the path', () => {
    expect(input).toMatchObject({ series: 96, linkResistanceOhm: 0.006, benchCurrentA: 10 });
    expect(input!.a.resistanceOhm).toBeCloseTo(96 * 0.00075, 12);
    expect(input!.a.capacityAh).toBe(117);
    expect(limits.map(({ label, currentA }) => [label, currentA])).toEqual([
      ['S1: modules, continuous', 180],
      ['S2: modules, continuous', 180],
      ['S1: fuse', 250],
      ['S1: contactors, making', expect.any(Number)],
      ['S2: fuse', 250],
      ['S2: contactors, making', expect.any(Number)],
    ]);
    expect(input!.currentLimitA).toBe(180);
  });

  test('2.4 V over twice 72 mΩ and 6 mΩ drive 16 A', () => {
    const { result } = parallelMatch.calculate(input!);
    expect(result.equalisingCurrentA).toBeCloseTo(2.4 / 0.15, 9);
    expect(result).toMatchObject({ withinLimit: true, higher: 'a' });
    expect(result.maxDeltaV).toBeCloseTo(180 * 0.15, 9);
  });
});

test('a replacement stands beside the module it joins; each is offered by itself', () => {
  expect(sides.map(({ tag }) => tag).slice(0, 3)).toEqual(['S1', 'S2', 'S1-M01']);
  const { input } = matchInputOf(bus, side('S1-M01'), side('S2-M03'), [44.71, 43.9], 0.002, undefined);
  expect(input).toMatchObject({ series: 12, currentLimitA: 180 });
  expect('benchCurrentA' in input!).toBe(false);
});

test('unlike strings are never joined, and what is missing is said', () => {
  const unlike = edit(bus, (draft) => {
    const one = draft as Design;
    one.strings['string-2']!.modules = one.strings['string-2']!.modules.slice(0, 7);
  })!.design;
  const [a, b] = matchSides(unlike);
  const refused = matchInputOf(unlike, a!, b!, [357, 312], 0.006, undefined);
  expect(refused.input).toBeNull();
  expect(refused.gaps[0]).toMatchObject({
    kind: 'invalid',
    message: expect.stringContaining('96 and 84 cells'),
  });
  const open = matchInputOf(bus, side('S1'), side('S2'), [357, undefined], undefined, undefined);
  expect(open.gaps.map(({ label }) => label)).toEqual([
    'measured voltage of S2',
    'resistance of what joins them',
  ]);
});

test('a spare module of another kind is offered too', () => {
  let made = 0;
  const design = edit(bus, (draft) => {
    const one = draft as Design;
    shapePack(
      one,
      { strings: 1, modulesPerString: 4, part: catalogueOf('module')[0]! },
      (prefix) => `${prefix}-${(made += 1)}`,
    );
    one.modules['module-spare'] = { tag: 'Spare', part: pin(one, catalogueOf('module')[1]!) };
  })!.design;
  expect(matchSides(design).map(({ tag }) => tag)).toEqual([
    'S1',
    'Spare',
    'S1-M01',
    'S1-M02',
    'S1-M03',
    'S1-M04',
  ]);
});
