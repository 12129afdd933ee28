import type { FigureId } from '@torvek/core/figure';
import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import { laid, type Design } from '@torvek/core/document';
import { deriveNetwork, pathFaults } from '@torvek/core/network';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed, wrong } from './rule-cases';

interface Shown {
  /** What people read: label, unit and whose it is. */
  name: string;
  value: number;
  where: string;
}

/** Everything with a label, a unit and a subject that an evaluation shows. */
function shownIn(design: Design): Shown[] {
  const { figures, checks } = evaluate(design);
  const own = (subject: string, label: string, unit: string) =>
    `${label.toLowerCase()}, ${unit}, of ${subject}`;
  const ofFigures = Object.values(figures).flatMap(({ id, label, unit, value }): Shown[] => {
    const subject = id.split(':')[1]!.split('/')[0]!;
    return value === null ? [] : [{ name: own(subject, label, unit), value, where: id }];
  });
  const ofChecks = checks.flatMap((check): Shown[] =>
    check.state === 'not-checked'
      ? []
      : check.values.map(({ label, unit, value }) => ({
          name: own(check.subjects.join(), label, unit),
          value,
          where: check.rule.id,
        })),
  );
  return [...ofFigures, ...ofChecks];
}

/** Names with two values that differ by more than rounding, and where each is shown. */
function twice(design: Design): string[] {
  const byName = new Map<string, Shown[]>();
  for (const shown of shownIn(design)) byName.set(shown.name, [...(byName.get(shown.name) ?? []), shown]);
  return [...byName].flatMap(([name, all]) => {
    const [first] = all as [Shown];
    const other = all.find(
      ({ value }) => Math.abs(value - first.value) > 1e-9 * Math.max(Math.abs(value), Math.abs(first.value)),
    );
    return other === undefined
      ? []
      : [`${name}: ${first.value} at ${first.where}, ${other.value} at ${other.where}`];
  });
}

describe('a figure is one figure', () => {
  test.each([
    ['demo A', libraryBus.design],
    ['demo B', orchardTruck.design],
  ])('%s shows nothing with two values', (_, design) => {
    expect(shownIn(design).length).toBeGreaterThan(250);
    expect(twice(design)).toEqual([]);
  });

  // A fault of each kind brings figures that a sound design does not show.
  test.each(
    [
      'precharge.bare-timer',
      'fuse.inrush',
      'precharge.active-on',
      'strings.uneven-load',
      'cable-duty.over-limit',
    ].map((rule) => [rule, wrong[rule]!] as const),
  )('with %s raised neither', (_, recipe) => {
    expect(twice(changed(recipe))).toEqual([]);
  });

  test('the pack’s resistance is one, wherever it comes from', () => {
    for (const { design } of [libraryBus, orchardTruck]) {
      const { figures } = evaluate(design);
      const ohm = (id: FigureId) => figures[id]!.value!;
      const strings = Object.keys(design.strings).length;
      const pack = ohm('pack.pack:pack:resistanceOhm');
      expect(ohm('pack.source:pack:stringOhm') / strings).toBeCloseTo(pack, 12);
      expect(ohm('pack.temperature:pack:warmOhm')).toBeCloseTo(0.8 * pack, 12);
      // A bolted short at the inverter, from the elements of the network: the pack and what lies before it.
      const { elements } = deriveNetwork(laid(design));
      const fault = pathFaults.calculate({ elements, from: 'device-inverter' }).result;
      expect(fault.pathResistanceOhm).toBeGreaterThan(pack);
      // What is more than the pack is the cable out and back: contacts are taken as 2 mΩ there and not given here.
      const loop = ohm('conductor.loop:circuit-main:loopOhm') - 0.002;
      // The bleed of 1 kΩ or more lies beside it all.
      expect(fault.pathResistanceOhm).toBeCloseTo(pack + loop, 5);
      expect(fault.pathResistanceOhm).toBeLessThan(pack + loop);
    }
  });
});
