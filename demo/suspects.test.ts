import { describe, expect, test } from '@jest/globals';
import { procedureFor, standInReading, suspects } from '@torvek/core/commissioning';
import { evaluate } from '@torvek/core/design';
import { edit, mainCircuit, type Design } from '@torvek/core/document';
import { libraryBus } from './library-bus';

/** Causes are computed from this design: each planted fault must stand first, with the numbers that explain it. */
function suspectsOf(stepId: string, value: number, design: Design = libraryBus.design) {
  const evaluation = evaluate(design);
  const step = procedureFor(design, evaluation).find(({ id }) => id === stepId)!;
  const unit = step.expected!.unit;
  return suspects(step, design, evaluation, { kind: 'value', value, unit });
}

const first = (stepId: string, value: number, design?: Design) => suspectsOf(stepId, value, design)[0]!;

describe('an intake voltage', () => {
  const step = 'intake-voltage:module-101';
  test('with the sign turned, a tenth, a thousandth', () => {
    expect(first(step, -44).cause).toContain('Leads swapped');
    expect(first(step, 4.4).cause).toContain('a tenth');
    expect(first(step, 0.044).cause).toContain('a thousandth');
  });
  test('with one dead cell: what the other eleven would have is in the window', () => {
    const one = suspectsOf(step, 33.5).find(({ cause }) => cause.startsWith('1 of 12 cells'))!;
    expect(one.because).toContain('3.05 V in each of the other 11');
  });
  test('below the minimum of every cell is damage, not a reading to charge away', () => {
    expect(suspectsOf(step, 20).map(({ cause }) => cause)).toContain('Discharged below its minimum: damaged');
  });
});

describe('polarity at the main contactors', () => {
  const nominal = evaluate(libraryBus.design).figures['pack.pack:pack:voltageNominalV']!.value!;
  test.each([1, 2, 3])('%i modules bridged', (missing) => {
    const { cause, missFraction } = first('polarity:pack', (nominal * (8 - missing)) / 8);
    // Two bridged and one reversed read the same: either stands first.
    expect(cause).toMatch(
      missing === 2 ? /^(2 modules? of|1 module the wrong)/ : new RegExp(`^${missing} module`),
    );
    expect(missFraction).toBeCloseTo(0, 9);
  });
});

describe('resistances', () => {
  test('another resistor of the catalogue', () => {
    expect(first(`precharge-resistor:${mainCircuit}`, 47).cause).toMatch(/Another resistor was fitted: .*47/);
  });
  test('a bleed that is not connected, among two', () => {
    const two = edit(
      libraryBus.design,
      (draft) => void (draft.devices['device-charger']!.bleedOhm = 6000),
    )!.design;
    // 2000 and 6000 in parallel are 1500; without the charger's the inverter's 2000 are left.
    const { cause, missFraction } = first('bleed-resistance:bus', 2000, two);
    expect(cause).toBe('The bleed of Charger, three-phase is not connected');
    expect(missFraction).toBeCloseTo(0, 9);
    expect(first('stop-discharge:circuit-main', 4.5 * (4 / 3), two)).toBeDefined();
  });
  test('something more across the bus is given in ohms', () => {
    const [one] = suspectsOf('bleed-resistance:bus', 1000).filter(({ cause }) =>
      cause.startsWith('Something more'),
    );
    expect(one!.cause).toContain('2 kΩ');
  });
});

describe('pre-charge', () => {
  /** With the bleed of 2 kΩ on the bus. */
  const timeS = (ohm: number, farad: number) => {
    const k = 2000 / (2000 + ohm);
    return -ohm * farad * k * Math.log(1 - 0.95 / k);
  };
  test('a time that fits another resistor names it, by how far it is off', () => {
    const { cause, missFraction } = first(`precharge-time:${mainCircuit}`, timeS(47, 0.001239));
    expect(cause).toMatch(/Another resistor is fitted: .*47/);
    expect(missFraction).toBeLessThan(1e-9);
  });
  test('a time that fits a missing device names the device', () => {
    const { cause } = first(`precharge-time:${mainCircuit}`, timeS(82, 0.001239 - 0.00022));
    expect(cause).toBe('Charger, three-phase is not connected');
  });
  test('a trace that ends low speaks for a load, in ohms; one that ends at the pack does not', () => {
    const { design } = libraryBus;
    const evaluation = evaluate(design);
    const step = procedureFor(design, evaluation).find(({ id }) => id === `precharge-curve:${mainCircuit}`)!;
    const because = (behaviour: string) =>
      suspects(step, design, evaluation, standInReading(step, design, evaluation, behaviour, 3)!).find(
        ({ cause }) => cause.startsWith('A load draws'),
      )!.because;
    // 738 Ω beside the bleed of 2 kΩ.
    expect(because('load-on-bus')).toMatch(/about 7[2345]0 Ω draws .* beside the 2 kΩ of the design/);
    expect(because('more-capacitance')).toContain('little speaks for it');
  });
});

test('a bus that stands at the pack’s voltage is on the pack', () => {
  expect(first('bus-dead:bus', 357).cause).toContain('welded or closed');
  expect(first('bus-dead:bus', 80).cause).toContain('not empty yet');
});

test('insulation: a contact before electronics before each box', () => {
  const causes = suspectsOf('insulation-positive:pack', 0).map(({ cause }) => cause);
  expect(causes[0]).toContain('touches the chassis');
  expect(causes.filter((cause) => cause.startsWith('Moisture'))).toHaveLength(4);
  expect(suspectsOf('insulation-positive:pack', 0.09)[0]!.cause).toContain('not isolated from the tester');
});
