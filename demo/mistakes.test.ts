import { describe, expect, test } from '@jest/globals';
import { createEvaluator } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import { silenced } from '../core/src/whole/design/mistakes/silenced';
import { raisedOf, tryMistake } from '../core/src/whole/design/mistakes/try';
import { libraryBus } from './library-bus';
import { mistakesOfDemos } from './mistakes';
import { orchardTruck } from './orchard-truck';

const demos: [name: 'bus' | 'truck', design: Design, least: number][] = [
  ['bus', libraryBus.design, 235],
  ['truck', orchardTruck.design, 62],
];

const rooms = [
  'supplies',
  'inlets',
  'cuts',
  'limits',
  'sensing',
  'boards',
  'sensors',
  'currentSensors',
  'lowVoltage',
  'loads',
  'services',
  'ends',
  'bundles',
  'wires',
  'runs',
  'hazards',
  'zones',
  'cooling',
  'loops',
  'joins',
  'plumbing',
] as const;

/** What is gone with a field because the thing itself is, or because that it is not there is said by itself. */
const goneWithIt: Record<string, RegExp> = {
  'sensing.school': /^monitoring\.donor/,
  'lowVoltage.converter': /^charge\.branch-load/,
  // Of a way that cannot be drawn nothing is known of its tubes: the way itself is not checked.
  'runs.circuits': /^(bonding|cable|run)\./,
  'runs.bendRadiusMm': /^(bonding|cable)\./,
  'runs.points': /^(bonding|cable|bend-card|conduit-fit|pull)\./,
  'cooling.school': /^cooling\.school/,
  'loops.tank': /^cooling\.tank-low/,
  'plumbing.loop': /^(cooling|heater-at-voltage|warm-up)\./,
  'plumbing.pump': /^cooling\.part-hot/,
  'plumbing.heater': /^(cooling|heater-at-voltage|warm-up)\./,
  'plumbing.hose': /^cooling\.part-hot/,
  'plumbing.plate': /^cooling\.least-flow/,
};

describe.each(demos)('the %s', (name, design, least) => {
  const mistakes = mistakesOfDemos[name];

  test('has many mistakes made to it, each called its own', () => {
    expect(mistakes.length).toBeGreaterThanOrEqual(least);
    expect(new Set(mistakes.map(({ says }) => says)).size).toBe(mistakes.length);
  });

  test('says so of each, with the grade and of the thing that it is', () => {
    const evaluator = createEvaluator();
    const before = raisedOf(evaluator.evaluate(design));
    const missed = mistakes.flatMap((one) => {
      const words = tryMistake(one, design, before, evaluator);
      return words === null ? [] : [`${one.says}: ${words ?? 'there is nothing to do it to'}`];
    });
    expect(missed).toEqual([]);
  });

  test('a gap silences no rule: what cannot be judged says so', () => {
    expect(silenced(design, rooms, goneWithIt, createEvaluator(), 3)).toEqual([]);
  });
});
