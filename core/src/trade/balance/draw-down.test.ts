import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { interpolate } from '../../ground/math';
import { chooseLoad, drawDown, recipeOf, type DrawDownInput, type Pilot } from '.';

const table: [number, number][] = [
  [0, 2.6],
  [0.05, 3.04],
  [0.1, 3.19],
  [0.2, 3.24],
  [0.9, 3.34],
  [1, 3.45],
];
const body: DrawDownInput = {
  ocvTable: table,
  capacityAh: 160,
  resistanceOhm: 0.0005,
  fromV: 3.22,
  cutOffV: 2.7,
  loadOhm: 0.1,
};

/** The same by small steps of charge. */
function stepwise({ capacityAh, resistanceOhm, fromV, cutOffV, loadOhm }: DrawDownInput) {
  const turned = table.map(([s, v]): [number, number] => [v, s]);
  let soc = interpolate(turned, fromV);
  const step = 2e-6;
  let hours = 0;
  let heatWh = 0;
  for (;;) {
    const currentA = interpolate(table, soc - step / 2) / (resistanceOhm + loadOhm);
    if (currentA * loadOhm <= cutOffV) return { hours, heatWh };
    const took = (step * capacityAh) / currentA;
    hours += took;
    heatWh += currentA ** 2 * loadOhm * took;
    soc -= step;
  }
}

describe('a cell under a load resistor', () => {
  test('hours, charge and heat as by small steps', () => {
    const found = drawDown(body)!;
    const slow = stepwise(body);
    expect(found.hours / slow.hours).toBeCloseTo(1, 4);
    expect(found.heatWh / slow.heatWh).toBeCloseTo(1, 4);
    expect(found.startA).toBeCloseTo(3.22 / 0.1005, 9);
    expect(found.startW).toBeCloseTo((3.22 / 0.1005) ** 2 * 0.1, 9);
    // At the cut-off the terminals have exactly its voltage.
    expect((found.emptyV * 0.1) / 0.1005).toBeCloseTo(2.7, 12);
  });

  test('a cell below the cut-off is not drawn', () => {
    expect(drawDown({ ...body, fromV: 2.69 })).toBeNull();
  });

  test('twice the loop resistance takes twice as long, where the cut-off stays at one open-circuit voltage', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 5, noNaN: true }), (loadOhm) => {
        const ideal = { ...body, resistanceOhm: 0 };
        const once = drawDown({ ...ideal, loadOhm })!;
        const twice = drawDown({ ...ideal, loadOhm: 2 * loadOhm })!;
        expect(twice.hours / once.hours).toBeCloseTo(2, 9);
        expect(twice.heatWh).toBeCloseTo(once.heatWh, 9);
        expect(twice.ah).toBeCloseTo(once.ah, 12);
      }),
    );
  });

  test('the gentlest load within current, heat and hours comes first', () => {
    const choices = chooseLoad(body, 40, 1);
    const [first, second] = choices;
    expect(first).toMatchObject({ fits: true, reasons: [] });
    expect(first!.startA).toBeLessThanOrEqual(40);
    expect(first!.hours).toBeLessThanOrEqual(1);
    expect(first!.ratedW! * 0.5).toBeGreaterThanOrEqual(first!.startW);
    expect(second!.loadOhm).toBeLessThan(first!.loadOhm);
    for (const one of choices.filter(({ fits }) => !fits)) expect(one.reasons).not.toEqual([]);
    expect(choices.some(({ reasons }) => reasons.includes('more current than the path may carry'))).toBe(
      true,
    );
    expect(choices.some(({ reasons }) => reasons.includes('slower than wanted'))).toBe(true);
  });
});

describe('the recipe from pilots', () => {
  const pilot = (id: string, hours: number, settledV: number, cutOffV = 2.7): Pilot => ({
    id,
    hours,
    settledV,
    cutOffV,
  });

  test('the rebound’s middle is taken off the target', () => {
    const found = recipeOf([pilot('a', 4, 2.91), pilot('b', 4, 2.905), pilot('c', 4, 2.917)], 2.9, 0.02, 2.5);
    expect(found).toMatchObject({ ok: true, doubts: [] });
    if (!found.ok) return;
    expect(found.recipe).toMatchObject({ hours: 4, pilots: 3, insideFraction: 1 });
    expect(found.recipe.cutOffV).toBeCloseTo(2.69, 9);
    expect(found.recipe.landing.map(({ settlesV }) => settlesV)).toEqual([
      expect.closeTo(2.9, 9),
      expect.closeTo(2.895, 9),
      expect.closeTo(2.907, 9),
    ]);
  });

  test('a longer draw is taken when the shorter one scatters', () => {
    const pilots = [
      ...[2.95, 3.05, 3.0].map((v, i) => pilot(`s${i}`, 2, v)),
      ...[2.91, 2.905, 2.9].map((v, i) => pilot(`l${i}`, 6, v)),
    ];
    const found = recipeOf(pilots, 2.9, 0.01, 2.5);
    expect(found).toMatchObject({ ok: true, recipe: { hours: 6 } });
    const wide = recipeOf(pilots.slice(0, 3), 2.9, 0.01, 2.5);
    expect(wide).toMatchObject({
      ok: true,
      recipe: { insideFraction: 1 / 3 },
      doubts: [expect.stringContaining('only 1 of 3')],
    });
  });

  test('too few pilots, or a cut-off below the minimum, give no recipe', () => {
    expect(recipeOf([pilot('a', 4, 2.9)], 2.9, 0.01, 2.5)).toMatchObject({ ok: false });
    const deep = ['a', 'b', 'c'].map((id) => pilot(id, 4, 3.1));
    expect(recipeOf(deep, 2.8, 0.01, 2.5)).toMatchObject({
      ok: false,
      because: expect.stringContaining('below 2.5 V'),
    });
  });

  test('a recipe far from the pilots’ own is doubted', () => {
    const found = recipeOf(
      ['a', 'b', 'c'].map((id) => pilot(id, 4, 3.0, 2.8)),
      2.75,
      0.01,
      2.5,
    );
    expect(found).toMatchObject({ ok: true, doubts: [expect.stringContaining('new pilots')] });
  });
});
