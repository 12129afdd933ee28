import { expect, test } from '@jest/globals';
import { types } from 'node:util';
import { createEvaluator } from '@torvek/core/design';
import { times } from '../scripts/testing/thorough';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed, right, wrong } from './rule-cases';

/** Where in a value a view of the design is held. */
function viewsIn(value: unknown, path = '', seen = new Set<unknown>()): string[] {
  if (typeof value !== 'object' || value === null || seen.has(value)) return [];
  seen.add(value);
  if (types.isProxy(value)) return [path];
  return Object.entries(value).flatMap(([key, below]) => viewsIn(below, `${path}.${key}`, seen));
}

test('what follows from a design holds values, never a view of where they were read', () => {
  const designs = [
    libraryBus.design,
    orchardTruck.design,
    ...[...Object.values(wrong), ...Object.values(right)].map((recipe) => changed(recipe)),
  ];
  expect(designs.length).toBeGreaterThan(100);
  const evaluator = createEvaluator();
  // Of the designs that raise a rule every fourth, of those that raise none every twelfth; all of them when there is time.
  const told = designs.filter(
    (_, i) => i < 2 || i % times(i < 2 + Object.keys(wrong).length ? 4 : 12, 1) === 0,
  );
  // What did not change from one to the next is the same object: it was looked through already.
  const seen = new Set<unknown>();
  for (const design of told) expect(viewsIn(evaluator.evaluate(design), '', seen)).toEqual([]);
});

test('a view is known as one', () => {
  expect(viewsIn({ a: [{ b: new Proxy({}, {}) }], c: {} })).toEqual(['.a.0.b']);
});
