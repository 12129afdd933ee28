import { expect, test } from '@jest/globals';
import { types } from 'node:util';
import { createEvaluator } from '@torvek/core/design';
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
  for (const design of designs) expect(viewsIn(evaluator.evaluate(design))).toEqual([]);
});

test('a view is known as one', () => {
  expect(viewsIn({ a: [{ b: new Proxy({}, {}) }], c: {} })).toEqual(['.a.0.b']);
});
