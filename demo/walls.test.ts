import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import { edit, removeBox, removeRun, type Design } from '@torvek/core/document';
import { orchardTruck } from './orchard-truck';

const changed = (recipe: (draft: Design) => void): Design =>
  edit(orchardTruck.design, (draft) => recipe(draft as Design))!.design;
const main = (draft: Design) => draft.openings!['opening-main']!;
const stateOf = (rule: string, subject: string, recipe: (draft: Design) => void) =>
  evaluate(changed(recipe)).checks.find(({ key }) => key === `${rule}|${subject}`)?.state;

describe('an opening in a wall', () => {
  // The glands of the main pair are M25.
  test.each([
    [24.99, 'raised'],
    [25, 'clear'],
    [26, 'clear'],
    [26.01, 'raised'],
  ])('a hole of %s mm for M25: %s', (holeMm, state) => {
    expect(stateOf('wall.hole-off', 'opening-main', (draft) => void (main(draft).holeMm = holeMm))).toBe(
      state,
    );
  });

  test('of a run with motor phases alone no gland is known, and the hole is not called right', () => {
    const phases = changed((draft) => {
      delete draft.runs!['run-main']!.circuits;
      draft.runs!['run-main']!.phasesOf = 'device-inverter';
    });
    expect(evaluate(phases).checks.find(({ key }) => key === 'wall.hole-off|opening-main')).toMatchObject({
      state: 'not-checked',
      gaps: [{ path: 'runs.run-main.circuits' }],
    });
  });

  // 40 mm stiff and a bend of 84 mm.
  test.each([
    ['insideMm', 124, 'clear'],
    ['insideMm', 123.9, 'raised'],
    ['outsideMm', 124, 'clear'],
    ['outsideMm', 123.9, 'raised'],
  ] as const)('%s of %s mm: %s', (side, room, state) => {
    expect(stateOf('wall.room-short', 'opening-main', (draft) => void (main(draft)[side] = room))).toBe(
      state,
    );
  });

  test('a stiffer cable asks for more room', () => {
    const stiff = (stiffMm: number) =>
      stateOf('wall.room-short', 'opening-main', (draft) => void Object.assign(main(draft), { stiffMm }));
    expect(stiff(56)).toBe('clear');
    expect(stiff(57)).toBe('raised');
  });

  test('glands and blanks side by side: each nut 1.5 times its hole, 6 mm for the spanner', () => {
    const taken = (recipe: (draft: Design) => void) =>
      evaluate(changed(recipe)).figures['routing.face:box-seat/left:takenMm']!.value;
    expect(taken((draft) => void (main(draft).holeMm = 26))).toBeCloseTo(2 * (26 * 1.5 + 6), 9);
    expect(taken((draft) => void Object.assign(main(draft), { by: 'grommet', count: 3 }))).toBeCloseTo(
      3 * (25.3 + 6),
      9,
    );
    // The left face is 780 mm long: 17 of 43.95 mm fit, 18 do not.
    const crowded = (count: number) =>
      stateOf('wall.face-crowded', 'box-seat/left', (draft) => void (main(draft).count = count));
    expect(crowded(17)).toBe('clear');
    expect(crowded(18)).toBe('raised');
  });

  test('what stays unused needs a blank, a vent none, and what passes needs more than a hole', () => {
    const open = (passes: string, by: string) =>
      stateOf('wall.left-open', 'opening-main', (draft) => void Object.assign(main(draft), { passes, by }));
    expect([open('nothing', 'blank'), open('nothing', 'gland'), open('cables', 'open')]).toEqual([
      'clear',
      'raised',
      'raised',
    ]);
    expect([open('vent', 'open'), open('hose', 'grommet'), open('loom', 'open')]).toEqual([
      'clear',
      'clear',
      'raised',
    ]);
  });

  test('a run that goes leaves its hole behind; a box that goes takes its openings along', () => {
    const without = changed((draft) => removeRun(draft, 'run-main'));
    expect(main(without)).toMatchObject({ tag: 'Main pair', holeMm: 25.3 });
    expect(main(without).run).toBeUndefined();
    const check = evaluate(without).checks.find(({ key }) => key === 'wall.hole-off|opening-main');
    expect(check).toMatchObject({
      state: 'not-checked',
      gaps: [{ kind: 'not-given', path: 'openings.opening-main.run' }],
    });
    expect(changed((draft) => removeBox(draft, 'box-seat')).openings).toEqual({});
  });
});
