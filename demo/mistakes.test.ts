import { describe, expect, test } from '@jest/globals';
import { createEvaluator, whyLapsed } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import type { RaisedCheck } from '@torvek/core/figure';
import type { AcceptanceBody } from '@torvek/core/record';
import { silenced } from '../core/src/whole/design/mistakes/silenced';
import { raisedOf, tryMistake } from '../core/src/whole/design/mistakes/try';
import { times } from '../scripts/testing/thorough';
import { libraryBus } from './library-bus';
import { mistakesOfDemos } from './mistakes';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';

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
  'adapters',
  'colours',
  'wires',
  'runs',
  'hazards',
  'zones',
  'openings',
  'cooling',
  'loops',
  'joins',
  'plumbing',
] as const;

/** What is gone with a field because the thing itself is, or because that it is not there is said by itself. */
const goneWithIt: Record<string, RegExp> = {
  // Without one of its own the charger answers the pilot.
  'inlets.controller': /^(charge|low-voltage)\.controller/,
  'sensing.school': /^monitoring\.donor/,
  // Who goes by no line of the code differs from none.
  'colours.colour': /^looms\.colour-differs/,
  'wires.code': /^looms\.colour-differs/,
  'lowVoltage.converter': /^charge\.(branch-load|over-part)/,
  // Of a way that cannot be drawn nothing is known of its tubes: the way itself is not checked.
  'runs.circuits': /^(bonding|cable|run)\./,
  'runs.bendRadiusMm': /^(bonding|cable)\./,
  // What was taped from marks goes with the points it was taped to.
  'runs.points':
    /^(bonding|cable|bend-card|conduit-fit|pull)\.|^run\.(taped-off|loose-length|water-stands|plastic-fittings)/,
  // A run whose end still moves is measured in place: nobody cuts it now.
  'runs.fromFixed': /^run\.loose-length/,
  'runs.toFixed': /^run\.loose-length/,
  // Where a run ends nowhere that is said by itself.
  'runs.from': /^wall\.no-opening/,
  'runs.to': /^wall\.no-opening/,
  // An opening without its face says so itself; in a wall of the vehicle glands have all the room there is.
  'openings.face': /^wall\.face-crowded/,
  'openings.box': /^wall\.face-crowded/,
  'runs.fromEntry': /^run\.no-drip/,
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
    expect(silenced(design, rooms, goneWithIt, createEvaluator(), times(2, 3))).toEqual([]);
  });
});

describe('what is known to be wrong is said, whatever is missing of something else', () => {
  const evaluator = createEvaluator();
  const stateOf = (rule: string, change: (draft: Design) => void) =>
    evaluator
      .evaluate(changed(change))
      .checks.flatMap((check) => (check.rule.id === rule ? [check.state] : []));
  const sees = (draft: Design, ...ranges: (number | undefined)[]) => {
    draft.currentSensors = Object.fromEntries(
      ranges.map((rangeA, i) => [
        `current-${i}`,
        { tag: `S${i}`, ...(rangeA !== undefined && { rangeA }), sign: 'positive in drive' as const },
      ]),
    );
  };

  test.each<[rule: string, change: (draft: Design) => void]>([
    ['monitoring.current-range', (draft) => sees(draft, 50, undefined)],
    ['monitoring.current-coarse', (draft) => sees(draft, 2900, undefined)],
    [
      'monitoring.current-signs',
      (draft) => {
        sees(draft, 500, 500, 500);
        draft.currentSensors!['current-1']!.sign = 'positive in charge';
        delete draft.currentSensors!['current-2']!.sign;
      },
    ],
    [
      'charge.two-monitors',
      (draft) => {
        draft.inlets!['inlet-side']!.monitorPauses = false;
        draft.devices['device-x'] = { tag: 'Another', kind: 'insulation-monitor', minV: 0, maxV: 450 };
      },
    ],
    [
      'charge.inlet-wire',
      (draft) => {
        delete draft.inlets!['inlet-side']!.inlet;
        draft.inlets!['inlet-side']!.wireA = 10;
      },
    ],
    [
      'cooling.dead-end',
      (draft) => {
        draft.joins!['join-x'] = { tag: 'End', loop: 'loop-pack', zM: 0.5 };
        draft.plumbing!['piece-x'] = { ...draft.plumbing!['piece-hose-1']!, to: 'join-x' };
        delete draft.plumbing!['piece-drive-hose']!.loop;
      },
    ],
  ])('%s', (rule, change) => {
    expect(stateOf(rule, change)).toContain('raised');
  });

  test('whether an end leads nowhere is not checked while one that may be its neighbour lies in another loop', () => {
    const elsewhere = (draft: Design) => {
      const pieces = Object.values(draft.plumbing!).filter(({ loop }) => loop === 'loop-pack');
      const ends = pieces.flatMap(({ from, to }) => [from, to]);
      const { tank } = draft.loops!['loop-pack']!;
      const one = pieces.find(({ to }) => to !== tank && ends.filter((end) => end === to).length === 2)!;
      one.to = draft.plumbing!['piece-drive-hose']!.to!;
    };
    expect(stateOf('cooling.wrong-loop', elsewhere)).toContain('raised');
    expect(stateOf('cooling.dead-end', elsewhere)).toContain('not-checked');
    expect(stateOf('cooling.dead-end', () => undefined)).not.toContain('not-checked');
  });

  test('an acceptance is of the very modules: another one on two plates is another matter', () => {
    const twice = (module: string) =>
      evaluator
        .evaluate(changed((draft) => void draft.plumbing!['piece-plate-nose-1']!.modules!.push(module)))
        .checks.find((check) => check.rule.id === 'cooling.module-twice') as RaisedCheck;
    const { key, rule, grade, message, values, parts } = twice('module-103');
    const body: AcceptanceBody = {
      kind: 'acceptance',
      check: key,
      rule: rule.id,
      ruleVersion: rule.version,
      grade,
      message,
      values,
      parts,
      reason: 'Agreed.',
    };
    expect(whyLapsed(twice('module-103'), body)).toBeNull();
    expect(whyLapsed(twice('module-104'), body)).toBe('a part has been exchanged');
  });
});
