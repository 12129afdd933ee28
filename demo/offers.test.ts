import { describe, expect, test } from '@jest/globals';
import { endRules, rankCables, sizedRules, sizeTable, type CablePlace } from '@torvek/core/conductor';
import { coilRules, rankContactors, type ContactorPlace } from '@torvek/core/contactor';
import { createEvaluator } from '@torvek/core/design';
import { edit, mainCircuit, type CircuitPartKind, type Design, type Id } from '@torvek/core/document';
import { fuseRules, rankFuses, selectiveRule, shortTimeRule, type FusePlace } from '@torvek/core/fuse';
import { pin } from '@torvek/core/pack';
import { catalogue, catalogueOf, partKey, type Part } from '@torvek/core/parts';
import type { PrechargeChooseResult } from '@torvek/core/precharge';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';
import { times } from '../scripts/testing/thorough';

/** What a table or a ranking offers is what the next judgement takes, and what it rules out is found. */

const evaluator = createEvaluator();
const evaluate = (design: Design) => evaluator.evaluate(design);
const take = (design: Design, circuit: Id, parts: [CircuitPartKind, Part][]) =>
  edit(design, (draft) => {
    for (const [kind, part] of parts) draft.circuits[circuit]![kind] = pin(draft as Design, part);
  })?.design ?? design;
const partOf = (key: string) => catalogue.find((part) => partKey(part) === key)!;
/** Rules of a set that are raised at a circuit, notes left out. */
const raised = (design: Design, circuit: Id, rules: ReadonlySet<string>) =>
  evaluate(design).checks.flatMap((check) =>
    check.state === 'raised' &&
    check.grade !== 'note' &&
    rules.has(check.rule.id) &&
    check.subjects.includes(circuit)
      ? [check.rule.id]
      : [],
  );
/** Every third, or all. */
const sampled = <One>(all: One[]) => all.filter((_, i) => i % times(3, 1) === 0);
const ids = (rules: { id: string }[]) => new Set(rules.map(({ id }) => id));

const hot = changed((draft) => {
  draft.circuits['circuit-heater']!.stretches = [
    { tag: 'Floor', lengthM: 4 },
    { tag: 'Engine bay', lengthM: 1.2, ambientC: 90 },
  ];
});
const places: [name: string, design: Design, circuit: Id][] = [
  ['the bus’ main circuit', libraryBus.design, mainCircuit],
  ['the bus’ heater through a hot place', hot, 'circuit-heater'],
  ['the truck’s main circuit', orchardTruck.design, mainCircuit],
  ['the truck’s charger', orchardTruck.design, 'circuit-charger'],
];

describe.each(places)('%s', (_, design, circuit) => {
  test('every cable of the table raises nothing once it is taken exactly when its row fits', () => {
    const rules = ids([...sizedRules, ...Object.values(endRules)]);
    const place = evaluate(design).runs[`conductor.sizes:${circuit}`]!.input as CablePlace;
    const table = sizeTable(place);
    expect(table.some(({ fits }) => fits)).toBe(true);
    expect(table.some(({ fits }) => !fits)).toBe(true);
    for (const { partKey: key, fits, along, reasons } of sampled(table)) {
      const after = take(design, circuit, [
        ['cable', partOf(key)],
        ...along.map(({ kind, partKey: other }): [CircuitPartKind, Part] => [kind, partOf(other)]),
      ]);
      const found = raised(after, circuit, rules);
      expect([key, fits, reasons, found.length === 0]).toEqual([key, fits, reasons, fits]);
      expect(reasons.length === 0).toBe(fits);
    }
  });

  test('cables under a finding are those of the table that fit, the smallest of the same insulation first', () => {
    const place = evaluate(design).runs[`conductor.sizes:${circuit}`]!.input as CablePlace;
    const fitting = sizeTable(place).filter(({ fits }) => fits);
    for (const limitC of [105, 125, 180]) {
      const other = (one: (typeof fitting)[number]) => Number(one.conductorMaxC !== limitC);
      const wanted = [...fitting].sort((a, b) => other(a) - other(b) || a.areaMm2 - b.areaMm2).slice(0, 5);
      expect(rankCables(place, limitC, {}, 5)).toMatchObject(
        wanted.map(({ partKey: key, along }) => ({ partKey: key, fits: true, along })),
      );
    }
  });

  test('every fuse of the ranking likewise', () => {
    const rules = ids([...Object.values(fuseRules), selectiveRule, shortTimeRule]);
    const place = evaluate(design).runs[`fuse.choice:${circuit}`]!.input as FusePlace;
    const main = circuit === mainCircuit;
    for (const { partKey: key, fits, reasons } of sampled(rankFuses(place, null))) {
      const after = take(design, circuit, [['fuse', partOf(key)]]);
      const found = raised(after, circuit, rules);
      // Whether the main fuse melts before a branch has cleared is found at the branch.
      const below = main
        ? Object.keys(design.circuits).flatMap((id) => raised(after, id, ids([selectiveRule])))
        : [];
      expect([key, fits, reasons, [...found, ...below].length === 0]).toEqual([key, fits, reasons, fits]);
    }
  });
});

test('full-range fuses come before partial-range ones of equal fit', () => {
  const place = evaluate(libraryBus.design).runs[`fuse.choice:${mainCircuit}`]!.input as FusePlace;
  const ranked = rankFuses(place, null);
  const fitting = ranked.filter(({ fits }) => fits).map(({ partKey: key }) => key.startsWith('calderside-p'));
  expect(fitting.indexOf(true)).toBeGreaterThan(0);
  expect(fitting.lastIndexOf(false)).toBeLessThan(fitting.indexOf(true));
});

test.each([
  ['the bus’ mains', libraryBus.design, mainCircuit],
  ['the bus’ inlet', libraryBus.design, 'circuit-inlet'],
  ['the truck’s mains', orchardTruck.design, mainCircuit],
])('contactors of %s', (_, design, circuit) => {
  const rules = new Set([
    'contactor.voltage',
    'contactor.carry',
    'contactor.make',
    shortTimeRule.id,
    coilRules.pullIn.id,
  ]);
  const place = evaluate(design).runs[`contactor.main:${circuit}`]!.input as ContactorPlace;
  for (const { partKey: key, fits, reasons } of rankContactors(catalogueOf('contactor'), place)) {
    const found = raised(take(design, circuit, [['contactor', partOf(key)]]), circuit, rules);
    expect([key, reasons.length, found.length]).toEqual([key, found.length, found.length]);
    expect(fits).toBe(found.length === 0);
  }
});

test.each([
  ['the bus', libraryBus.design],
  ['the truck', orchardTruck.design],
])('pre-charge resistors of %s', (_, design) => {
  const { ranked } = evaluate(design).runs[`precharge.choice:${mainCircuit}`]!
    .result as PrechargeChooseResult;
  const rules = new Set([
    'precharge.threshold-never-reached',
    'precharge.slower-than-limit',
    'precharge.pulse-energy',
    'precharge.shorted-energy',
    'precharge.repeated-starts',
    'precharge.repeated-on-short',
    'precharge.resistor-voltage',
  ]);
  expect(ranked.some(({ fits }) => fits)).toBe(true);
  for (const { partId, fits, reasons } of ranked) {
    const found = raised(take(design, mainCircuit, [['resistor', partOf(partId)]]), mainCircuit, rules);
    expect([partId, fits, found.length]).toEqual([partId, found.length === 0, reasons.length]);
  }
});
