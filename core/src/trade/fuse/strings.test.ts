import { describe, expect, test } from '@jest/globals';
import type { FigureId } from '../../ground/figure';
import { edit, type Design } from '../../model/document';
import { evaluate } from '../../whole/design';
import { bus350Three } from '../../whole/design/clean/library';
import { leastI2t } from './melting';

const strings = Object.values(bus350Three.strings).filter(({ modules }) => modules.length > 0);
const value = (design: Design, id: FigureId) => evaluate(design).figures[id]!.value!;
const faultA = (design: Design) => value(design, 'fuse.strings:pack:faultA');

describe('a short inside one of several strings', () => {
  test('is fed by all the others and not by itself: (n − 1) of them in parallel, warm', () => {
    expect(strings).toHaveLength(3);
    const highestV = value(bus350Three, 'pack.pack:pack:voltageMaxV');
    const stringOhm = 3 * value(bus350Three, 'pack.pack:pack:resistanceOhm');
    const warm = bus350Three.pack.warmResistanceFactor ?? 0.8;
    expect(faultA(bus350Three)).toBeCloseTo((2 * highestV) / (stringOhm * warm), 6);
  });

  test('a warmer pack feeds more into it', () => {
    const warmer = edit(bus350Three, (draft) => void (draft.pack.warmResistanceFactor = 0.5))!.design;
    const warm = bus350Three.pack.warmResistanceFactor ?? 0.8;
    expect(faultA(warmer) / faultA(bus350Three)).toBeCloseTo(warm / 0.5, 9);
  });
});

test('a fuse that sits hotter than the others takes less, and only its string says so', () => {
  const said = (recipe: (draft: Design) => void) =>
    evaluate(edit(bus350Three, (draft) => recipe(draft as Design))!.design).checks.flatMap((check) =>
      check.state === 'raised' && check.rule.id === 'strings.uneven-load' ? [check.message] : [],
    );
  // At 35 °C a fuse takes 97 % of its rating, at 85 °C 78 %.
  const mostA = value(bus350Three, 'fuse.strings:pack:mostRmsA');
  const small = (draft: Design) => {
    for (const part of Object.values(draft.parts))
      if (part.kind === 'fuse' && part.data.ratedA === 200) part.data.ratedA = (mostA / 0.8) * 1.05;
  };
  expect(said(small)).toEqual([]);
  const hot = said((draft) => {
    small(draft);
    Object.values(draft.strings)[1]!.fuseAmbientC = 85;
  });
  expect(hot).toHaveLength(1);
  expect(hot[0]).toMatch(/^S2: its fuse takes/);
  expect(hot[0]).not.toContain('S1');
});

test('the least that melts a fuse is that of its fastest: I·(1 − tolerance), squared, for its last time', () => {
  const curve: [number, number][] = [
    [100, 100],
    [1000, 0.01],
  ];
  expect(leastI2t({ curve, currentToleranceFraction: 0.1 })).toBeCloseTo(900 ** 2 * 0.01, 9);
  expect(leastI2t({ curve, currentToleranceFraction: 0 })).toBeCloseTo(10_000, 9);
});
