import { expect, test } from '@jest/globals';
import { createEvaluator } from '@torvek/core/design';
import { checkDesign, edit, type Design } from '@torvek/core/document';
import { times } from '../scripts/testing/thorough';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';

/** What people type by mistake; null: the field is emptied. */
const odd = [0, -1, 1e9, 1e-9, 999_999_999, null, 0.0001];

type Place = (string | number)[];
function numbersIn(value: unknown, at: Place = []): Place[] {
  if (typeof value === 'number') return [at];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) =>
    numbersIn(inner, [...at, Array.isArray(value) ? Number(key) : key]),
  );
}

/** The design with one number exchanged or taken away. */
function withOdd(design: Design, place: Place, value: number | null): Design {
  return (
    edit(design, (draft) => {
      let holder = draft as unknown as Record<string | number, unknown>;
      for (const key of place.slice(0, -1)) holder = holder[key] as typeof holder;
      const last = place.at(-1)!;
      if (value === null && !Array.isArray(holder)) delete holder[last];
      else holder[last] = value ?? 0;
    })?.design ?? design
  );
}

test.each([
  ['demo A', libraryBus.design],
  ['demo B', orchardTruck.design],
])('%s: an odd number in any field is refused by its path or computed through', (_, design) => {
  const evaluator = createEvaluator();
  // Parts of a catalogue are exchanged as a whole, not typed into.
  const places = numbersIn(design).filter(([room]) => room !== 'parts');
  expect(places.length).toBeGreaterThan(80);
  const tries = times(1, odd.length);
  let computed = 0;
  for (const [i, place] of places.entries()) {
    // Of like things in a row every fourth has its turn.
    if (i % times(4, 1) !== 0) continue;
    for (let k = 0; k < tries; k += 1) {
      const value = odd[(Math.floor(i / times(4, 1)) * tries + k) % odd.length]!;
      const changed = withOdd(design, place, value);
      const checked = checkDesign(changed);
      if (!checked.ok) {
        // Named by where it stands.
        expect([place, JSON.stringify(checked)]).toEqual([
          place,
          expect.stringContaining(String(place[0])) as unknown,
        ]);
        continue;
      }
      computed += 1;
      const { figures, checks } = evaluator.evaluate(changed);
      const wrong = Object.values(figures).filter((figure) =>
        figure.value === null ? figure.gaps.length === 0 : !Number.isFinite(figure.value),
      );
      expect([place, value, wrong]).toEqual([place, value, []]);
      // A rule stands once for each thing.
      const keys = new Set(checks.map(({ key }) => key));
      expect([place, value, keys.size]).toEqual([place, value, checks.length]);
      const words = checks.flatMap((check) => (check.state === 'raised' ? [check.message] : [])).join('\n');
      expect([place, value, /NaN|undefined|Infinity|\[object/.exec(words)?.[0]]).toEqual([
        place,
        value,
        undefined,
      ]);
    }
  }
  expect(computed).toBeGreaterThan(places.length / times(8, 2));
});
