import { describe, expect, test } from '@jest/globals';
import { createEvaluator, evaluate, stationOfCheck } from '@torvek/core/design';
import {
  applyOperations,
  blankDesign,
  checkDesign,
  edit,
  mainCircuit,
  type Design,
} from '@torvek/core/document';
import { pin, shapePack } from '@torvek/core/pack';
import { catalogueOf, type Part } from '@torvek/core/parts';
import equal from 'fast-deep-equal';
import type { FigureId, FigureName, RaisedCheck } from '@torvek/core/figure';
import type { Evaluation } from '@torvek/core/step';
import { libraryBus } from './library-bus';
import { numbersFrom } from './numbers';
import { times } from '../scripts/testing/thorough';

const raised = (evaluation: Evaluation) =>
  evaluation.checks.filter((check): check is RaisedCheck => check.state === 'raised');
const rules = (evaluation: Evaluation) => raised(evaluation).map(({ rule }) => rule.id);
const value = (evaluation: Evaluation, id: FigureId) => evaluation.figures[id]?.value;

/** A number or a flag anywhere in the design, in lists and parts too, moved or taken away. */
function anyNumber(draft: Design, next: () => number): void {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const root = pick(Object.keys(draft).filter((key) => key !== 'schema'));
  let holder = (draft as unknown as Record<string, unknown>)[root] as Record<string, unknown>;
  for (let depth = 0; depth < 6; depth += 1) {
    const inner = Object.values(holder).filter(
      (one): one is Record<string, unknown> => typeof one === 'object' && one !== null,
    );
    const own = Object.keys(holder).filter((key) => ['number', 'boolean'].includes(typeof holder[key]));
    if (own.length > 0 && (inner.length === 0 || next() < 0.6)) {
      const key = pick(own);
      const now = holder[key];
      if (typeof now === 'boolean') holder[key] = !now;
      else if (next() < 0.1 && !Array.isArray(holder)) delete holder[key];
      else holder[key] = (now as number) * pick([0.97, 1.02, 1.3, 0.6]);
      return;
    }
    if (inner.length === 0) return;
    holder = pick(inner);
  }
}

/** One random edit: a number anywhere in the design moved, taken away or given back, the pack reshaped, a part exchanged. */
function randomEdit(draft: Design, next: () => number, count: number, anywhere = false): void {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const kind = next();
  if (kind < 0.15) {
    const part = pick(catalogueOf('module'));
    let made = 0;
    shapePack(
      draft,
      { strings: 1 + Math.floor(next() * 3), modulesPerString: 1 + Math.floor(next() * 12), part },
      (prefix) => `${prefix}-r${count}-${(made += 1)}`,
    );
  } else if (kind < 0.35) {
    const which = pick(['contactor', 'resistor', 'fuse', 'cable'] as const);
    if (next() < 0.2) delete draft.circuits[mainCircuit]![which];
    else draft.circuits[mainCircuit]![which] = pin(draft, pick<Part>(catalogueOf(which) as Part[]));
  } else if (kind < 0.45) {
    draft.masses[`mass-r${count}`] = {
      tag: 'Random',
      change: next() < 0.5 ? 'in' : 'out',
      massKg: next() * 200,
      xM: next() * 6 - 5,
    };
  } else if (anywhere && kind < 0.75) {
    anyNumber(draft, next);
  } else {
    const holder = pick<Record<string, unknown>>([
      draft.vehicle as Record<string, unknown>,
      draft.pack as Record<string, unknown>,
      draft.settings as Record<string, unknown>,
      draft.circuits[mainCircuit]! as unknown as Record<string, unknown>,
      pick(Object.values(draft.devices)) as unknown as Record<string, unknown>,
      pick(Object.values(draft.boxes)) as unknown as Record<string, unknown>,
    ]);
    const keys = Object.keys(holder).filter((key) => typeof holder[key] === 'number' && key !== 'supplyV');
    if (keys.length === 0) return;
    const key = pick(keys);
    const now = holder[key] as number;
    if (next() < 0.15) delete holder[key];
    else holder[key] = pick([now * (0.5 + next()), now * 1.01, -now, 0, now]);
  }
}

describe('the memo', () => {
  test('warm evaluation equals cold after random changes', () => {
    const changes = times(108, 2000);
    const next = numbersFrom(20261125);
    const evaluator = createEvaluator();
    let design = libraryBus.design;
    for (let count = 0; count < changes; count += 1) {
      if (count % 36 === 35) design = libraryBus.design;
      design = edit(design, (draft) => randomEdit(draft as Design, next, count, true))?.design ?? design;
      const warm = evaluator.evaluate(design);
      // Cold takes several times as long: every third state is compared, after changes that warm has seen one by one.
      if (count % 3 !== 0) continue;
      const cold = evaluate(design);
      // The fast comparison decides; the slow one names the difference.
      if (!equal(warm, cold)) expect(warm).toEqual(cold);
      const unexplained = Object.values(warm.figures).filter((figure) =>
        figure.value === null ? figure.gaps.length === 0 : !Number.isFinite(figure.value),
      );
      expect(unexplained).toEqual([]);
    }
  });

  test('a point of a run that is moved again and again reaches the mass each time', () => {
    const evaluator = createEvaluator();
    let { design } = libraryBus;
    for (let i = 1; i <= 4; i += 1) {
      evaluator.evaluate(design);
      design = edit(design, (draft) => {
        const points = draft.runs!['run-inlet']!.points!;
        points[i % 2 === 0 ? 3 : 4]!.zM! += 0.05 * i;
      })!.design;
      const warm = evaluator.evaluate(design);
      const cold = evaluate(design);
      for (const id of ['vehicle.masses:vehicle:changeKg', 'vehicle.axles:vehicle:rearKg'] as const)
        expect(value(warm, id)).toBe(value(cold, id));
    }
  });

  test('a fork goes on from what is known, and neither hears of the other', () => {
    const next = numbersFrom(51);
    const [left, right] = [createEvaluator()].flatMap((one) => [
      (one.evaluate(libraryBus.design), one),
      one.fork(),
    ]);
    const edited = (design: Design, count: number) =>
      edit(design, (draft) => randomEdit(draft as Design, next, count))?.design ?? design;
    let [one, other] = [libraryBus.design, libraryBus.design];
    for (let count = 0; count < 8; count += 1) {
      [one, other] = [edited(one, count), edited(other, count + 100)];
      const [inOne, inOther] = [left!.evaluate(one), right!.evaluate(other)];
      if (count % 4 !== 3) continue;
      expect(equal(inOne, evaluate(one))).toBe(true);
      expect(equal(inOther, evaluate(other))).toBe(true);
    }
  });

  test('what an edit does not reach keeps its identity', () => {
    const evaluator = createEvaluator();
    const before = evaluator.evaluate(libraryBus.design);
    const { design } = edit(libraryBus.design, (draft) => {
      draft.circuits[mainCircuit]!.timeoutS = 2;
    })!;
    const after = evaluator.evaluate(design);
    const range = 'vehicle.range:road-load:rangeKm';
    const shorted = `precharge.run:${mainCircuit}:busShortedEnergyJ` as const;
    expect(after.figures[range]).toBe(before.figures[range]);
    expect(after.figures[shorted]).not.toBe(before.figures[shorted]);
    expect(value(after, shorted)! / value(before, shorted)!).toBeCloseTo(2 / 3, 12);
  });
});

describe('edits and their inverses', () => {
  test('operations forward and back lead to the same document, and it stays a design', () => {
    const next = numbersFrom(7);
    let design = libraryBus.design;
    for (let count = 0; count < 120; count += 1) {
      const edited = edit(design, (draft) => randomEdit(draft as Design, next, count));
      if (edited === null) continue;
      expect(applyOperations(design, edited.forward)).toEqual(edited.design);
      expect(applyOperations(edited.design, edited.inverse)).toEqual(design);
      expect(checkDesign(edited.design).ok).toBe(true);
      design = edited.design;
    }
  });
});

describe('demo A', () => {
  const evaluation = evaluate(libraryBus.design);

  test('is a design, about 350 V in two strings, with everything computed', () => {
    expect(checkDesign(libraryBus.design)).toMatchObject({ ok: true });
    expect(value(evaluation, 'pack.pack:pack:voltageMaxV')).toBeCloseTo(96 * 4.2, 9);
    expect(value(evaluation, 'pack.pack:pack:capacityAh')).toBe(234);
    const missing = Object.values(evaluation.figures)
      .filter(({ value: one }) => one === null)
      .map(({ id }) => id);
    expect(missing).toEqual([]);
    // The inverter’s bleed stands on the bus while it fills: 2000/(2000 + 82) of the pack is all it reaches.
    expect(value(evaluation, 'precharge.bus:bus:loadOhm')).toBe(2000);
    expect(value(evaluation, `precharge.run:${mainCircuit}:finalVoltageV`)).toBeCloseTo(
      (403.2 * 2000) / 2082,
      9,
    );
    expect(evaluation.checks.filter(({ state }) => state === 'not-checked')).toEqual([]);
  });

  test('raises no Stop, and its findings belong to stations', () => {
    expect(raised(evaluation).filter(({ grade }) => grade === 'stop')).toEqual([]);
    expect(rules(evaluation)).toContain('vehicle.range-short');
    expect(new Set(raised(evaluation).map(stationOfCheck))).toEqual(
      new Set(['brief', 'pack', 'network', 'protect']),
    );
  });

  test('mass of the boxes is modules plus empty boxes', () => {
    expect(value(evaluation, 'vehicle.masses:vehicle:boxesKg')).toBeCloseTo(16 * 31.5 + 38 + 46 + 46 + 14, 9);
  });
});

describe('choices stay, findings rank replacements', () => {
  const after = (recipe: (draft: Design) => void) =>
    evaluate(edit(libraryBus.design, (draft) => recipe(draft as Design))!.design);
  const finding = (evaluation: Evaluation, rule: string) =>
    raised(evaluation).find(
      ({ rule: { id }, subjects }) =>
        id === rule && subjects.every((one) => !one.startsWith('circuit-') || one === mainCircuit),
    );

  test('more capacitance than the resistor takes in time', () => {
    const design = edit(libraryBus.design, (draft) => {
      draft.devices['device-inverter']!.busCapacitanceF = 0.015;
    })!.design;
    const found = finding(evaluate(design), 'precharge.slower-than-limit');
    expect(found?.message).toMatch(/needs up to 5\.9\d s, not less than the limit of 3 s/);
    expect(found?.parts).toEqual(['ember-82@1']);
    expect(found?.suggestions[0]).toMatchObject({ partKey: 'ember-47h@1', fits: true });
    expect(design.circuits[mainCircuit]!.resistor).toBe('ember-82@1');
  });

  test('a pack of more modules in series goes beyond fuse, contactors and devices', () => {
    let made = 0;
    const evaluation = after((draft) =>
      shapePack(
        draft,
        { strings: 2, modulesPerString: 12, part: catalogueOf('module')[0]! },
        (prefix) => `${prefix}-${(made += 1)}`,
      ),
    );
    expect(rules(evaluation)).toEqual(
      expect.arrayContaining(['fuse.voltage', 'contactor.voltage', 'pack.above-device-window']),
    );
    // 605 V at full: of the series for 1000 V the one that carries the load; full-range before partial-range ones.
    const fuses = finding(evaluation, 'fuse.voltage')!.suggestions;
    expect(fuses[0]).toMatchObject({ partKey: 'calderside-h300@1', fits: true });
    expect(fuses.filter(({ partKey }) => partKey.startsWith('calderside-p')).length).toBeGreaterThan(0);
  });

  test('a partial-range fuse on a long thin path is below its minimum breaking current', () => {
    const evaluation = after((draft) => {
      const circuit = draft.circuits[mainCircuit]!;
      circuit.fuse = pin(
        draft,
        catalogueOf('fuse').find(({ id }) => id === 'calderside-p300')!,
      );
      circuit.lengthM = 60;
      circuit.cable = pin(
        draft,
        catalogueOf('cable').find(({ data }) => data.areaMm2 === 16)!,
      );
    });
    expect(finding(evaluation, 'fuse.below-minimum-breaking')?.message).toContain('below 1500 A');
  });

  test('a cable that is too thin names the smallest that fits', () => {
    const evaluation = after((draft) => {
      draft.circuits[mainCircuit]!.cable = pin(
        draft,
        catalogueOf('cable').find(({ data }) => data.areaMm2 === 10)!,
      );
    });
    const found = finding(evaluation, 'cable.overloaded');
    // 25 mm² carries the mean square; over the peaks and against the fuse it does not hold.
    expect(found?.suggestions.map(({ label, fits }) => [label, fits])[0]).toEqual([
      'Marlpit X125, 35 mm², 125 °C',
      true,
    ]);
  });

  test('a device left on the bus keeps it below the threshold', () => {
    const evaluation = after((draft) => {
      draft.devices['device-dcdc']!.prechargeLoadOhm = 600;
    });
    expect(value(evaluation, `precharge.run:${mainCircuit}:timeToThresholdS`)).toBeNull();
    expect(finding(evaluation, 'precharge.threshold-never-reached')?.message).toContain(
      'leaves the bus at 342 V, below the threshold of 383 V: 462 Ω stand on the bus while it fills',
    );
  });

  test('strings that are unlike are not computed, and nothing is guessed', () => {
    const evaluation = after((draft) => {
      draft.strings['string-2']!.modules = draft.strings['string-2']!.modules.slice(0, 7);
    });
    const figure = evaluation.figures['pack.pack:pack:voltageMaxV']!;
    expect(figure.value).toBeNull();
    expect(figure.gaps).toEqual([expect.objectContaining({ kind: 'invalid', label: 'string S2' })]);
    // What they weigh together is known, unless the kind of one is not.
    const massOf = (of: Evaluation) => of.figures['pack.pack:pack:massKg']!.value;
    expect(massOf(evaluation)).toBeCloseTo((15 / 16) * massOf(evaluate(libraryBus.design))!, 9);
    const unsaid = after((draft) => {
      draft.strings['string-2']!.modules = draft.strings['string-2']!.modules.slice(0, 7);
      draft.modules[draft.strings['string-2']!.modules[0]!]!.part = 'nobody-knows@1';
    });
    expect(massOf(unsaid)).toBeNull();
    // What each of them is by itself is known all the same: eight and seven modules of twelve cells.
    const of = (string: string, name: FigureName<'pack.string'>) =>
      value(evaluation, `pack.string:${string}:${name}`);
    expect([of('string-1', 'cells'), of('string-2', 'cells')]).toEqual([96, 84]);
    expect(of('string-2', 'voltageMaxV')).toBeCloseTo(84 * 4.2, 9);
    expect(of('string-2', 'massKg')).toBeCloseTo(7 * 31.5, 9);
    expect(of('string-2', 'capacityAh')).toBe(117);
    expect(
      evaluation.checks
        .filter(({ rule }) => rule.id.startsWith('fuse') && rule.id !== 'fuse.branches-together')
        .every(({ state }) => state === 'not-checked'),
    ).toBe(true);
  });
});

describe('a blank job', () => {
  const evaluation = evaluate(blankDesign());

  test('has no finding, no NaN, and says what is missing by path', () => {
    expect(raised(evaluation)).toEqual([]);
    for (const figure of Object.values(evaluation.figures)) {
      if (figure.id.startsWith('vehicle.masses:')) expect(figure.value).toBe(0);
      else expect([figure.id, figure.value, figure.gaps.length > 0]).toEqual([figure.id, null, true]);
    }
    const paths = Object.values(evaluation.figures).flatMap(({ gaps }) =>
      gaps.flatMap((gap) => ('path' in gap ? [gap.path] : [])),
    );
    expect(paths).toEqual(
      expect.arrayContaining([
        'vehicle.wheelbaseM',
        'strings',
        'pack.socLowFraction',
        `circuits.${mainCircuit}.resistor`,
      ]),
    );
  });
});

test('a circuit that nothing of the library protects says what fails and what a fitting part needs', () => {
  const { design } = edit(libraryBus.design, (draft) => {
    const heater = draft.circuits['circuit-heater']!;
    heater.loadProfile = [[600, 900]];
    heater.cable = pin(
      draft as Design,
      catalogueOf('cable').find(({ id }) => id === 'marl-x4')!,
    );
  })!;
  const found = raised(evaluate(design)).filter(({ subjects }) => subjects[0] === 'circuit-heater');
  const say = (id: string) => found.find(({ rule }) => rule.id === id)!;
  expect(say('fuse.continuous-load').message).toMatch(/carries 900 A in the mean square, \d+ % of the/);
  expect(say('fuse.continuous-load').advice).toMatch(
    /^Nothing in the library fits: here it takes 403 V DC or more/,
  );
  expect(say('fuse.continuous-load').advice).toMatch(/a rating of \d+ A or more at this ambient/);
  expect(say('cable.no-balance').advice).toMatch(/here it takes an ampacity of 900 A/);
  // One cause is one finding: the walk through the load says nothing that the mean square does not.
  expect(found.map(({ rule }) => rule.id)).not.toContain('cable-duty.beyond-400');
});
