import { expect, test } from '@jest/globals';
import { allRules } from './ground/finding';
import { rooms } from './rooms';

const twice = (all: readonly string[]) => all.filter((one, i) => all.indexOf(one) !== i);

test('each family of rules belongs to one room, and each rule to a family', () => {
  const families = rooms.flatMap(({ rules }) => rules);
  expect(twice(families)).toEqual([]);
  expect([...new Set(allRules().map(({ id }) => id.split('.')[0]!))].sort()).toEqual([...families].sort());
});

test('no step and no calculator stands in two places', () => {
  expect(twice(rooms.map(({ name }) => name))).toEqual([]);
  expect(twice(rooms.flatMap(({ steps }) => steps.map(({ id }) => id)))).toEqual([]);
  expect(twice(rooms.flatMap(({ calculators }) => calculators.map(({ name }) => name)))).toEqual([]);
});

test('no template of the procedure stands in two places, and each goes by its own name', () => {
  const templates = rooms.flatMap(({ procedures }) =>
    procedures.flatMap((one) => Object.entries(one.templates)),
  );
  expect(twice(templates.map(([id]) => id))).toEqual([]);
  expect(templates.filter(([key, { id }]) => key !== id)).toEqual([]);
  expect(templates.length).toBeGreaterThan(45);
});

test('steps come in the order of the job, for a person who reads along', () => {
  expect(rooms.map(({ name }) => name)).toEqual([
    ...['library', 'vehicle', 'pack', 'balance', 'network', 'precharge', 'fuse', 'conductor'],
    ...['contactor', 'distances', 'joints', 'bonding', 'norms', 'built', 'routing'],
    ...['charging', 'cooling', 'low-voltage', 'monitoring'],
  ]);
  expect(rooms.flatMap(({ steps }) => steps).length).toBeGreaterThan(40);
});
