import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface AcCharger {
  id: string;
  phase: 1 | 2 | 3 | '3ph';
  maxInputA: number;
  efficiency: number;
  maxOutputA: number;
  minV: number;
  maxV: number;
}

export interface AcChargeInput {
  phases: 1 | 3;
  phaseVoltageV: number;
  pilotA: number;
  cableA: number;
  inletWireA: number;
  breakerA?: number;
  /** What hangs on each phase behind the same breaker and starts before the chargers, A; beyond the contract, absent: nothing. */
  beforeA?: [number, number, number];
  continuousFraction: number;
  chargers: AcCharger[];
  packV: number;
}

export interface AcChargeResult {
  availableA: number;
  limitedBy: 'pilot' | 'cable' | 'wire' | 'breaker';
  phaseA: [number, number, number];
  neutralA: number;
  inputW: number;
  outputW: number;
  outputA: number;
  chargers: {
    id: string;
    inputA: number;
    outputW: number;
    limitedBy: 'window' | 'supply' | 'output' | 'input';
  }[];
}

const rule = rulesOf('ac-charge');

export const acChargeRules = {
  window: rule(
    'outside-window',
    'mend',
    'A charger does not work at the voltage of the pack',
    'It does nothing, or it switches off in the middle of a charge.',
    'A charger whose window holds the pack from empty to full.',
    'Window of the charger against the voltage of the pack',
  ),
};

/** What a phase leaves for the chargers, A: the smallest of its limits, less what hangs on it before them. */
export const onPhaseA = (
  {
    pilotA,
    cableA,
    inletWireA,
    breakerA,
    continuousFraction,
    beforeA,
  }: Pick<AcChargeInput, 'pilotA' | 'cableA' | 'inletWireA' | 'breakerA' | 'continuousFraction' | 'beforeA'>,
  phase: 0 | 1 | 2,
): number =>
  Math.min(
    pilotA,
    cableA,
    inletWireA,
    breakerA === undefined ? Infinity : breakerA * continuousFraction - (beforeA?.[phase] ?? 0),
  );

const source = 'Unity power factor; chargers rise together in proportion to what they can take';

/**
 * What charges a pack from the mains, phase by phase, and what limits it.
 *
 * Source: smallest limit of the supply; chargers filled evenly until each has its need or a phase of it is full.
 */
export const acCharge = defineCalculator<AcChargeInput, AcChargeResult>({
  name: 'ac-charge',
  version: 1,
  title: 'Charging from the mains',
  rules: Object.values(acChargeRules),
  door: {
    schema: record({
      phases: oneOf([1, 3]),
      phaseVoltageV: number({ above: 0 }),
      pilotA: number({ min: 0 }),
      cableA: number({ min: 0 }),
      inletWireA: number({ min: 0 }),
      breakerA: number.optional({ min: 0 }),
      beforeA: list.optional(number({ min: 0 }), { minRows: 3, maxRows: 3 }),
      continuousFraction: number.optional({ above: 0, max: 1 }),
      chargers: list(
        record({
          id: text(),
          phase: oneOf([1, 2, 3, '3ph']),
          maxInputA: number({ above: 0 }),
          efficiency: number({ above: 0, max: 1 }),
          maxOutputA: number({ above: 0 }),
          minV: number({ min: 0 }),
          maxV: number({ above: 0 }),
        }),
        { minRows: 1, maxRows: 50 },
      ),
      packV: number({ above: 0 }),
    }),
    defaults: { continuousFraction: 1 },
    cross({ phases, chargers, beforeA, breakerA, continuousFraction }: AcChargeInput, issue) {
      beforeA?.forEach((amps, i) => {
        if (amps === 0 || (phases === 1 && i > 0)) return;
        if (breakerA === undefined) issue('beforeA', 'needs the breaker that it hangs behind');
        else if (amps > breakerA * continuousFraction)
          issue(`beforeA.${i}`, 'is more than the breaker holds');
      });
      const ids = new Set<string>();
      chargers.forEach(({ id, phase, minV, maxV }, i) => {
        if (phases === 1 && phase !== 1) issue(`chargers.${i}.phase`, 'must be 1 where there is one phase');
        if (maxV < minV) issue(`chargers.${i}.maxV`, 'must not be below minV');
        if (ids.has(id)) issue(`chargers.${i}.id`, 'stands twice');
        ids.add(id);
      });
    },
  },
  compute(input, { sheet, raise }) {
    const { phaseVoltageV, packV, beforeA = [0, 0, 0] } = input;
    const limits: [AcChargeResult['limitedBy'], number][] = [
      ['pilot', input.pilotA],
      ['cable', input.cableA],
      ['wire', input.inletWireA],
      ...(input.breakerA === undefined
        ? []
        : [
            [
              'breaker',
              input.breakerA * input.continuousFraction - Math.max(...beforeA.slice(0, input.phases)),
            ] as ['breaker', number],
          ]),
    ];
    const [limitedBy, least] = limits.reduce((best, one) => (one[1] < best[1] ? one : best));
    const availableA = sheet.add({
      symbol: 'I_a',
      label: `Available on each phase, by the ${limitedBy}`,
      formula: 'min(I_p, I_c, I_w)',
      inputs: [
        { symbol: 'I_p', value: input.pilotA, unit: 'A', from: 'pilotA' },
        { symbol: 'I_c', value: input.cableA, unit: 'A', from: 'cableA' },
        { symbol: 'I_w', value: input.inletWireA, unit: 'A', from: 'inletWireA' },
      ],
      value: least,
      unit: 'A',
      source: 'Smallest of pilot, cable, wire and breaker',
    });
    const phasesOf = ({ phase }: AcCharger) => (phase === '3ph' ? [0, 1, 2] : [phase - 1]);
    const perAmpere = (charger: AcCharger) => phasesOf(charger).length * phaseVoltageV * charger.efficiency;
    const outputNeed = (charger: AcCharger) => (charger.maxOutputA * packV) / perAmpere(charger);
    const inWindow = ({ minV, maxV }: AcCharger) => packV >= minV && packV <= maxV;
    const needs = input.chargers.map((charger) =>
      inWindow(charger) ? Math.min(charger.maxInputA, outputNeed(charger)) : 0,
    );
    const currents = shareOut(
      input.chargers,
      needs,
      ([0, 1, 2] as const).map((phase) => onPhaseA(input, phase)),
      phasesOf,
    );
    const phaseA: [number, number, number] = [0, 0, 0];
    input.chargers.forEach((charger, i) => {
      for (const phase of phasesOf(charger)) phaseA[phase]! += currents[i]!;
    });
    const [a, b, c] = phaseA;
    const neutralA = sheet.add({
      symbol: 'I_n',
      label: 'Neutral',
      formula: input.phases === 1 ? 'a' : '√(a² + b² + c² − a·b − b·c − c·a)',
      inputs: [
        { symbol: 'a', value: a, unit: 'A' },
        { symbol: 'b', value: b, unit: 'A' },
        { symbol: 'c', value: c, unit: 'A' },
      ],
      value: input.phases === 1 ? a : Math.sqrt(Math.max(0, a * a + b * b + c * c - a * b - b * c - c * a)),
      unit: 'A',
      source: 'Phasor sum, 120° apart',
    });
    const outputs = input.chargers.map((charger, i) => perAmpere(charger) * currents[i]!);
    const inputW = phaseVoltageV * (a + b + c);
    const outputW = sheet.add({
      symbol: 'P',
      label: 'Into the pack',
      formula: 'Σ n·V·I·η',
      inputs: [
        { symbol: 'V', value: phaseVoltageV, unit: 'V', from: 'phaseVoltageV' },
        { symbol: 'P_in', value: inputW, unit: 'W' },
      ],
      value: outputs.reduce((sum, own) => sum + own, 0),
      unit: 'W',
      source,
    });
    const outside = input.chargers.filter((charger) => !inWindow(charger));
    if (outside.length > 0)
      raise(
        acChargeRules.window,
        `${outside.map(({ id, minV, maxV }) => `${id} works from ${minV} to ${maxV} V`).join('; ')}; the pack has ${formatQuantity(packV, 'V')}.`,
      );
    return {
      availableA,
      limitedBy,
      phaseA,
      neutralA,
      inputW,
      outputW,
      outputA: outputW / packV,
      chargers: input.chargers.map((charger, i) => ({
        id: charger.id,
        inputA: currents[i]!,
        outputW: outputs[i]!,
        limitedBy: !inWindow(charger)
          ? 'window'
          : currents[i]! < needs[i]! * (1 - 1e-9)
            ? 'supply'
            : outputNeed(charger) < charger.maxInputA
              ? 'output'
              : 'input',
      })),
    };
  },
});

/**
 * All rise together in proportion to what they can take, until each has its need or one of its phases is full.
 *
 * @param availableA on each phase
 */
function shareOut(
  chargers: readonly AcCharger[],
  needs: readonly number[],
  availableA: readonly number[],
  phasesOf: (charger: AcCharger) => number[],
): number[] {
  const currents = chargers.map(() => 0);
  const left = [...availableA];
  const full = (phase: number) => left[phase]! <= 1e-12 * Math.max(1, availableA[phase]!);
  let rising = chargers.map((_, i) => i).filter((i) => needs[i]! > 0 && !phasesOf(chargers[i]!).some(full));
  while (rising.length > 0) {
    const rate = [0, 0, 0];
    for (const i of rising)
      for (const phase of phasesOf(chargers[i]!)) rate[phase]! += chargers[i]!.maxInputA;
    let step = Infinity;
    for (const i of rising) step = Math.min(step, (needs[i]! - currents[i]!) / chargers[i]!.maxInputA);
    for (const phase of [0, 1, 2]) if (rate[phase]! > 0) step = Math.min(step, left[phase]! / rate[phase]!);
    for (const i of rising) currents[i]! += step * chargers[i]!.maxInputA;
    for (const phase of [0, 1, 2]) left[phase]! -= step * rate[phase]!;
    rising = rising.filter(
      (i) => needs[i]! - currents[i]! > 1e-12 * needs[i]! && !phasesOf(chargers[i]!).some(full),
    );
  }
  return currents;
}
