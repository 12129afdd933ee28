import { describe, expect, test } from '@jest/globals';
import { createEvaluator } from '@torvek/core/design';
import { blankDesign, edit, type Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import type { LoopAnswer } from '@torvek/core/cooling';
import { libraryBus } from '../../../../../demo/library-bus';
import ElkBundled from 'elkjs/lib/elk.bundled.js';
import type { Elk } from '../../../parts/elk';
import { coolPanelOf, coolPanelOfRule } from '../panels';
import { banksOf, makeBank, swapEnds, turnReturn } from './bank';
import { textYOf } from './loop-drawing';
import { layOutLoop, linesOf, loopGraph, middleOf, sizeOf } from './loop-graph';
import { sentenceOf, statesOf } from './states';

const elk = new (ElkBundled as unknown as new () => Elk)();
const ofKind = <K extends 'pump' | 'plate' | 'hose' | 'radiator'>(kind: K, id: string) =>
  catalogueOf(kind).find((part) => part.id === id)!;

/** A pump and a radiator, and a bank of plates between them. */
function loopWith(plates: number, returns: 'direct' | 'reverse'): Design {
  return edit(blankDesign(), (one) => {
    const draft = one as Design;
    draft.loops = { loop: { tag: 'Loop 1' } };
    draft.joins = {
      tank: { tag: 'Tank', loop: 'loop' },
      feed: { tag: 'Feed', loop: 'loop' },
      back: { tag: 'Back', loop: 'loop' },
    };
    draft.plumbing = {
      pump: {
        tag: 'Pump',
        loop: 'loop',
        kind: 'pump',
        from: 'tank',
        to: 'feed',
        pump: pin(draft, ofKind('pump', 'tarnbeck-c30')),
      },
      radiator: {
        tag: 'Radiator',
        loop: 'loop',
        kind: 'radiator',
        from: 'back',
        to: 'tank',
        radiator: pin(draft, ofKind('radiator', 'galewood-k560')),
      },
    };
    makeBank(draft, 'bank-1', {
      loop: 'loop',
      from: 'feed',
      to: 'back',
      plates,
      returns,
      plate: pin(draft, ofKind('plate', 'ollerton-p300')),
      hose: pin(draft, ofKind('hose', 'wendover-h10')),
      spacingM: 0.25,
      modules: [],
    });
  })!.design;
}
const answerOf = (design: Design) =>
  createEvaluator().evaluate(design).runs['cooling.loop:loop']?.result as LoopAnswer;
const worst = (design: Design) => answerOf(design).balance[0]!.result.worstImbalanceFraction!;
const graphOf = (design: Design) =>
  loopGraph('loop', {
    loops: design.loops!,
    joins: design.joins!,
    plumbing: design.plumbing!,
    boxOf: () => null,
  });

describe('a bank of plates', () => {
  test('ten plates with a direct return are uneven; a reverse return evens them out; turned twice it is as before', () => {
    const direct = loopWith(10, 'direct');
    const reverse = loopWith(10, 'reverse');
    expect(worst(direct)).toBeGreaterThan(0.5);
    expect(worst(reverse)).toBeLessThan(0.6 * worst(direct));
    const turned = edit(direct, (draft) => turnReturn(draft as Design, 'bank-1'))!.design;
    expect(turned).toEqual(reverse);
    // Hoses are named by the way the coolant goes in them.
    const { elements, flows } = answerOf(reverse);
    elements.forEach(({ kind }, i) => kind === 'pipe' && expect(flows[i]!).toBeGreaterThan(0));
    expect(banksOf(turned, 'loop')).toEqual([{ id: 'bank-1', plates: 10, returns: 'reverse' }]);
    const again = edit(turned, (draft) => turnReturn(draft as Design, 'bank-1'))!.design;
    expect(again).toEqual(direct);
  });
  test('modules are shared out in order, all of them and none twice', () => {
    const modules = Array.from({ length: 7 }, (_, i) => `m${i}`);
    const draft = { ...blankDesign(), loops: { loop: { tag: 'L' } } };
    makeBank(draft, 'b', {
      loop: 'loop',
      from: null,
      to: null,
      plates: 3,
      returns: 'direct',
      plate: 'p@1',
      hose: 'h@1',
      spacingM: 0.2,
      modules,
    });
    const on = [1, 2, 3].map((i) => draft.plumbing![`b-plate${i}`]!.modules!);
    expect(on.flat()).toEqual(modules);
    expect(on.map(({ length }) => length)).toEqual([2, 3, 2]);
    expect([draft.joins!['b-in'], draft.joins!['b-out']]).toEqual([
      { tag: 'Bank, in', loop: 'loop' },
      { tag: 'Bank, out', loop: 'loop' },
    ]);
  });
  test('one that was taken apart by hand is no bank any more', () => {
    const design = edit(
      loopWith(4, 'direct'),
      (draft) => void delete (draft as Design).plumbing!['bank-1-back2'],
    )!.design;
    expect(banksOf(design, 'loop')).toEqual([]);
  });
  test('a piece with one end swaps to the other', () => {
    const design = edit(loopWith(3, 'direct'), (draft) => {
      delete (draft as Design).plumbing!['pump']!.to;
      swapEnds(draft as Design, 'pump');
    })!.design;
    expect(design.plumbing!['pump']).toMatchObject({ to: 'tank' });
    expect(design.plumbing!['pump']).not.toHaveProperty('from');
  });
});

describe('the picture of a loop', () => {
  test('draws every piece once, every hose as a line, and joins where more than two meet', () => {
    const graph = graphOf(loopWith(4, 'direct'));
    expect(
      graph.nodes
        .filter(({ piece }) => piece !== null)
        .map(({ piece }) => piece)
        .sort(),
    ).toEqual(['pump', 'radiator', ...[1, 2, 3, 4].map((i) => `bank-1-plate${i}`)].sort());
    const hoses = graph.edges.filter(({ isHose }) => isHose).map(({ piece }) => piece);
    expect(new Set(hoses).size).toBe(hoses.length);
    expect(hoses).toHaveLength(8);
    const ids = new Set(graph.nodes.map(({ id }) => id));
    for (const { from, to } of graph.edges) expect([ids.has(from), ids.has(to)]).toEqual([true, true]);
  });
  test('two pieces that meet are joined by one line', () => {
    const graph = graphOf(loopWith(2, 'direct'));
    const between = graph.edges.filter(
      ({ from, to }) => [from, to].sort().join() === 'piece|pump,piece|radiator',
    );
    expect(between).toHaveLength(1);
  });
  test('nothing lies over anything else, and the same loop gives the same picture', async () => {
    const graph = graphOf(loopWith(5, 'reverse'));
    const [one, two] = [await layOutLoop(graph, elk), await layOutLoop(graph, elk)];
    expect(two).toEqual(one);
    const spots = [...one.nodes.values()];
    spots.forEach((a, i) =>
      spots.slice(i + 1).forEach((b) => {
        const apart =
          a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
        expect(apart).toBe(true);
      }),
    );
    for (const { id } of graph.edges) expect(one.edges.get(id)!.length).toBeGreaterThan(1);
  });
  test('the arrow stands in the longest stretch, along it', () => {
    expect(
      middleOf([
        [0, 0],
        [10, 0],
        [10, 40],
      ]),
    ).toEqual({ x: 10, y: 20, turn: 90, long: 40 });
    expect(middleOf([[0, 0]])).toBeNull();
  });
});

describe('what is said of a loop', () => {
  test('a starved plate, a shut valve and a piece that stands are marked by a word', () => {
    const design = edit(loopWith(4, 'direct'), (one) => {
      const draft = one as Design;
      draft.plumbing!['bank-1-plate4']!.kPaPerLpm = 4000;
      draft.plumbing!['tap'] = {
        tag: 'Tap',
        loop: 'loop',
        kind: 'valve',
        from: 'feed',
        to: 'back',
        kvM3PerH: 1,
        openFraction: 0,
      };
    })!.design;
    const states = statesOf(answerOf(design), 'flows');
    expect(states.get('bank-1-plate4')!.mark).toBe(
      Math.abs(states.get('bank-1-plate4')!.flow!) < 0.005 ? 'stands still' : 'starved',
    );
    const marks = ['tap', ...[1, 2, 3].map((i) => `bank-1-plate${i}`)].map((id) => states.get(id)!.mark);
    expect(marks).toEqual(['shut', null, null, null]);
    // Less than the others is not starved yet.
    const uneven = statesOf(answerOf(loopWith(6, 'direct')), 'flows');
    expect([...uneven.values()].map(({ mark }) => mark).filter((mark) => mark !== null)).toEqual([]);
    expect(statesOf(null, 'flows').size).toBe(0);
  });
  test('the sentence tells of a bypass and of what differs', () => {
    expect(sentenceOf('Pack', 24.36, 0.31, 0.42)).toBe(
      'Pack: 24.4 L/min; only 31 % of it through what is cooled; like plates differ by up to 42 %.',
    );
    expect(sentenceOf('Pack', null, null, null)).toBe('Pack: not computed yet.');
    expect(sentenceOf('Drive', 11, 1, null)).toBe('Drive: 11.0 L/min.');
  });
  test('a name stands in one line, or in two where that makes its box narrower; none of the bus is cut', () => {
    const { plumbing = {} } = libraryBus.design;
    for (const { tag } of Object.values(plumbing)) expect(linesOf(tag).join(' ')).toBe(tag);
    expect(linesOf('Plate tail 1')).toEqual(['Plate tail 1']);
    expect(linesOf('Coolant heater')).toEqual(['Coolant', 'heater']);
    expect(linesOf('Hose from the pump to the heater')).toEqual([expect.any(String), expect.any(String)]);
    expect(linesOf('Unbrokenverylongnameofapiece')).toEqual([expect.stringMatching(/^Unbroken.*…$/)]);
    const sizeOfTag = (tag: string) =>
      sizeOf({ id: 'x', kind: 'plate', tag } as Parameters<typeof sizeOf>[0]);
    expect(sizeOfTag('Coolant heater').width).toBeLessThan(sizeOfTag('Plate tail 1').width);
    expect(sizeOfTag('Coolant heater').height - sizeOfTag('Plate tail 1').height).toBe(14);
  });

  test('a flow is written above its line, and below it where a piece lies above', () => {
    const spot = { x: 100, y: 40, width: 80, height: 50 };
    expect(textYOf({ x: 140, y: 200 }, 4, [spot])).toBe(193);
    expect(textYOf({ x: 140, y: 100 }, 4, [spot])).toBe(115);
    expect(textYOf({ x: 300, y: 100 }, 4, [spot])).toBe(93);
    // What lies below the line is in nobody’s way.
    expect(textYOf({ x: 140, y: 30 }, 4, [spot])).toBe(23);
  });

  test('places and rules lead to their panel', () => {
    expect(coolPanelOf({ panel: 'cold' })).toBe('cold');
    expect(coolPanelOf({ at: 'plumbing.piece-1.lengthM' })).toBe('loops');
    expect(coolPanelOf({ at: 'loops.loop-1.tankL' })).toBe('fill');
    expect(coolPanelOf({ at: 'boxes.box-1.walls' })).toBe('cold');
    expect(coolPanelOf({ at: 'cooling.fastChargeW' })).toBe('worst');
    expect(coolPanelOf({ at: 'cooling.repeats' })).toBe('time');
    expect(coolPanelOf({})).toBe('loops');
    expect(
      ['warm-up.never', 'expansion.tank', 'loop-balance.bypass', 'cooling.drive-hot'].map((rule) =>
        coolPanelOfRule(rule),
      ),
    ).toEqual(['cold', 'fill', 'loops', 'time']);
    // Of a rule for everything, where its thing is.
    expect(coolPanelOfRule('cooling.unusual', ['cooling'])).toBe('worst');
    expect(coolPanelOfRule('cooling.unusual', ['join-1'])).toBe('loops');
  });
});
