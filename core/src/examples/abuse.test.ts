import { describe, expect, test } from '@jest/globals';
import { allFinite } from '../ground/calculator';
import type { Issue } from '../ground/shape';
import { calculators } from '../calculators';
import cooling from './cooling-charging.json' with { type: 'json' };
import electric from './electric.json' with { type: 'json' };
import monitoring from './monitoring.json' with { type: 'json' };
import network from './network.json' with { type: 'json' };
import routing from './routing.json' with { type: 'json' };

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type Path = (string | number)[];

const examples = { ...electric, ...network, ...routing, ...cooling, ...monitoring } as unknown as Record<
  string,
  { input: { [key: string]: Json } }[]
>;

const clone = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** Every place in a body, the long tables sampled. */
function places(value: Json, at: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [at];
  const entries: [string | number, Json][] = Array.isArray(value)
    ? [...value.entries()].slice(0, 4)
    : Object.entries(value);
  return [...(at.length > 0 ? [at] : []), ...entries.flatMap(([key, child]) => places(child, [...at, key]))];
}

function withValue(body: Json, path: Path, value: Json | undefined): Json {
  const copy = clone(body);
  let parent = copy as Record<string | number, Json>;
  for (const key of path.slice(0, -1)) parent = parent[key] as Record<string | number, Json>;
  const last = path[path.length - 1]!;
  if (value !== undefined) parent[last] = value;
  else if (Array.isArray(parent)) parent.splice(last as number, 1);
  else delete parent[last];
  return copy;
}

function read(body: Json, path: Path): Json {
  return path.reduce<Json>((at, key) => (at as Record<string | number, Json>)[key]!, body);
}

function deep(levels: number): Json {
  let value: Json = 1;
  for (let i = 0; i < levels; i += 1) value = { x: value };
  return value;
}

const wrongTypes: Json[] = [null, true, '12', 'text', [], {}, [[]], ''];
const wrongNumbers = [-1, 0, 1e9, -1e9, 1e-300, 1e300, Infinity, -Infinity, NaN, 0.5, 1e12];

/** How often the same field is tried, in whichever row of whichever example. */
const mostOfOneField = 3;

function* bodiesFrom(body: { [key: string]: Json }, tried: Map<string, number>): Generator<Json> {
  for (const path of places(body)) {
    const field = path.map((step) => (typeof step === 'number' ? '*' : step)).join('.');
    tried.set(field, (tried.get(field) ?? 0) + 1);
    if (tried.get(field)! > mostOfOneField) continue;
    yield withValue(body, path, undefined);
    for (const value of [...wrongTypes, ...wrongNumbers]) yield withValue(body, path, value);
    const now = read(body, path);
    if (Array.isArray(now)) {
      yield withValue(body, path, [...now].reverse());
      yield withValue(body, path, [...now, ...now]);
      yield withValue(
        body,
        path,
        Array.from({ length: 100_000 }, (_, i) => now[i % Math.max(1, now.length)] ?? 0),
      );
    }
    if (typeof now === 'object' && now !== null && !Array.isArray(now)) {
      yield withValue(body, [...path, 'unheardOf'], 1);
      yield withValue(body, path, JSON.parse('{"__proto__": {"polluted": 1}}') as Json);
    }
  }
  yield { ...body, unheardOf: 1 };
  yield { ...body, ['__proto__x']: 1 };
  yield Object.assign(JSON.parse('{"__proto__": {"x": 1}}') as object, body) as Json;
  yield { ...body, deep: deep(10_000) };
  yield null;
  yield 5;
  yield [];
  yield 'text';
}

/** What is wrong with the way an input was refused, or null. */
function issuesProblem(issues: Issue[]): string | null {
  if (issues.length === 0 || issues.length > 100) return `${issues.length} issues`;
  const bad = issues.find(({ path, message }) => /[[\]]/.test(path) || message.length >= 200);
  return bad === undefined ? null : `odd issue at ${bad.path}`;
}

describe.each([...calculators.values()].map((calculator) => [calculator.name, calculator] as const))(
  '%s takes any body',
  (name, calculator) => {
    const tried = new Map<string, number>();
    const bodies = examples[name]!.flatMap(({ input }) => [...bodiesFrom(input, tried)]);

    test('and answers with finite figures or names the field', () => {
      expect(bodies.length).toBeGreaterThan(50);
      // One expectation for all: asking for each of a hundred thousand bodies takes longer than answering them.
      const odd = bodies.flatMap((body) => {
        const answer = calculator.answer(body);
        const problem = answer.ok
          ? allFinite(answer.answer)
            ? null
            : 'a figure that is not finite'
          : issuesProblem(answer.issues);
        return problem === null ? [] : [{ problem, answer }];
      });
      expect(odd).toEqual([]);
    });

    test('and names unknown, missing and wrongly typed fields by their own path', () => {
      const [{ input }] = examples[name] as [{ input: { [key: string]: Json } }];
      const issuesOf = (body: Json) => {
        const answer = calculator.answer(body);
        return answer.ok ? [] : answer.issues.map(({ path }) => path);
      };
      expect(issuesOf({ ...input, unheardOf: 1 })).toEqual(['unheardOf']);
      expect(issuesOf({ ...input, unheardOf: deep(10_000) })).toEqual(['unheardOf']);
      for (const key of Object.keys(input)) {
        if (typeof input[key] !== 'number') continue;
        expect(issuesOf({ ...input, [key]: String(input[key]) })).toEqual([key]);
        expect(issuesOf({ ...input, [key]: null })).toEqual([key]);
        expect(issuesOf({ ...input, [key]: Infinity })).toEqual([key]);
        expect(issuesOf({ ...input, [key]: 2e9 })).toEqual([key]);
      }
    });
  },
);

describe('paths of wrong cells, orders and ids', () => {
  const issues = (name: string, change: (input: never) => void) => {
    const input = clone(examples[name]![0]!.input);
    change(input as never);
    const answer = calculators.get(name)!.answer(input);
    return answer.ok ? null : answer.issues.map(({ path }) => path);
  };

  test('a missing field of a list item', () => {
    expect(
      issues('axle-loads', (input: { changes: { xM?: number }[] }) => delete input.changes[0]!.xM),
    ).toEqual(['changes.0.xM']);
  });
  test('an unknown field of a list item', () => {
    expect(
      issues('axle-loads', (input: { changes: Record<string, number>[] }) => (input.changes[1]!.colour = 1)),
    ).toEqual(['changes.1.colour']);
  });
  test('more mass taken away than there is', () => {
    expect(
      issues('axle-loads', (input: { changes: { massKg: number }[] }) => (input.changes[0]!.massKg = -5000)),
    ).toEqual(['changes']);
  });
  test('an unsorted curve is named as a whole, a wrong cell by itself', () => {
    expect(issues('fuse', (input: { curve: number[][] }) => input.curve.reverse())).toEqual(['curve']);
    expect(issues('fuse', (input: { curve: unknown[][] }) => (input.curve[2]![1] = '3'))).toEqual([
      'curve.2.1',
    ]);
    expect(issues('fuse', (input: { cable: Record<string, number> }) => (input.cable.colour = 3))).toEqual([
      'cable.colour',
    ]);
  });
  test('repeated ids', () => {
    expect(
      issues(
        'precharge-choose',
        (input: { resistors: { partId: string }[] }) => (input.resistors[3]!.partId = 'R47'),
      ),
    ).toEqual(['resistors.3.partId']);
  });
  test('an area that is not made, a conduit without its diameters', () => {
    expect(issues('cable', (input: { areaMm2: number }) => (input.areaMm2 = 51))).toEqual(['areaMm2']);
    expect(issues('cable', (input: { install: string }) => (input.install = 'steel-conduit'))).toEqual([
      'conduitInnerMm',
      'conduitOuterMm',
    ]);
  });
  test('all resistances zero', () => {
    const zero = { sourceVoltageV: 400, sourceResistanceOhm: 0, pathResistanceOhm: 0 };
    expect(calculators.get('fault-current')!.answer(zero)).toMatchObject({
      ok: false,
      issues: [{ path: 'sourceResistanceOhm' }],
    });
  });
});
