import { describe, expect, test } from '@jest/globals';
import { evaluate } from '../../whole/design';
import { bus350, van230 } from '../../whole/design/clean/library';
import { edit, type Design } from '../../model/document';
import { cablesBetweenBoxes } from './leads-said';

const changed = (design: Design, recipe: (draft: Design) => void) =>
  edit(design, (draft) => recipe(draft as Design))?.design ?? design;
const check = (design: Design, rule: string, subject: string) =>
  evaluate(design).checks.find((one) => one.rule.id === rule && one.subjects.includes(subject));
const valuesOf = (design: Design, rule: string, subject: string) => {
  const found = check(design, rule, subject);
  if (found === undefined || found.state === 'not-checked') throw new Error(`${rule} is not judged`);
  return Object.fromEntries(found.values.map(({ label, value }) => [label, value]));
};

describe('ways between boxes', () => {
  test('each where the box changes, and from the ends to where strings meet', () => {
    expect(cablesBetweenBoxes(van230)).toEqual([]);
    const bare = changed(van230, (draft) => delete draft.pack.leads);
    expect(cablesBetweenBoxes(bare).map(({ string, joint }) => [string, joint])).toEqual([
      ['string-1', 15],
      ['string-1', 0],
    ]);
  });

  test('contactors in the box of the positive end: only the negative end comes from another box', () => {
    // Nose, floor, tail; the strings meet in the tail box.
    expect(cablesBetweenBoxes(bus350).map(({ string, joint }) => [string, joint])).toEqual(
      ['string-1', 'string-2'].flatMap((id) => [
        [id, 3],
        [id, 6],
        [id, 0],
      ]),
    );
  });

  test('mains in a box of their own are one way more, of the whole pack', () => {
    const apart = changed(bus350, (draft) => (draft.pack.mainsBox = 'box-nose'));
    expect(cablesBetweenBoxes(apart).at(-1)).toEqual({
      string: null,
      what: 'where strings meet to the mains',
    });
  });

  test('one box has no way between boxes', () => {
    expect(cablesBetweenBoxes({ ...van230, boxes: {} })).toEqual([]);
  });
});

describe('a cable of the pack against its fuse', () => {
  const rule = 'cable.pack-cable-fault';

  test('the cable bears (k·S)²; the string’s own fault is the pack’s', () => {
    const values = valuesOf(van230, rule, 'lead-boxes');
    expect(values['the cable bears']).toBeCloseTo((123 * 25) ** 2, 0);
    const { figures } = evaluate(van230);
    expect(values['largest fault']).toBeCloseTo(
      figures['fuse.fault:circuit-main/largest:prospectiveA']!.value!,
      6,
    );
    expect(values['smallest fault']).toBeCloseTo(
      figures['fuse.fault:circuit-main/smallest:prospectiveA']!.value!,
      6,
    );
    expect(values['let through']).toBeGreaterThan(0);
    expect(values['let through']).toBeLessThan(values['the cable bears']!);
  });

  test('of one of two strings the other feeds the fault, and it has half of the smallest', () => {
    const design = changed(bus350, (draft) => {
      draft.pack.leads = {
        'lead-x': { tag: 'x', string: 'string-2', joint: 3, cable: 'marl-x70@1', lengthM: 2, ambientC: 35 },
      };
    });
    const values = valuesOf(design, rule, 'lead-x');
    const { figures } = evaluate(design);
    const largest = figures['fuse.fault:circuit-main/largest:prospectiveA']!.value!;
    const others = figures['fuse.strings:pack:faultA']!.value!;
    expect(values['largest fault']).toBeCloseTo(Math.max(largest / 2, others), 6);
    expect(values['smallest fault']).toBeCloseTo(
      figures['fuse.fault:circuit-main/smallest:prospectiveA']!.value! / 2,
      6,
    );
    // The fuse of its own string ends it, not the main one.
    const thin = changed(design, (draft) => {
      draft.parts['marl-x4@1'] = bus350.parts['marl-x4@1']!;
      draft.pack.leads!['lead-x']!.cable = 'marl-x4@1';
    });
    const found = check(thin, rule, 'lead-x')!;
    expect(found.state === 'raised' && found.parts).toEqual(['marl-x4@1', 'calderside-f250@1']);
  });

  test('carries the share of its string: the hardest working one', () => {
    const { figures } = evaluate(bus350);
    const design = changed(bus350, (draft) => {
      draft.pack.leads = {
        'lead-x': { tag: 'x', string: 'string-1', joint: 3, cable: 'marl-x70@1', lengthM: 2, ambientC: 35 },
        'lead-y': { tag: 'y', cable: 'marl-x70@1', lengthM: 2, ambientC: 35 },
      };
    });
    const load = (lead: string) => valuesOf(design, 'cable.overloaded', lead)['load'];
    expect(load('lead-x')! / figures['fuse.strings:pack:mostRmsA']!.value!).toBeCloseTo(1, 1);
    expect(load('lead-y')).toBeCloseTo(figures['network.load:circuit-main:rmsA']!.value!, 6);
  });
});
