import { describe, expect, test } from '@jest/globals';
import { edit, type BoxItem, type Design } from '../../model/document';
import { evaluate } from '../../whole/design';
import { van230 } from '../../whole/design/clean/library';
import { bearingPoints } from './lift-step';

const id = 'box-front';
const of = (more: Partial<BoxItem>, recipe: (design: Design) => void = () => undefined) =>
  evaluate(
    edit(van230, (draft) => {
      Object.assign((draft as Design).boxes[id]!, more);
      recipe(draft as Design);
    })?.design ?? van230,
  );
const value = (name: string, evaluation: ReturnType<typeof of>) =>
  evaluation.figures[`pack.lift:${id}:${name}` as keyof typeof evaluation.figures]!.value;
const state = (rule: string, evaluation: ReturnType<typeof of>) =>
  evaluation.checks.find((check) => check.rule.id === rule && check.subjects[0] === id)?.state;

const box = van230.boxes[id]!;
const inside = Object.values(van230.modules).filter((module) => module.box === id);
const part = van230.parts[inside[0]!.part]!;
const moduleKg = part.kind === 'module' ? part.data.massKg : 0;
const fullKg = box.emptyKg! + inside.length * moduleKg;

describe('a box on its slings', () => {
  test('of several slings two are counted to bear', () => {
    expect([1, 2, 3, 4, 6, 8].map(bearingPoints)).toEqual([1, 2, 2, 2, 2, 2]);
  });

  test('one point carries all of it, upright; four share it in two, more by the lean of the slings', () => {
    expect(value('worstPointKg', of({ liftPoints: 1, slingDeg: 45 }))).toBeCloseTo(fullKg, 9);
    const upright = value('worstPointKg', of({ liftPoints: 4, slingDeg: 0 }))!;
    const off = Math.abs(value('offCentreM', of({ liftPoints: 4 }))!);
    expect(upright).toBeCloseTo(fullKg * (0.5 + off / box.lengthM!), 9);
    expect(value('worstPointKg', of({ liftPoints: 4, slingDeg: 60 }))).toBeCloseTo(2 * upright, 6);
    // Not said: 45°.
    expect(value('worstPointKg', of({ liftPoints: 4 }))).toBeCloseTo(upright * Math.SQRT2, 6);
  });

  test('points nearer to each other bear more of what hangs off the middle', () => {
    const wide = value('worstPointKg', of({ liftPoints: 2, slingDeg: 0 }))!;
    const off = Math.abs(value('offCentreM', of({}))!);
    expect(off).toBeGreaterThan(0.001);
    const near = value('worstPointKg', of({ liftPoints: 2, slingDeg: 0, liftSpanM: box.lengthM! / 2 }))!;
    expect(near - wide).toBeCloseTo((fullKg * off) / box.lengthM!, 9);
  });

  test('a point is judged at what it is made for, and a box that hangs outside its points tips', () => {
    const bears = value('worstPointKg', of({ liftPoints: 4 }))!;
    expect(state('pack.lift-weak', of({ liftPoints: 4, liftKg: bears + 0.01 }))).toBe('clear');
    expect(state('pack.lift-weak', of({ liftPoints: 4, liftKg: bears - 0.01 }))).toBe('raised');
    const off = Math.abs(value('offCentreM', of({}))!);
    expect(state('pack.lift-tips', of({ liftPoints: 2, liftSpanM: 2 * off + 0.001 }))).toBe('clear');
    expect(state('pack.lift-tips', of({ liftPoints: 2, liftSpanM: 2 * off - 0.001 }))).toBe('raised');
  });

  test('without points it is judged by what two people carry; without a word of them not at all', () => {
    expect(state('pack.lift-none', of({ liftPoints: 0 }))).toBe('raised');
    const weighing = (kg: number) => of({ liftPoints: 0, emptyKg: kg - inside.length * moduleKg });
    expect(state('pack.lift-none', weighing(49.99))).toBe('clear');
    expect(state('pack.lift-none', weighing(50.01))).toBe('raised');
    const silent = of({ liftPoints: undefined as never });
    expect(['pack.lift-none', 'pack.lift-weak', 'pack.lift-tips'].map((rule) => state(rule, silent))).toEqual(
      ['not-checked', 'not-checked', 'not-checked'],
    );
    expect(value('worstPointKg', silent)).toBeNull();
  });

  test.each([
    ['liftPoints', -1],
    ['liftPoints', 2.5],
    ['slingDeg', 90],
    ['slingDeg', -5],
    ['liftSpanM', 0],
    ['liftSpanM', -1],
  ] as const)('%s of %s is told at its field, and nothing is computed of it', (field, given) => {
    const odd = of({ liftPoints: 4, liftKg: 1000, [field]: given });
    const figure = odd.figures[`pack.lift:${id}:worstPointKg` as keyof typeof odd.figures]!;
    expect(figure.value).toBeNull();
    expect(figure.gaps).toContainEqual(
      expect.objectContaining({ kind: 'invalid', path: `boxes.${id}.${field}` }),
    );
    expect(state('pack.lift-weak', odd)).toBe('not-checked');
  });

  test('of a box that tips nobody knows what its points bear: one finding, not two', () => {
    const off = Math.abs(value('offCentreM', of({}))!);
    const tipping = of({ liftPoints: 2, liftSpanM: off, liftKg: 1 });
    expect(state('pack.lift-tips', tipping)).toBe('raised');
    expect(state('pack.lift-weak', tipping)).toBe('not-checked');
    expect(value('worstPointKg', tipping)).toBeNull();
  });

  test('an empty box hangs in its middle', () => {
    const empty = of({ liftPoints: 4, slingDeg: 0 }, (design) => {
      for (const module of Object.values(design.modules)) if (module.box === id) delete module.box;
    });
    expect(value('offCentreM', empty)).toBe(0);
    expect(value('worstPointKg', empty)).toBeCloseTo(box.emptyKg! / 2, 9);
  });
});
