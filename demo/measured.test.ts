import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import type { RaisedCheck } from '@torvek/core/figure';
import { checkDesign, edit, removeDatum, runLengths, type Design } from '@torvek/core/document';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const run = 'run-dcdc';
const changed = (recipe: (draft: Design) => void) => edit(bus, (draft) => recipe(draft as Design))!.design;
const figure = (design: Design, name: string, of = run) =>
  evaluate(design).figures[`routing.run:${of}:${name}` as never]!;
const check = (design: Design, rule: string, subject = run) =>
  evaluate(design).checks.find((one) => one.rule.id === rule && one.subjects[0] === subject) as
    (RaisedCheck & { state: string }) | undefined;

describe('how well a length is known', () => {
  test('each point as far off as it may be: ends by themselves, a corner by both of its legs', () => {
    // 1.02 m across, then (-0.675, 0, -0.06): a right angle; √2 of the corner’s 5 mm, and 3 mm at either end.
    expect(figure(bus, 'toleranceMm').value).toBeCloseTo(3 + 5 * Math.SQRT2 + 3, 9);
    const one = changed((draft) => void delete draft.runs![run]!.points![1]!.tolMm);
    expect(figure(one, 'toleranceMm')).toMatchObject({
      value: null,
      gaps: [{ kind: 'not-given', path: `runs.${run}.points.1.tolMm` }],
    });
    expect(figure(bus, 'toleranceMm', 'run-compressor')).toBeUndefined();
  });

  test('is held against slack and loops where the cable is cut before it is laid', () => {
    const fixed = (tolMm: number, loopMm?: number) =>
      changed((draft) => {
        const own = draft.runs![run]!;
        own.toFixed = true;
        for (const point of own.points!) point.tolMm = tolMm;
        if (loopMm !== undefined) own.toLoopMm = loopMm;
      });
    const slackMm = figure(bus, 'pathLengthM').value! * 30;
    expect(check(bus, 'run.loose-length')).toBeUndefined();
    expect(check(fixed(slackMm / 3.5), 'run.loose-length')?.state).toBe('clear');
    const raised = check(fixed(slackMm / 3.4), 'run.loose-length')!;
    expect(raised.state).toBe('raised');
    expect(raised.values.map(({ value }) => value)[1]).toBeCloseTo(slackMm, 6);
    expect(check(fixed(slackMm / 3.4, 30), 'run.loose-length')?.state).toBe('clear');
  });

  test('loops are counted in the length, in every figure that goes by it, and cannot be less than nothing', () => {
    const looped = changed(
      (draft) => void Object.assign(draft.runs![run]!, { fromLoopMm: 120, toLoopMm: 80 }),
    );
    expect(figure(looped, 'cutLengthM').value).toBeCloseTo(figure(bus, 'cutLengthM').value! + 0.2, 9);
    expect(runLengths(looped.runs![run]!)!.cutM).toBeCloseTo(figure(looped, 'cutLengthM').value!, 9);
    const wrong = changed((draft) => void (draft.runs![run]!.fromLoopMm = -50));
    expect(figure(wrong, 'cutLengthM')).toMatchObject({
      value: null,
      gaps: [{ kind: 'invalid', path: `runs.${run}.fromLoopMm` }],
    });
  });
});

describe('marks of the body', () => {
  test('a point that was taped from them is held against them, to twice the tape or what it may be off', () => {
    expect(check(bus, 'run.taped-off')?.state).toBe('clear');
    const moved = (byM: number, tolMm = 3) =>
      changed((draft) => {
        draft.datums!['datum-crossmember']!.xM! += byM;
        draft.runs![run]!.points![2]!.tolMm = tolMm;
      });
    const raised = check(moved(0.02), 'run.taped-off')!;
    expect(raised.message).toMatch(
      /point 3 lies 1[56]\.?\d* mm off what was taped from Middle hole .*6 mm are allowed/,
    );
    expect(check(moved(0.02, 20), 'run.taped-off')?.state).toBe('clear');
    const nowhere = changed((draft) => void delete draft.datums!['datum-floor']!.zM);
    expect(check(nowhere, 'run.taped-off')).toMatchObject({
      state: 'not-checked',
      gaps: [{ path: 'datums.datum-floor.zM' }],
    });
  });

  test('one that goes leaves its points where they are', () => {
    const less = changed((draft) => removeDatum(draft, 'datum-floor'));
    expect(checkDesign(less).ok).toBe(true);
    expect(less.runs![run]!.points![2]).toMatchObject({ xM: -3.175, tolMm: 3 });
    expect(less.runs![run]!.points![2]!.taped).toBeUndefined();
    const dangling = JSON.parse(JSON.stringify(bus)) as Design;
    delete dangling.datums!['datum-floor'];
    expect(checkDesign(dangling).ok).toBe(false);
  });
});

describe('entries that get wet', () => {
  const entering = (zs: [number, number, number], entry: 'gland' | 'dry' = 'gland') =>
    check(
      changed((draft) => {
        const own = draft.runs![run]!;
        own.fromEntry = entry;
        own.bendRadiusMm = 40;
        own.points = zs.map((zM, i) => ({ xM: -2.5 - 0.15 * i, yM: -0.4, zM }));
        own.points.push({ xM: -3.2, yM: -0.4, zM: zs[2] });
      }),
      'run.no-drip',
      `${run}/from`,
    );

  test('a cable that only rises from its entry leads the water in; one that hangs below it first does not', () => {
    const rising = entering([0.7, 0.7, 0.85])!;
    expect(rising.state).toBe('raised');
    expect(rising.message).toContain(
      'comes down to its gland where it begins, and hangs 0 mm below it before',
    );
    expect(entering([0.7, 0.6, 0.85])?.state).toBe('clear');
    expect(entering([0.7, 0.7, 0.7])?.state).toBe('clear');
    expect(entering([0.7, 0.65, 0.5])?.state).toBe('clear');
  });

  test('what rises only farther off than a cable drips is no matter', () => {
    const far = (awayM: number) =>
      check(
        changed((draft) => {
          const own = draft.runs![run]!;
          own.fromEntry = 'gland';
          own.bendRadiusMm = 40;
          own.points = [
            { xM: -2.5, yM: -0.4, zM: 0.7 },
            { xM: -2.5 - awayM, yM: -0.4, zM: 0.7 },
            { xM: -2.5 - awayM, yM: -0.4, zM: 1.1 },
            { xM: -3.6, yM: -0.4, zM: 1.1 },
          ];
        }),
        'run.no-drip',
        `${run}/from`,
      )?.state;
    expect([far(0.4), far(0.75)]).toEqual(['raised', 'clear']);
  });

  test('where it stays dry, or nobody said how it enters, nothing is asked', () => {
    expect(entering([0.7, 0.7, 0.85], 'dry')).toBeUndefined();
    expect(check(bus, 'run.no-drip', 'run-inlet/from')).toBeUndefined();
  });
});
