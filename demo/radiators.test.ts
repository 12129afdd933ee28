import { describe, expect, test } from '@jest/globals';
import type { LoopAnswer } from '@torvek/core/cooling';
import { evaluate } from '@torvek/core/design';
import { checkDesign, edit, removePiece, type Design, type PlumbingItem } from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { libraryBus } from './library-bus';

const bus = libraryBus.design;
const changed = (recipe: (draft: Design) => void) => edit(bus, (draft) => recipe(draft as Design))!.design;
const front = 'piece-radiator';
const drive = 'piece-drive-radiator';
const figure = (design: Design, id: string) => evaluate(design).figures[id as FigureId];
const answerOf = (design: Design, loop: string) =>
  evaluate(design).runs[`cooling.loop:${loop}`]?.result as LoopAnswer;

/** The front radiator as one without a sheet. */
const byCore = (more: Partial<PlumbingItem> = {}) =>
  changed((draft) => {
    const own = draft.plumbing![front]!;
    delete own.radiator;
    Object.assign(own, {
      kPaPerLpm: 0.06,
      kPaPerLpm2: 0.006,
      coreWidthMm: 900,
      coreHeightMm: 520,
      coreDepthMm: 48,
    });
    Object.assign(own, more);
  });

describe('a radiator without a sheet', () => {
  test('is known as a band by its core and air, and judged by the lower end of it', () => {
    const design = byCore();
    const hill = answerOf(design, 'loop-pack').cases.find((one) => one.at === 'hill')!;
    // 22.464 L, 0.468 m², 1.1 kg/s of air.
    const by = 22.464 * (1.1 / (0.468 * 4)) ** 0.6;
    expect(hill.radiators[front]!.uaWPerK).toBeCloseTo(40 * by, 6);
    const [worst, best] = ['hottestC', 'hottestBestC'].map(
      (name) => figure(design, `cooling.loop:loop-pack:${name}`)!.value!,
    );
    expect(best!).toBeLessThan(worst! - 0.2);
    const typed = (uaWPerK: number) => figure(byCore({ uaWPerK }), 'cooling.loop:loop-pack:hottestC')!.value!;
    expect(worst!).toBeCloseTo(typed(40 * by), 6);
    expect(best!).toBeCloseTo(typed(90 * by), 6);
    expect(figure(bus, 'cooling.loop:loop-pack:hottestBestC')).toBeUndefined();
    expect(figure(byCore({ uaWPerK: 700 }), 'cooling.loop:loop-pack:hottestBestC')).toBeUndefined();
  });

  test('half a core is none: what is missing is asked for', () => {
    const half = changed((draft) => {
      const own = draft.plumbing![front]!;
      delete own.radiator;
      Object.assign(own, { kPaPerLpm: 0.06, coreWidthMm: 900, coreHeightMm: 520 });
    });
    expect(figure(half, 'cooling.loop:loop-pack:hottestC')).toMatchObject({
      value: null,
      gaps: [{ kind: 'not-given', path: `plumbing.${front}.radiator` }],
    });
  });
});

describe('cores one behind the other', () => {
  const stacked = changed((draft) => {
    const own = draft.plumbing![drive]!;
    own.behind = front;
    delete own.airKgPerS;
    delete own.fan;
  });
  const hottest = (design: Design, loop: string) => figure(design, `cooling.loop:${loop}:hottestC`)!.value!;

  test('share their air: the second has it warmed by all that the loop before it gives off', () => {
    const heatW = figure(bus, 'cooling.hill:vehicle:packHeatW')!.value!;
    const alone = changed((draft) => {
      const own = draft.plumbing![drive]!;
      own.airKgPerS = 1.1;
      delete own.fan;
    });
    const warmed = changed((draft) => {
      draft.cooling!.hotC = (draft.cooling!.hotC ?? 35) + heatW / (1.1 * 1006);
      const own = draft.plumbing![drive]!;
      own.airKgPerS = 1.1;
      delete own.fan;
    });
    const hill = (design: Design) =>
      answerOf(design, 'loop-drive').cases.find((one) => one.at === 'hill')!.nodesC!['join-drive-tank']!;
    expect(answerOf(stacked, 'loop-drive').cases[0]!.radiators[drive]!.airKgPerS).toBe(1.1);
    expect(hill(stacked)).toBeGreaterThan(hill(alone) + 0.1);
    expect(hill(stacked)).toBeCloseTo(hill(warmed), 1);
    expect(hottest(stacked, 'loop-pack')).toBeCloseTo(hottest(bus, 'loop-pack'), 2);
  });

  test('not in a circle, nor behind what is no radiator, nor within one loop', () => {
    const wrong = (behind: string, also: (draft: Design) => void = () => undefined) =>
      figure(
        changed((draft) => {
          draft.plumbing![drive]!.behind = behind;
          also(draft);
        }),
        'cooling.loop:loop-drive:hottestC',
      )!;
    expect(wrong('piece-drive-pump').gaps).toEqual([
      expect.objectContaining({
        kind: 'invalid',
        path: `plumbing.${drive}.behind`,
        message: 'must be a radiator',
      }),
    ]);
    expect(wrong(front, (draft) => void (draft.plumbing![front]!.behind = drive)).gaps[0]).toMatchObject({
      message: 'must not stand behind it itself',
    });
    // Neither has air of its own: each would ask the other for it.
    const airless = wrong(front, (draft) => {
      for (const id of [front, drive]) {
        delete draft.plumbing![id]!.airKgPerS;
        delete draft.plumbing![id]!.fan;
      }
      draft.plumbing![front]!.behind = drive;
    });
    expect(airless.gaps[0]).toMatchObject({ message: 'must not stand behind it itself' });
    expect(wrong(drive).gaps[0]).toMatchObject({ message: 'must not stand behind it itself' });
    expect(wrong(front, (draft) => void (draft.plumbing![front]!.loop = 'loop-drive')).value).toBeNull();
  });

  test('the core in front goes: the other one has the air of the day again', () => {
    const gone = edit(stacked, (draft) => removePiece(draft as Design, front))!.design;
    expect(gone.plumbing![drive]!.behind).toBeUndefined();
    expect(checkDesign(gone).ok).toBe(true);
  });
});
