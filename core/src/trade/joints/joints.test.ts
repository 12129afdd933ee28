import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankDesign, boltClasses, edit, faces, mainCircuit, type Design } from '../../model/document';
import { evaluate } from '../../whole/design/evaluate';
import { shapePack } from '../pack';
import { catalogueOf } from '../../model/parts';
import {
  betweenFaces,
  clampOf,
  galvanicLimitV,
  galvanicV,
  jointsOf,
  proofShare,
  springOnFace,
  stressAreaMm2,
} from '.';

describe('the force of a tightened thread', () => {
  test('M8 of 8.8 with 20 N·m: 12.5 kN, 341.5 MPa, 58.9 % of 580 MPa', () => {
    const clamp = clampOf(20, 8, '8.8')!;
    expect(clamp.forceN).toBeCloseTo(20 / (0.2 * 0.008), 9);
    expect(clamp.stressMPa).toBeCloseTo(12_500 / 36.6, 9);
    expect(clamp.share).toBeCloseTo(12_500 / 36.6 / 580, 9);
    // 0.9·580·36.6 N over 625 N per N·m.
    expect(clamp.mostNm).toBeCloseTo(30.57, 2);
  });
  test('a diameter without a stress area is not guessed', () => {
    expect(clampOf(20, 7, '8.8')).toBeNull();
  });
  test('the most that a thread takes is exactly the share that is allowed, whatever it is', () => {
    const studs = Object.keys(stressAreaMm2).map(Number);
    fc.assert(
      fc.property(fc.constantFrom(...studs), fc.constantFrom(...boltClasses), (studMm, boltClass) => {
        const { mostNm } = clampOf(1, studMm, boltClass)!;
        expect(clampOf(mostNm, studMm, boltClass)!.share).toBeCloseTo(proofShare, 12);
      }),
    );
  });
});

describe('faces and stacks', () => {
  test('copper and aluminium lie 0.55 V apart, too far even where it is dry; tin lies between them', () => {
    expect(galvanicV('copper', 'aluminium')).toBeCloseTo(0.55, 12);
    expect(galvanicV('copper', 'aluminium')).toBeGreaterThan(galvanicLimitV(1));
    expect([galvanicLimitV(1), galvanicLimitV(2), galvanicLimitV(3)]).toEqual([0.5, 0.25, 0.15]);
    // On the limit, and that is allowed.
    expect(galvanicV('tin', 'aluminium')).toBeCloseTo(galvanicLimitV(2), 12);
    expect(galvanicV('tin', 'aluminium')).toBeGreaterThan(galvanicLimitV(3));
  });
  test('no metal is far from itself, and the distance has no direction', () => {
    for (const a of faces)
      for (const b of faces) {
        expect(galvanicV(a, b)).toBe(galvanicV(b, a));
        if (a === b) expect(galvanicV(a, b)).toBe(0);
      }
  });
  test('what lies between the faces is found, and what lies above them is not held against them', () => {
    expect(betweenFaces(['bar', 'lug', 'washer', 'spring', 'nut'])).toBeNull();
    expect(betweenFaces(['bar', 'washer', 'lug', 'nut'])).toBe('washer');
    expect(betweenFaces(['washer', 'bar', 'nut'])).toBeNull();
    expect(betweenFaces(['washer', 'nut'])).toBeNull();
    expect(springOnFace(['bar', 'spring', 'nut'])).toBe(true);
    expect(springOnFace(['bar', 'washer', 'spring', 'nut'])).toBe(false);
  });
});

let made = 0;
const design: Design = blankDesign();
shapePack(
  design,
  { strings: 2, modulesPerString: 3, part: catalogueOf('module')[0]! },
  (prefix) => `${prefix}-${(made += 1)}`,
);
const changed = (recipe: (draft: Design) => void) => edit(design, (draft) => recipe(draft as Design))!.design;

describe('the joints of a design', () => {
  test('two at each module; four at each cable as soon as there is one; two at each bar', () => {
    expect(jointsOf(design)).toHaveLength(12);
    const more = changed((draft) => {
      draft.circuits[mainCircuit]!.lug = 'x';
      draft.pack.busbars = { bar: { tag: 'Bar' } };
    });
    const joints = jointsOf(more);
    expect(joints).toHaveLength(12 + 4 + 2);
    expect(new Set(joints.map(({ id }) => id)).size).toBe(18);
    expect(joints.every(({ kind }) => kind === null)).toBe(true);
  });

  test('lugs are of the kind of their circuit, or of their stud, or of the one for all', () => {
    const kindOf = (recipe: (draft: Design) => void) => {
      const joints = jointsOf(
        changed((draft) => {
          draft.circuits[mainCircuit]!.lug = 'x';
          draft.circuits[mainCircuit]!.studMm = 10;
          recipe(draft);
        }),
      );
      return joints.find(({ id }) => id === `${mainCircuit}/source-plus`)!.kind;
    };
    const own = { tag: 'own', on: 'lugs', circuit: mainCircuit } as const;
    const stud = (studMm: number) => ({ tag: 'stud', on: 'lugs', studMm }) as const;
    const all = { tag: 'all', on: 'lugs' } as const;
    expect(kindOf((draft) => void (draft.joints = { all, m8: stud(8), m10: stud(10), own }))).toBe('own');
    expect(kindOf((draft) => void (draft.joints = { all, m8: stud(8), m10: stud(10) }))).toBe('m10');
    expect(kindOf((draft) => void (draft.joints = { all, m8: stud(8) }))).toBe('all');
    expect(kindOf((draft) => void (draft.joints = { m8: stud(8) }))).toBeNull();
  });

  test('lugs of one circuit are judged by that circuit’s stud', () => {
    const { figures } = evaluate(
      changed((draft) => {
        draft.circuits[mainCircuit]!.studMm = 10;
        draft.joints = {
          own: { tag: 'own', on: 'lugs', circuit: mainCircuit, studMm: 5, torqueNm: 38, boltClass: '8.8' },
        };
      }),
    );
    expect(figures['joints.kind:own:forceN']!.value).toBeCloseTo(38 / (0.2 * 0.01), 9);
  });

  test('strings that are alike share the load of the main circuit', () => {
    const { figures } = evaluate(
      changed(
        (draft) =>
          void (draft.circuits[mainCircuit]!.loadProfile = [
            [60, 300],
            [60, 100],
          ]),
      ),
    );
    const [string] = Object.keys(design.strings);
    expect(figures[`joints.current:${string}:peakA`]!.value).toBeCloseTo(150, 9);
    expect(figures[`joints.current:${string}:rmsA`]!.value).toBeCloseTo(
      Math.sqrt((300 ** 2 + 100 ** 2) / 2) / 2,
      9,
    );
    expect(figures[`joints.current:${mainCircuit}:peakA`]!.value).toBe(300);
  });
});
