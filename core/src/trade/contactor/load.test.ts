import { describe, expect, test } from '@jest/globals';
import { edit, type Design } from '../../model/document';
import { catalogueOf } from '../../model/parts';
import { evaluate } from '../../whole/design';
import { bus350, bus350Three, van230 } from '../../whole/design/clean/library';
import { loadCriteria, loadRules } from './string-step';

const data = {
  ...catalogueOf('contactor').find(({ id }) => id === 'hollin-k200')!.data,
  continuousA: 200,
  breakA: 900,
  shortTime: [
    [300, 60],
    [600, 5],
  ] as [number, number][],
};
const problem = (
  rule: (typeof loadRules)[keyof typeof loadRules],
  profile: [number, number][],
  share?: number,
) => loadCriteria(data, profile, share).find((one) => one.rule === rule)!.problem;

describe('the load of contactors', () => {
  test('a stretch above the rating is held against the short-time curve; at or below it never', () => {
    // Log-log between the points: 60·1.1^(ln(5/60)/ln 2) = 42.6 s at 330 A.
    expect(problem(loadRules.peak, [[43, 330]])).toBe('carries 330 A for 42.6 s; the load asks for 43 s');
    expect(problem(loadRules.peak, [[42, 330]])).toBeNull();
    expect(problem(loadRules.peak, [[3600, 200]])).toBeNull();
    // Back into the pack as well, and a share of it where strings share.
    expect(problem(loadRules.peak, [[43, -330]])).not.toBeNull();
    expect(problem(loadRules.peak, [[43, 660]], 0.5)).not.toBeNull();
    expect(problem(loadRules.peak, [[43, 399]], 0.5)).toBeNull();
  });

  test('what is carried at the peak has to be broken', () => {
    expect(problem(loadRules.break, [[1, 900]])).toBeNull();
    expect(problem(loadRules.break, [[1, -901]])).toBe('breaks 900 A; the load rises to 901 A');
    expect(problem(loadRules.break, [[1, 1802]], 0.5)).not.toBeNull();
  });
});

describe('contactors of strings', () => {
  const state = (design: Design, rule: string, subject: string) =>
    evaluate(design).checks.find(({ key }) => key === `${rule}|${subject}`)?.state;
  const changed = (design: Design, recipe: (draft: Design) => void) =>
    edit(design, (draft) => recipe(draft as Design))!.design;

  test('one of three strings carries a third of the load and a little more', () => {
    const load = evaluate(bus350Three).figures['network.load:circuit-main:rmsA']!.value!;
    const most = evaluate(bus350Three).figures['fuse.strings:pack:mostRmsA']!.value!;
    const rated = (amps: number) =>
      changed(bus350Three, (draft) => {
        const part = draft.parts['hollin-k200@1']!;
        if (part.kind === 'contactor') part.data.continuousA = amps;
      });
    expect(most).toBeGreaterThan(load / 3);
    expect(state(rated(most * 1.001), 'contactor.carry', 'string-1')).toBe('clear');
    expect(state(rated(most * 0.999), 'contactor.carry', 'string-1')).toBe('raised');
  });

  test('a single string needs none; one of several does', () => {
    const without = (draft: Design) => {
      for (const one of Object.values(draft.strings)) {
        delete one.contactor;
        delete one.contactorPoles;
      }
    };
    expect(state(changed(van230, without), 'contactor.strings-not-parted', 'string-1')).toBe('clear');
    expect(state(changed(bus350, without), 'contactor.strings-not-parted', 'string-1')).toBe('raised');
  });
});
