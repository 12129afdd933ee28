import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { evaluate, outlineOf } from '@torvek/core/design';
import { applyOperations, mainCircuit, type Operation } from '@torvek/core/document';
import request from 'supertest';
import { libraryBus } from '../../demo/library-bus';
import { orchardTruck } from '../../demo/orchard-truck';
import { openBench, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());

const bus = libraryBus.design;
/** As a stranger. */
const ask = async (body: unknown) => {
  const { status, body: answer } = await request(bench.bare)
    .post('/api/evaluate')
    .set('Content-Type', 'application/json')
    .send(typeof body === 'string' ? body : JSON.stringify(body));
  return { status, answer: answer as ReturnType<typeof outlineOf> & { error?: Record<string, unknown> } };
};
const refused = async (body: unknown) => {
  const { status, answer } = await ask(body);
  const issues = (answer.error?.issues ?? []) as { path: string; message: string }[];
  return [status, ...issues.map(({ path }) => path)];
};

describe('a whole design', () => {
  test.each([
    ['demo A', bus],
    ['demo B', orchardTruck.design],
  ])('%s: figures, findings and what is not computed are those of the evaluation', async (_, design) => {
    const { status, answer } = await ask({ document: design });
    expect(status).toBe(200);
    const evaluation = evaluate(design);
    expect(answer).toEqual(JSON.parse(JSON.stringify(outlineOf(evaluation))));
    const { value, unit, label } = evaluation.figures[`precharge.run:${mainCircuit}:timeToThresholdS`]!;
    expect(answer.figures[`precharge.run:${mainCircuit}:timeToThresholdS`]).toEqual({ value, unit, label });
    expect(value).toBeGreaterThan(0);
    // Null, and why, go together.
    const without = Object.entries(answer.figures).filter(([, figure]) => figure.value === null);
    expect(answer.notComputed.map(({ figure }) => figure).sort()).toEqual(without.map(([id]) => id).sort());
    expect(answer.notComputed.every(({ because }) => because !== '')).toBe(true);
    expect(answer.findings.length).toBeGreaterThan(0);
  });

  test('changes stand on top of it, in their order', async () => {
    const changes: Operation[] = [
      { op: 'add', path: `/circuits/${mainCircuit}/timeoutS`, value: 9 },
      { op: 'replace', path: `/circuits/${mainCircuit}/timeoutS`, value: 2 },
      { op: 'remove', path: '/devices/device-inverter/busCapacitanceF' },
    ];
    const { answer } = await ask({ document: bus, changes });
    expect(answer).toEqual(JSON.parse(JSON.stringify(outlineOf(evaluate(applyOperations(bus, changes))))));
    expect(answer.notComputed.length).toBeGreaterThan(0);
    expect(answer.notChecked.length).toBeGreaterThan(0);
    expect(answer.notChecked[0]!.because).not.toBe('');
  });

  test('leaves nothing behind: the next one is answered as if it were the first', async () => {
    await ask({ document: orchardTruck.design });
    const { answer } = await ask({ document: bus });
    expect(answer).toEqual(JSON.parse(JSON.stringify(outlineOf(evaluate(bus)))));
  });
});

describe('what is refused names its place', () => {
  test.each<[string, unknown, (string | number)[]]>([
    ['no JSON', '{"document":', [400, '']],
    ['nothing', '', [400, '']],
    ['no document', {}, [422, 'document']],
    ['a document that is no design', { document: { schema: 1 } }, [422]],
    ['a field nobody knows', { document: { ...bus, colour: 1 } }, [422, 'document.colour']],
    [
      'a reference to nothing',
      { document: { ...bus, pack: { ...bus.pack, mainsBox: 'box-gone' } } },
      [422, 'document.pack.mainsBox'],
    ],
    [
      'another operation',
      { document: bus, changes: [{ op: 'move', path: '/vehicle/year', from: '/vehicle/make' }] },
      [422],
    ],
    [
      'an operation into a list',
      {
        document: bus,
        changes: [
          { op: 'replace', path: '/vehicle/year', value: 1975 },
          { op: 'remove', path: `/strings/${Object.keys(bus.strings)[0]}/modules/0` },
        ],
      },
      [422, 'changes.1'],
    ],
    [
      'an operation that reaches out of the design',
      { document: bus, changes: [{ op: 'add', path: '/vehicle/__proto__/x', value: 1 }] },
      [422, 'changes.0'],
    ],
    [
      'what the changes make of it',
      { document: bus, changes: [{ op: 'replace', path: '/vehicle/year', value: 'old' }] },
      [422, 'changes.vehicle.year'],
    ],
  ])('%s', async (_, body, expected) => {
    const found = await refused(body);
    expect(found.slice(0, expected.length)).toEqual(expected);
    expect(found.length).toBeGreaterThan(1);
  });

  test('more than a design can be is not read', async () => {
    expect((await ask(JSON.stringify({ document: 'x'.repeat(5 * 1024 * 1024) }))).status).toBe(413);
  });
});
