import { describe, expect, test } from '@jest/globals';
import {
  behaviours,
  doubtAbout,
  judgeMeasurement,
  precautions,
  procedureFor,
  standInReading,
  type ProcedureStep,
} from '@torvek/core/commissioning';
import { evaluate } from '@torvek/core/design';
import { blankDesign, edit, mainCircuit, type Design } from '@torvek/core/document';
import { jointsOf } from '@torvek/core/joints';
import { libraryBus } from './library-bus';

const { design } = libraryBus;
const evaluation = evaluate(design);
const procedure = procedureFor(design, evaluation);
const reading = (step: ProcedureStep, behaviour: string, seed: number) =>
  standInReading(step, design, evaluation, behaviour, seed)!;
const verdict = (step: ProcedureStep, behaviour: string, seed = 1) => {
  const judged = judgeMeasurement(step.expected!, reading(step, behaviour, seed));
  return judged.ok ? judged.judgement.verdict : 'refused';
};
const ofTemplate = (template: string) => procedure.find(({ id }) => id.startsWith(`${template}:`))!;

describe('the procedure of the bus', () => {
  test('has a step for each module and at least eight kinds, in gates, with ids that do not count', () => {
    const templates = new Set(procedure.map(({ id }) => id.split(':')[0]));
    expect(procedure.filter(({ id }) => id.startsWith('intake-voltage:'))).toHaveLength(16);
    expect(templates.size).toBeGreaterThanOrEqual(8);
    expect(new Set(procedure.map(({ id }) => id)).size).toBe(procedure.length);
    expect([...new Set(procedure.map(({ gate }) => gate))]).toEqual([
      'parts',
      'wiring',
      'coils',
      'coolant',
      'insulation',
      'first-hv',
      'charging',
      'under-load',
    ]);
  });

  test('every expectation is computed, says so in words, and names what it rests on', () => {
    for (const { id, expected, expectedText, basis, gaps, why, do: doing } of procedure) {
      expect([id, expected === null, gaps]).toEqual([id, false, []]);
      expect([id, expectedText.length > 4 && why.length > 10 && doing.length > 10]).toEqual([id, true]);
      expect([id, basis.length > 0 && basis.every(({ value }) => Number.isFinite(value))]).toEqual([
        id,
        true,
      ]);
    }
  });

  test('expectations are the design’s own figures', () => {
    const range = (template: string) => {
      const { expected } = ofTemplate(template);
      return expected?.kind === 'range' ? expected : null;
    };
    expect(range('intake-voltage')).toMatchObject({ min: 36, max: expect.closeTo(50.4, 9), unit: 'V' });
    expect(range('insulation-negative')?.min).toBeCloseTo((500 * 403.2) / 1e6, 9);
    expect(range('precharge-resistor')).toMatchObject({
      min: expect.closeTo(82 * 0.94, 9),
      max: expect.closeTo(82 * 1.06, 9),
    });
    // The bleed of 2 kΩ stands on the bus while it fills: k = 2000/2082.
    const k = 2000 / 2082;
    expect(range('precharge-time')?.nominal).toBeCloseTo(-82 * 0.001239 * k * Math.log(1 - 0.95 / k), 9);
    expect(range('bleed-resistance')).toMatchObject({ min: 1800, max: expect.closeTo(2200, 9) });
    expect(range('stop-discharge')?.max).toBe(5);
    expect(range('bus-dead')).toMatchObject({ min: -60, max: 60 });
  });

  test('steps with more than the touch limit at hand are marked', () => {
    expect(ofTemplate('intake-voltage').hazard).toBe('part');
    const low = edit(design, (draft) => void (draft.settings.touchLimitV = 30))!.design;
    expect(procedureFor(low, evaluate(low))[0]!.hazard).toBe('part-hv');
  });

  test('precautions fit the step: where high voltage has to be on, nobody is told to take the disconnect out first', () => {
    const live = procedure.filter(({ hazard }) => hazard === 'live').map(({ id }) => id.split(':')[0]);
    expect([...new Set(live)]).toEqual([
      'polarity',
      'precharge-time',
      'precharge-curve',
      'stop-discharge',
      'inlet-weld',
      'charge-current',
      'charge-pilot',
      'charge-cable',
      'charge-lost',
      'charge-stop',
      'charge-cut',
      'charge-station',
      'converter-load',
      'warm-box',
    ]);
    for (const { id, hazard, do: doing } of procedure) {
      const { lines } = precautions[hazard];
      const outFirst = /disconnect out/i.test(lines[0]!);
      expect([id, outFirst]).toEqual([id, hazard === 'isolated']);
      // What the step says to do does not contradict it.
      if (hazard === 'live') expect([id, /disconnect out/i.test(doing)]).toEqual([id, false]);
    }
    for (const { lines } of Object.values(precautions))
      expect(lines.some((line) => /before and after/.test(line))).toBe(true);
  });

  test('first high voltage waits for torque, bonds, coils and what every branch has of its own', () => {
    const ids = procedure.map(({ id }) => id);
    for (const branch of Object.keys(design.circuits).filter((id) => id !== mainCircuit))
      expect(ids).toEqual(expect.arrayContaining([`poles:${branch}`, `insulation-branch:${branch}`]));
    expect(ids).toEqual(expect.arrayContaining(['coils:circuit-inlet', 'bonds:chassis', 'torque:joint-m10']));
    const walked = procedure.filter(({ id }) => id.startsWith('torque:')).flatMap(({ walk }) => walk!.items);
    expect(walked).toHaveLength(jointsOf(design).length);
    const own = edit(design, (draft) => {
      const charger = (draft as Design).circuits['circuit-charger']!;
      Object.assign(charger, { contactor: 'hollin-k200@1', poles: 'both', resistor: 'ember-82@1' });
      draft.devices['device-charger']!.bleedOhm = 20_000;
    })!.design;
    const more = procedureFor(own, evaluate(own)).map(({ id }) => id);
    expect(more).toEqual(
      expect.arrayContaining(
        [
          'precharge-resistor',
          'bleed-resistance',
          'coils',
          'precharge-time',
          'precharge-curve',
          'stop-discharge',
        ].map((template) => `${template}:circuit-charger`),
      ),
    );
  });

  test('an expectation that contradicts itself is none, and a finding says what is wrong', () => {
    const late = edit(
      design,
      (draft) => void (draft.devices['device-inverter']!.busCapacitanceF = 0.02),
    )!.design;
    const all = evaluate(late);
    const step = procedureFor(late, all).find(({ id }) => id === `precharge-time:${mainCircuit}`)!;
    expect(step.expected).toBeNull();
    expect(step.gaps).toEqual([
      {
        kind: 'never',
        label: expect.stringMatching(
          /^The design expects at least 5\.\d+ s and allows at most 3 s: see its findings$/,
        ),
      },
    ]);
    expect(
      all.checks.find(({ rule, state }) => rule.id === 'precharge.slower-than-limit' && state === 'raised'),
    ).toBeDefined();
  });

  test('a repair makes due all that it touched: a contactor, its insulation too', () => {
    const touchedBy = (id: string) =>
      procedure
        .filter(
          ({ subjects, touchedBy: by = [] }) => subjects.some((one) => one.id === id) || by.includes(id),
        )
        .map((one) => one.id.split(':')[0]);
    const byMains = touchedBy(mainCircuit);
    expect(byMains).toEqual(
      expect.arrayContaining([
        'precharge-resistor',
        'torque',
        'coils',
        'insulation-negative',
        'insulation-positive',
        'polarity',
        'precharge-time',
        'stop-discharge',
      ]),
    );
    expect(touchedBy('circuit-heater')).toEqual(
      expect.arrayContaining(['poles', 'insulation-branch', 'insulation-positive', 'torque']),
    );
    expect(touchedBy('device-inverter')).toEqual(
      expect.arrayContaining([
        'bleed-resistance',
        'precharge-curve',
        'stop-discharge',
        'insulation-negative',
        'bonds',
      ]),
    );
    expect(touchedBy('circuit-heater')).not.toContain('coils');
  });

  test('without what it needs a step has gaps instead of an expectation', () => {
    const lacking = edit(design, (draft) => void delete draft.circuits[mainCircuit]!.resistor)!.design;
    const step = procedureFor(lacking, evaluate(lacking)).find(
      ({ id }) => id === `precharge-curve:${mainCircuit}`,
    )!;
    expect([step.expected, step.gaps]).toEqual([
      null,
      [{ kind: 'not-given', path: `circuits.${mainCircuit}.resistor`, label: 'pre-charge resistor' }],
    ]);
    const blank = procedureFor(blankDesign(), evaluate(blankDesign()));
    expect(blank.filter(({ expected }) => expected !== null).map(({ id }) => id)).toEqual(['bus-dead:bus']);
    expect(blank.every(({ expected, gaps }) => (expected === null) === gaps.length > 0)).toBe(true);
  });
});

describe('stand-in instruments', () => {
  test('read true: every step passes, whatever the seed; the same seed reads the same', () => {
    for (const step of procedure.filter(({ walk }) => walk === undefined)) {
      for (const seed of [1, 7, 20261125, 999_999_999]) {
        expect([step.id, seed, verdict(step, 'true', seed)]).toEqual([step.id, seed, 'pass']);
        expect(reading(step, 'true', seed)).toEqual(reading(step, 'true', seed));
      }
      expect(reading(step, 'true', 1)).not.toEqual(reading(step, 'true', 2));
    }
  });

  test.each([
    ['intake-voltage', 'swapped-leads'],
    ['intake-voltage', 'open-lead'],
    ['intake-voltage', 'wrong-range'],
    ['intake-voltage', 'worn-part'],
    ['precharge-resistor', 'worn-part'],
    ['polarity', 'swapped-leads'],
    ['insulation-negative', 'moisture'],
    ['insulation-positive', 'chassis-touch'],
    ['precharge-time', 'wrong-resistor'],
    ['precharge-time', 'more-capacitance'],
    ['precharge-curve', 'more-capacitance'],
    ['precharge-curve', 'load-on-bus'],
    ['precharge-curve', 'wrong-resistor'],
    ['precharge-curve', 'no-rise'],
    ['stop-discharge', 'more-capacitance'],
  ])('%s with %s fails', (template, behaviour) => {
    expect(verdict(ofTemplate(template), behaviour)).toBe('fail');
  });

  test('a wrong range or swapped leads are asked about before they are recorded', () => {
    const step = ofTemplate('intake-voltage');
    const value = (behaviour: string) => (reading(step, behaviour, 3) as { value: number }).value;
    expect(doubtAbout(step.expected!, value('wrong-range'))).toContain('ten times as large');
    expect(doubtAbout(step.expected!, value('swapped-leads'))).toContain('sign turned');
    expect(doubtAbout(step.expected!, value('true'))).toBeNull();
  });

  test('every instrument a step asks for can do something', () => {
    for (const { instrument, walk } of procedure)
      if (walk === undefined) expect(behaviours[instrument][0]).toEqual({ id: 'true', label: 'reads true' });
  });
});

describe('what moves makes results stale', () => {
  const moved = (recipe: (draft: Design) => void) => {
    const changed = edit(design, (draft) => recipe(draft as Design))!.design;
    const after = new Map(procedureFor(changed, evaluate(changed)).map(({ id, basis }) => [id, basis]));
    return procedure
      .filter(({ id, basis }) => JSON.stringify(after.get(id)) !== JSON.stringify(basis))
      .map(({ id }) => id.split(':')[0]);
  };
  test('only what an expectation read', () => {
    expect(moved((draft) => void (draft.devices['device-heater']!.busCapacitanceF = 0.0001))).toEqual([
      'precharge-time',
      'precharge-curve',
      'stop-discharge',
    ]);
    expect(moved((draft) => void (draft.circuits[mainCircuit]!.timeoutS = 2))).toEqual(['precharge-time']);
    expect(new Set(moved((draft) => void (draft.settings.insulationOhmPerV = 100)))).toEqual(
      new Set(['insulation-negative', 'insulation-positive', 'insulation-branch']),
    );
    // The bleed stands on the bus while it fills: time, curve and its own resistance hang on it.
    expect(moved((draft) => void (draft.devices['device-inverter']!.bleedOhm = 2100))).toEqual([
      'bleed-resistance',
      'precharge-time',
      'precharge-curve',
      'stop-discharge',
    ]);
    expect(moved((draft) => void (draft.vehicle.speedKmH = 30))).toEqual([]);
  });
});
