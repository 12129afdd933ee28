import { describe, expect, test } from '@jest/globals';
import { blankDesign, edit, type Design } from '../document';
import { figureId, type Figure, type FigureId } from '../../ground/figure';
import { starterParts, type PartKind, type PartsList } from '../parts';
import { precharge } from '../../trade/precharge';
import type { RaisedCheck } from '../../ground/figure';
import type { Rule } from '../../ground/finding';
import { Evaluator, Inputs, judge, type Reader, type SharedView, type StepDefinition } from '.';

declare module '../../ground/figure' {
  interface StepFigures {
    [test: `test.${string}`]: 'v';
  }
}

const figure = (id: FigureId, value: number | null): Figure => ({
  id,
  label: id,
  unit: '',
  value,
  gaps: value === null ? [{ kind: 'not-given', path: 'x', label: 'x' }] : [],
  working: [],
});

/** A step that counts how often it really runs. */
function counting(
  id: `test.${string}`,
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
  test('a fork runs only what differs from the last design, and the first one does not hear of it', () => {
    const source = counting('test.a-source', (read) => read.at('vehicle', 'speedKmH') ?? null);
    const rows = counting('test.b-rows', (read) => read.at('vehicle', 'wheelbaseM') ?? 1);
    const last = counting('test.c-last', (read) => (read.figure('test.a-source:s:v').value ?? 0) * 2);
    const evaluator = new Evaluator([last.step, rows.step, source.step]);
    const counts = () => [source.runs(), rows.runs(), last.runs()];
    const design = withSpeed(blankDesign(), 50);
    evaluator.evaluate(design);
    const fork = evaluator.fork();
    expect(fork.evaluate(withSpeed(design, 60)).figures['test.c-last:s:v']!.value).toBe(120);
    expect(counts()).toEqual([2, 1, 2]);
    expect(evaluator.evaluate(design).figures['test.c-last:s:v']!.value).toBe(100);
    expect(counts()).toEqual([2, 1, 2]);
    expect(evaluator.evaluate(withSpeed(design, 70)).figures['test.c-last:s:v']!.value).toBe(140);
    expect(fork.evaluate(withSpeed(design, 60)).figures['test.c-last:s:v']!.value).toBe(120);
    expect(counts()).toEqual([3, 1, 3]);
  });

  test('runs a step again only when something it read is different, through other steps too', () => {
    const source = counting('test.a-source', (read) => read.at('vehicle', 'speedKmH') ?? null);
    const coarse = counting('test.b-coarse', (read) =>
      Math.round((read.figure('test.a-source:s:v').value ?? 0) / 10),
    );
    const last = counting('test.c-last', (read) => (read.figure('test.b-coarse:s:v').value ?? 0) * 2);
    const evaluator = new Evaluator([last.step, coarse.step, source.step]);
    const counts = () => [source.runs(), coarse.runs(), last.runs()];
    let design = withSpeed(blankDesign(), 50);
    expect(evaluator.evaluate(design).figures['test.c-last:s:v']!.value).toBe(10);
    expect(counts()).toEqual([1, 1, 1]);
    evaluator.evaluate(JSON.parse(JSON.stringify(design)) as Design);
    expect(counts()).toEqual([1, 1, 1]);
    design = withSpeed(design, 52);
    evaluator.evaluate(design);
    expect(counts()).toEqual([2, 2, 1]);
    design = withSpeed(design, 58);
    expect(evaluator.evaluate(design).figures['test.c-last:s:v']!.value).toBe(12);
    expect(counts()).toEqual([3, 3, 2]);
  });

  test('a step that reads one field of an item is left alone when another moves, and hears when the item goes', () => {
    const tag = counting('test.a-tag', (read) => read.at('circuits', 'circuit-main')?.tag.length ?? null);
    const all = counting('test.b-all', (read) => Object.keys(read.at('circuits')).length);
    const evaluator = new Evaluator([tag.step, all.step]);
    const counts = () => [tag.runs(), all.runs()];
    // From nothing, both note all circuits as one value: the first edit of one runs them again.
    evaluator.evaluate(blankDesign());
    const start = edit(blankDesign(), (draft) => void (draft.circuits['circuit-main']!.lengthM = 3))!.design;
    evaluator.evaluate(start);
    expect(counts()).toEqual([2, 2]);
    const longer = edit(start, (draft) => void (draft.circuits['circuit-main']!.lengthM = 4))!.design;
    evaluator.evaluate(longer);
    expect(counts()).toEqual([2, 2]);
    const renamed = edit(longer, (draft) => void (draft.circuits['circuit-main']!.tag = 'Traction'))!.design;
    expect(evaluator.evaluate(renamed).figures['test.a-tag:s:v']!.value).toBe(8);
    expect(counts()).toEqual([3, 2]);
    const more = edit(renamed, (draft) => {
      draft.circuits['circuit-2'] = { tag: 'Heater', role: 'branch' };
    })!.design;
    expect(evaluator.evaluate(more).figures['test.b-all:s:v']!.value).toBe(2);
    expect(counts()).toEqual([3, 3]);
    const without = edit(more, (draft) => void delete draft.circuits['circuit-main'])!.design;
    const last = evaluator.evaluate(without).figures;
    expect([last['test.a-tag:s:v']!.value, last['test.b-all:s:v']!.value]).toEqual([null, 1]);
  });

  test('a subject that comes is computed, one that goes takes its figures along, and readers of both run again', () => {
    const each: StepDefinition = {
      id: 'test.a-each',
      version: 1,
      subjects: (design) => Object.keys(design.circuits),
      compute: (subject, read) => ({
        figures: [
          figure(figureId('test.a-each', subject, 'v'), read.at('circuits', subject)?.lengthM ?? null),
        ],
        checks: [],
        run: { calculator: 'length', input: subject, result: null },
      }),
    };
    const second = counting('test.b-second', (read) => read.figure('test.a-each:circuit-2:v').value);
    const evaluator = new Evaluator([second.step, each]);
    const start = blankDesign();
    expect(evaluator.evaluate(start).figures['test.b-second:s:v']!.value).toBeNull();
    const two = edit(start, (draft) => {
      draft.circuits['circuit-2'] = { tag: 'Heater', role: 'branch', lengthM: 3 };
    })!.design;
    const with2 = evaluator.evaluate(two);
    expect(with2.figures['test.b-second:s:v']!.value).toBe(3);
    expect(Object.keys(with2.runs).sort()).toEqual(['test.a-each:circuit-2', 'test.a-each:circuit-main']);
    const again = evaluator.evaluate(start);
    expect(again.figures['test.b-second:s:v']!.value).toBeNull();
    expect(Object.keys(again.figures).sort()).toEqual(['test.a-each:circuit-main:v', 'test.b-second:s:v']);
    expect(Object.keys(again.runs)).toEqual(['test.a-each:circuit-main']);
    // The earlier evaluation is what it was.
    expect(with2.figures['test.a-each:circuit-2:v']!.value).toBe(3);
  });

  test('a shared view is made once per design, and who goes by it runs only when what was made differs', () => {
    let made = 0;
    const roles: SharedView<string[]> = {
      id: 'roles',
      make: (design) => {
        made += 1;
        return Object.values(design.circuits).map(({ role }) => role);
      },
    };
    const one = counting('test.a-one', (read) => read.shared(roles).length);
    const other = counting('test.b-other', (read) => read.shared(roles).length);
    const evaluator = new Evaluator([one.step, other.step]);
    const start = blankDesign();
    evaluator.evaluate(start);
    expect([made, one.runs(), other.runs()]).toEqual([1, 1, 1]);
    const longer = edit(start, (draft) => void (draft.circuits['circuit-main']!.lengthM = 4))!.design;
    evaluator.evaluate(longer);
    expect([made, one.runs()]).toEqual([1, 1]);
    // Another role of the same kind: made again, found equal.
    const again = edit(
      longer,
      (draft) => void (draft.circuits['circuit-main'] = { tag: 'M', role: 'main' }),
    )!;
    evaluator.evaluate(again.design);
    expect([one.runs(), other.runs()]).toEqual([1, 1]);
    const branch = edit(longer, (draft) => void (draft.circuits['circuit-main']!.role = 'branch'))!.design;
    evaluator.evaluate(branch);
    expect([made, one.runs(), other.runs()]).toEqual([2, 2, 2]);
  });

  test('another library reaches who chooses from it, and nobody else', () => {
    const choosing = counting('test.a-choosing', (read) => read.parts('fuse').length);
    const fixed = counting('test.b-fixed', (read) => read.at('vehicle', 'speedKmH') ?? null);
    const evaluator = new Evaluator([choosing.step, fixed.step]);
    const design = blankDesign();
    const all = evaluator.evaluate(design).figures['test.a-choosing:s:v']!.value!;
    const one = { of: (kind: PartKind) => starterParts.of(kind).slice(0, 1) } as PartsList;
    const list = { of: (kind: PartKind) => kept[kind] ?? (kept[kind] = one.of(kind)) } as PartsList;
    const kept: Partial<Record<PartKind, readonly unknown[]>> = {};
    expect(all).toBeGreaterThan(1);
    expect(evaluator.evaluate(design, list).figures['test.a-choosing:s:v']!.value).toBe(1);
    evaluator.evaluate(design, list);
    expect([choosing.runs(), fixed.runs()]).toEqual([2, 1]);
  });

  test('after an error the next design is evaluated from nothing', () => {
    let fails = false;
    const brittle = counting('test.a-brittle', (read) => {
      const speed = read.at('vehicle', 'speedKmH') ?? null;
      if (fails) throw new Error('no');
      return speed;
    });
    const calm = counting('test.b-calm', (read) => read.figure('test.a-brittle:s:v').value);
    const evaluator = new Evaluator([brittle.step, calm.step]);
    evaluator.evaluate(withSpeed(blankDesign(), 30));
    fails = true;
    expect(() => evaluator.evaluate(withSpeed(blankDesign(), 40))).toThrow('no');
    fails = false;
    expect(evaluator.evaluate(withSpeed(blankDesign(), 50)).figures['test.b-calm:s:v']!.value).toBe(50);
  });

  test('a circle throws and names its members', () => {
    const a = counting('test.a-one', (read) => read.figure('test.b-two:s:v').value);
    const b = counting('test.b-two', (read) => read.figure('test.a-one:s:v').value);
    expect(() => new Evaluator([a.step, b.step]).evaluate(blankDesign())).toThrow(
      'test.a-one:s → test.b-two:s → test.a-one:s',
    );
  });

  test('a figure nobody makes is a gap, not an error', () => {
    const a = counting('test.a-one', (read) => read.figure('test.no-such:s:v').value);
    expect(new Evaluator([a.step]).evaluate(blankDesign()).figures['test.a-one:s:v']!.value).toBeNull();
  });
});

describe('inputs', () => {
  const reader = (figures: Record<string, Figure> = {}): Reader =>
    ({ at: () => undefined, figure: (id: FigureId) => figures[id] ?? figure(id, null) }) as unknown as Reader;

  test('what is missing is listed by its path and the calculator does not run', () => {
    const inputs = new Inputs(reader());
    inputs.given('packVoltageV', undefined, 'pack.voltage', 'pack voltage');
    inputs.figure('busCapacitanceF', 'test.bus-c:bus:v');
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
    const inputs = new Inputs(reader({ 'test.bus-c:bus:v': figure('test.bus-c:bus:v', 0.001) }));
    inputs.given('packVoltageV', 360, 'pack.voltage', 'pack voltage');
    inputs.figure('busCapacitanceF', 'test.bus-c:bus:v');
    inputs.given('resistanceOhm', 50, 'r', 'resistance');
    inputs.optional('thresholdFraction', undefined, 'threshold', 'threshold');
    const run = inputs.run(precharge);
    const working = run.working('t_p');
    expect(working.map(({ symbol }) => symbol)).toEqual(['k', 'τ', 't_p']);
    const origin = (symbol: string, input: string) =>
      working.find((step) => step.symbol === symbol)!.inputs.find((one) => one.symbol === input)!.origin;
    expect(origin('t_p', 'p')).toEqual({ kind: 'default', path: 'threshold' });
    expect(origin('τ', 'C')).toEqual({ kind: 'figure', id: 'test.bus-c:bus:v' });
    expect(origin('τ', 'R')).toEqual({ kind: 'document', path: 'r' });
  });
});

describe('replacements under a finding', () => {
  const rule: Rule = {
    ...{ id: 'test.rule', version: 1, grade: 'stop', title: 't', why: 'w', remedy: 'r', source: 's' },
  };
  const raised = (fits: boolean[]) => {
    let asked = 0;
    const check = judge(rule, ['a'], [], 'does not hold', [], {
      ranking: () => {
        asked += 1;
        const suggestions = fits.map((one, i) => ({
          partKey: `p-${i}@1`,
          label: 'p',
          fits: one,
          reasons: [],
        }));
        return { suggestions, needs: ['500 V'] };
      },
    }) as RaisedCheck;
    return { check, asked: () => asked };
  };

  test('are ranked when somebody looks, once', () => {
    const { check, asked } = raised([true]);
    expect(asked()).toBe(0);
    expect(check.suggestions).toHaveLength(1);
    expect(JSON.parse(JSON.stringify(check))).toMatchObject({ advice: null, message: 'does not hold' });
    expect(asked()).toBe(1);
  });

  test('what a part needs is said where none of them fits, and only there', () => {
    expect(raised([false, true]).check.advice).toBeNull();
    expect(raised([false, false]).check.advice).toBe('Nothing in the library fits: here it takes 500 V.');
    expect(raised([]).check.advice).toContain('500 V');
  });
});
