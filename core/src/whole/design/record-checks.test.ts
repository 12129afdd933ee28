import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankDesign, edit, type Design } from '../../model/document';
import { shapePack } from '../../trade/pack';
import { catalogueOf } from '../../model/parts';
import type { Entry, JointsBody, JointWork } from '../../record';
import { entryOutcome, entryTitle } from '../../record';
import { recordChecks } from '.';
import { bondStates } from '../../trade/bonding';
import { jointBatches, jointsOf, jointStates } from '../../trade/joints';

let made = 0;
const blank = blankDesign();
shapePack(
  blank,
  { strings: 1, modulesPerString: 6, part: catalogueOf('module')[0]! },
  (prefix) => `${prefix}-${(made += 1)}`,
);
const design = edit(blank, (draft) => {
  const one = draft as Design;
  one.joints = { posts: { tag: 'Posts', on: 'modules', torqueNm: 12, retorqueDays: 30, limitOhm: 0.0003 } };
  one.boxes = { 'box-a': { tag: 'Box A' } };
  one.bonds = { 'box-a': { by: 'bolted' } };
})!.design;
const ids = jointsOf(design).map(({ id }) => id);
const tagOf = new Map(jointsOf(design).map(({ id, tag }) => [id, tag]));

let seq = 0;
const walk = (
  takenAt: string,
  work: JointWork,
  values: Record<string, number>,
  currentA: number | null = work === 'torque' ? null : 50,
) => ({
  seq: (seq += 1),
  takenAt,
  body: {
    kind: 'joints',
    work,
    currentA,
    joints: Object.entries(values).map(([joint, value]) => ({
      joint,
      tag: tagOf.get(joint) ?? joint,
      value,
    })),
  } as JointsBody,
});
const each = (value: (i: number) => number) => Object.fromEntries(ids.map((id, i) => [id, value(i)]));
const at = (day: number) => `2026-11-${String(day).padStart(2, '0')}T08:00:00Z`;
const now = (day: number) => Date.parse(at(day));
const alike = (i: number) => 0.002 + 0.0001 * (i % 3);
const raised = (entries: ReturnType<typeof walk>[], nowMs = now(20)) =>
  recordChecks(design, entries as Entry[], nowMs).flatMap((check) =>
    check.state === 'raised' ? [[check.rule.id, check.message]] : [],
  );

describe('where joints stand', () => {
  test('a drop at a current is a resistance; of two readings the later counts, whatever their order', () => {
    const [first = ''] = ids;
    const entries = [
      walk(at(6), 'drop', { [first]: -0.004 }, 40),
      walk(at(5), 'drop', { [first]: 0.02 }, 40),
    ];
    const state = jointStates(design, entries).find(({ id }) => id === first)!;
    expect(state.drop).toEqual({ ohm: 0.0001, currentA: 40, atMs: now(6) });
    expect(state.torque).toBeNull();
  });

  test('a torque after the drop makes it old; the second one ends what was due', () => {
    const [first = ''] = ids;
    const one = (entries: ReturnType<typeof walk>[]) =>
      jointStates(design, entries).find(({ id }) => id === first)!;
    const torqued = walk(at(1), 'torque', { [first]: 12 });
    const read = walk(at(2), 'drop', { [first]: 0.002 });
    const again = walk(at(3), 'torque', { [first]: 11.5 });
    expect(one([torqued, read])).toMatchObject({ dropStale: false, dueMs: now(1) + 30 * 86.4e6 });
    expect(one([torqued, read, again])).toMatchObject({
      dropStale: true,
      dueMs: null,
      torque: { torqueNm: 11.5, times: 2, firstMs: now(1) },
    });
  });

  test('a joint that the design no longer has is left out', () => {
    expect(
      jointStates(design, [walk(at(1), 'drop', { 'gone/plus': 1 })]).every(({ drop }) => drop === null),
    ).toBe(true);
  });
});

describe('what the record says against joints', () => {
  test('nothing of those that were not measured', () => {
    expect(recordChecks(design, [], now(20))).toEqual([]);
  });

  test('alike, torqued as designed, not due: all clear', () => {
    const entries = [
      walk(
        at(1),
        'torque',
        each(() => 12),
      ),
      walk(at(2), 'drop', each(alike)),
    ];
    const checks = recordChecks(design, entries as Entry[], now(20));
    expect(checks.map(({ rule, state }) => [rule.id, state])).toEqual([
      ['joints.outlier', 'clear'],
      ['joints.over-limit', 'clear'],
      ['joints.torque-off', 'clear'],
      ['joints.retorque-due', 'clear'],
    ]);
  });

  test('the one that differs is named, with its resistance and that of the middle', () => {
    expect(
      raised([
        walk(
          at(2),
          'drop',
          each((i) => (i === 4 ? 0.0094 : alike(i))),
        ),
      ]),
    ).toEqual([
      [
        'joints.outlier',
        `Posts: ${tagOf.get(ids[4]!)} lies far above the rest, at 188 µΩ; the middle is 42 µΩ.`,
      ],
    ]);
  });

  test('one far below is no fault; one of twice the middle is one even where all others are equal', () => {
    expect(
      raised([
        walk(
          at(2),
          'drop',
          each((i) => (i === 4 ? 0.0002 : 0.002)),
        ),
      ]),
    ).toEqual([]);
    expect(
      raised([
        walk(
          at(2),
          'drop',
          each((i) => (i === 4 ? 0.0042 : 0.002)),
        ),
      ])[0]![0],
    ).toBe('joints.outlier');
  });

  test('too few make no batch', () => {
    const [a = '', b = '', c = ''] = ids;
    expect(raised([walk(at(2), 'drop', { [a]: 0.001, [b]: 0.001, [c]: 0.01 })])).toEqual([]);
  });

  test('a limit of the design is one whatever the others have', () => {
    expect(
      raised([
        walk(
          at(2),
          'drop',
          each(() => 0.02),
        ),
      ]),
    ).toEqual([
      [
        'joints.over-limit',
        expect.stringMatching(/^Posts: .* and 10 others have up to 400 µΩ; 300 µΩ are allowed\.$/),
      ],
    ]);
  });

  test('a torque beyond a tenth of the designed one, and a day that has passed', () => {
    const entries = [
      walk(
        at(1),
        'torque',
        each((i) => (i === 0 ? 9 : i === 1 ? 13.2 : 12)),
      ),
    ];
    expect(raised(entries)).toEqual([
      [
        'joints.torque-off',
        `Posts: ${tagOf.get(ids[0]!)} was torqued otherwise than with 12 N·m, ${tagOf.get(ids[0]!)} with 9 N·m.`,
      ],
    ]);
    expect(raised(entries, Date.parse('2026-12-02T08:00:00Z')).at(-1)).toEqual([
      'joints.retorque-due',
      'Posts: 12 of 12 are to be torqued again since 2026-12-01, 30 days after the first time.',
    ]);
  });

  test('whatever is read, an outlier lies above the middle and some joint does not', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1e-6, max: 1, noNaN: true }), { minLength: 12, maxLength: 12 }),
        (drops) => {
          const [batch] = jointBatches(
            jointStates(design, [
              walk(
                at(2),
                'drop',
                each((i) => drops[i]!),
              ),
            ]),
          );
          const { median } = batch!.scores;
          batch!.outliers.forEach((is, i) => {
            if (is) expect(batch!.states[i]!.drop!.ohm).toBeGreaterThan(median!);
          });
          expect(batch!.outliers.filter(Boolean).length).toBeLessThan(7);
        },
      ),
    );
  });
});

describe('bonds', () => {
  test('a tenth of an ohm is too much, and too small a current shows nothing', () => {
    const bond = (dropV: number, currentA: number) =>
      raised([walk(at(2), 'bond', { 'box-a': dropV }, currentA)]);
    expect(bond(0.0049, 0.05 * 10)).toEqual([]);
    expect(bond(0.05, 0.5)).toEqual([
      ['bonding.measured', 'Box A has 100 mΩ to the chassis at 0.5 A; below 0.1 Ω is asked.'],
    ]);
    expect(bond(0.0001, 0.1)).toEqual([
      ['bonding.measured', 'Box A was measured at 0.1 A; 0.2 A or more are asked.'],
    ]);
  });
  test('a body that does not conduct has no bond to measure', () => {
    const plastic = edit(
      design,
      (draft) => void ((draft as Design).bonds!['box-a']!.by = 'not-conductive'),
    )!.design;
    expect(bondStates(plastic, [])).toEqual([]);
    expect(bondStates(design, []).map(({ id }) => id)).toEqual(['box-a']);
  });
});

test('an entry says in one line what was done, and how it came out', () => {
  const drops = walk(at(2), 'drop', each(alike));
  expect(entryTitle(drops.body)).toBe('Drops read at 12 joints');
  expect(entryOutcome({ body: drops.body, witness: null })).toBe('2 to 2.2 mV at 50 A');
  const torque = walk(at(2), 'torque', { [ids[0]!]: 12 });
  expect(entryTitle(torque.body)).toBe(`Torqued ${tagOf.get(ids[0]!)}`);
  expect(entryOutcome({ body: torque.body, witness: null })).toBe('12 N·m');
});
