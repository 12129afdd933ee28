import { describe, expect, test } from '@jest/globals';
import { blankDesign, edit, type Design } from '../document';
import { figureId, type Figure } from '../figure';
import { precharge } from '../precharge';
import { Evaluator, Inputs, type Reader, type StepDefinition } from '.';

const figure = (id: string, value: number | null): Figure => ({
  id,
  label: id,
  unit: '',
  value,
  gaps: value === null ? [{ kind: 'not-given', path: 'x', label: 'x' }] : [],
  working: [],
});

/** A step that counts how often it really runs. */
function counting(
  id: string,
  compute: (read: Reader) => number | null,
): { step: StepDefinition; runs: () => number } {
  let runs = 0;
  const step: StepDefinition = {
    id,
    version: 1,
    subjects: () => ['s'],
    compute(_subject, read) {
      runs += 1;
      return { figures: [figure(figureId(id, 's', 'v'), compute(read))], checks: [] };
    },
  };
  return { step, runs: () => runs };
}

const withSpeed = (design: Design, speedKmH: number) =>
  edit(design, (draft) => void (draft.vehicle.speedKmH = speedKmH))!.design;

describe('the evaluator', () => {
  test('runs a step again only when something it read is different, through other steps too', () => {
    const source = counting('a.source', (read) => read.at('vehicle', 'speedKmH') ?? null);
    const coarse = counting('b.coarse', (read) => Math.round((read.figure('a.source:s:v').value ?? 0) / 10));
    const last = counting('c.last', (read) => (read.figure('b.coarse:s:v').value ?? 0) * 2);
    const evaluator = new Evaluator([last.step, coarse.step, source.step]);
    const counts = () => [source.runs(), coarse.runs(), last.runs()];
    let design = withSpeed(blankDesign(), 50);
    expect(evaluator.evaluate(design).figures['c.last:s:v']!.value).toBe(10);
    expect(counts()).toEqual([1, 1, 1]);
    evaluator.evaluate(JSON.parse(JSON.stringify(design)) as Design);
    expect(counts()).toEqual([1, 1, 1]);
    design = withSpeed(design, 52);
    evaluator.evaluate(design);
    expect(counts()).toEqual([2, 2, 1]);
    design = withSpeed(design, 58);
    expect(evaluator.evaluate(design).figures['c.last:s:v']!.value).toBe(12);
    expect(counts()).toEqual([3, 3, 2]);
  });

  test('a circle throws and names its members', () => {
    const a = counting('a.one', (read) => read.figure('b.two:s:v').value);
    const b = counting('b.two', (read) => read.figure('a.one:s:v').value);
    expect(() => new Evaluator([a.step, b.step]).evaluate(blankDesign())).toThrow(
      'a.one:s → b.two:s → a.one:s',
    );
  });

  test('a figure nobody makes is a gap, not an error', () => {
    const a = counting('a.one', (read) => read.figure('no.such:s:v').value);
    expect(new Evaluator([a.step]).evaluate(blankDesign()).figures['a.one:s:v']!.value).toBeNull();
  });
});

describe('inputs', () => {
  const reader = (figures: Record<string, Figure> = {}): Reader =>
    ({ at: () => undefined, figure: (id: string) => figures[id] ?? figure(id, null) }) as unknown as Reader;

  test('what is missing is listed by its path and the calculator does not run', () => {
    const inputs = new Inputs(reader());
    inputs.given('packVoltageV', undefined, 'pack.voltage', 'pack voltage');
    inputs.figure('busCapacitanceF', 'bus.c:bus:f');
    const run = inputs.run(precharge);
    expect(run.result).toBeNull();
    expect(run.gaps).toEqual([
      { kind: 'not-given', path: 'pack.voltage', label: 'pack voltage' },
      { kind: 'not-given', path: 'x', label: 'x' },
    ]);
    expect(run.checks(['s']).every(({ state }) => state === 'not-checked')).toBe(true);
  });

  test('what is wrong is a gap at the place it came from', () => {
    const inputs = new Inputs(reader());
    inputs.given('packVoltageV', -1, 'pack.voltage', 'pack voltage');
    inputs.given('busCapacitanceF', 0.001, 'bus.c', 'capacitance');
    inputs.given('resistanceOhm', 50, 'r', 'resistance');
    expect(inputs.run(precharge).gaps).toEqual([
      { kind: 'invalid', path: 'pack.voltage', label: 'pack voltage', message: 'must be above 0' },
    ]);
  });

  test('working knows given, default and figure; a figure’s working holds only what led to it', () => {
    const inputs = new Inputs(reader({ 'bus.c:bus:f': figure('bus.c:bus:f', 0.001) }));
    inputs.given('packVoltageV', 360, 'pack.voltage', 'pack voltage');
    inputs.figure('busCapacitanceF', 'bus.c:bus:f');
    inputs.given('resistanceOhm', 50, 'r', 'resistance');
    inputs.optional('thresholdFraction', undefined, 'threshold', 'threshold');
    const run = inputs.run(precharge);
    const working = run.working('t_p');
    expect(working.map(({ symbol }) => symbol)).toEqual(['k', 'τ', 't_p']);
    const origin = (symbol: string, input: string) =>
      working.find((step) => step.symbol === symbol)!.inputs.find((one) => one.symbol === input)!.origin;
    expect(origin('t_p', 'p')).toEqual({ kind: 'default', path: 'threshold' });
    expect(origin('τ', 'C')).toEqual({ kind: 'figure', id: 'bus.c:bus:f' });
    expect(origin('τ', 'R')).toEqual({ kind: 'document', path: 'r' });
  });
});
