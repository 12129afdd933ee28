import { everyCircuit } from '../document';
import { defineRule, type Suggestion } from '../finding';
import { figureId, type Figure, type Gap } from '../figure';
import { catalogueOf, partKey, resistancePerM, type PartOf } from '../parts';
import { formatNumber } from '../quantity';
import { Inputs, judge, type Reader, type StepDefinition } from '../step';
import { cableDuty } from './duty';
import { endsStep, glandProblem } from './ends';
import { cable, type CableInput, type CableResult } from './cable';

/** Share of the nominal voltage that a cable may drop where the circuit does not say. */
export const defaultMaxDropFraction = 0.02;
const defaultContactOhm = 0.002;

const dropRule = defineRule({
  id: 'cable.voltage-drop',
  version: 1,
  grade: 'mend',
  title: 'The cable drops too much voltage',
  why: 'What drops in the cable is heat in the vehicle and is missing at the motor.',
  remedy: 'Choose a larger area or a shorter way.',
  source: 'Practice: about 2 % at the load’s rms',
});

const chosenCable = defineRule({
  id: 'cable.chosen-cable',
  version: 1,
  grade: 'stop',
  title: 'The chosen cable does not hold',
  why: 'One criterion governs the size of a cable; where it fails, the others do not help.',
  remedy: 'Choose one of the ranked areas, or change installation, ambient or load and prove it.',
  source: 'Heat balance, voltage drop and adiabatic limit together',
});

/** Resistance of the circuit out and back: cable at 20 °C and contacts. */
const loopStep: StepDefinition = {
  id: 'conductor.loop',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const part = chosenCablePart(read, circuit.cable);
    const gaps: Gap[] = [];
    if (part === null) gaps.push({ kind: 'not-given', path: `${at}.cable`, label: 'cable' });
    if (circuit.lengthM === undefined)
      gaps.push({ kind: 'not-given', path: `${at}.lengthM`, label: 'length of the cable' });
    else if (circuit.lengthM < 0)
      gaps.push({
        kind: 'invalid',
        path: `${at}.lengthM`,
        label: 'length of the cable',
        message: 'must be 0 or more',
      });
    const parallel = circuit.parallel ?? 1;
    const contactOhm = circuit.contactOhm ?? defaultContactOhm;
    const lengthM = circuit.lengthM ?? 0;
    const perM = part === null ? 0 : resistancePerM(part.data.areaMm2, 20);
    if (part !== null && !Number.isFinite(perM)) {
      gaps.push({
        kind: 'invalid',
        path: `${at}.cable`,
        label: 'area of the cable',
        message: 'is not one of IEC 60228',
      });
    }
    if (!(parallel >= 1))
      gaps.push({
        kind: 'invalid',
        path: `${at}.parallel`,
        label: 'conductors in parallel',
        message: 'must be 1 or more',
      });
    const value = (2 * lengthM * perM) / parallel + contactOhm;
    const origin = (given: number | undefined, field: string) => ({
      kind: given === undefined ? ('default' as const) : ('document' as const),
      path: `${at}.${field}`,
    });
    const figure: Figure = {
      id: figureId('conductor.loop', subject, 'loopOhm'),
      label: 'Resistance out and back',
      unit: 'Ω',
      value: gaps.length > 0 ? null : value,
      gaps,
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'R_p',
                label: 'Resistance out and back',
                formula: '2·l·r/p + R_c',
                inputs: [
                  { symbol: 'l', value: lengthM, unit: 'm', origin: origin(circuit.lengthM, 'lengthM') },
                  {
                    symbol: 'r',
                    value: perM,
                    unit: 'Ω/m',
                    origin: { kind: 'part', key: circuit.cable ?? '', path: 'areaMm2' },
                  },
                  { symbol: 'p', value: parallel, unit: '', origin: origin(circuit.parallel, 'parallel') },
                  {
                    symbol: 'R_c',
                    value: contactOhm,
                    unit: 'Ω',
                    origin: origin(circuit.contactOhm, 'contactOhm'),
                  },
                ],
                value,
                unit: 'Ω',
                source: 'IEC 60228 at 20 °C; contacts, lugs and bars of both poles',
              },
            ],
    };
    return { figures: [figure], checks: [] };
  },
};

function chosenCablePart(read: Reader, key: string | undefined): PartOf<'cable'> | null {
  const part = key === undefined ? undefined : read.at('parts', key);
  return part?.kind === 'cable' ? part : null;
}

/** Where a circuit's cable lies. */
function placeInputs(subject: string, read: Reader): Inputs {
  const circuit = read.at('circuits', subject)!;
  const at = `circuits.${subject}`;
  const inputs = new Inputs(read);
  inputs.given('lengthM', circuit.lengthM, `${at}.lengthM`, 'length of the cable');
  inputs.given('ambientC', circuit.ambientC, `${at}.ambientC`, 'ambient of the cable');
  inputs.orDefault('install', circuit.install, 'free-air', `${at}.install`, 'installation');
  inputs.optional(
    'conduitInnerMm',
    circuit.conduitInnerMm,
    `${at}.conduitInnerMm`,
    'inner diameter of the conduit',
  );
  inputs.optional(
    'conduitOuterMm',
    circuit.conduitOuterMm,
    `${at}.conduitOuterMm`,
    'outer diameter of the conduit',
  );
  inputs.optional('parallel', circuit.parallel, `${at}.parallel`, 'conductors in parallel');
  inputs.orDefault('grouped', circuit.grouped, 2, `${at}.grouped`, 'cables that touch');
  return inputs;
}

/** Installation and load of a circuit: what any cable in its place is judged by. */
function circuitInputs(subject: string, read: Reader): Inputs {
  const inputs = placeInputs(subject, read);
  inputs.figure('currentA', figureId('network.load', subject, 'rmsA'));
  inputs.figure('busVoltageV', figureId('pack.pack', 'pack', 'voltageNominalV'));
  return inputs;
}

function setCable(inputs: Inputs, part: PartOf<'cable'>): void {
  const key = partKey(part);
  const { massKgPerM: _mass, ...data } = part.data;
  for (const [name, value] of Object.entries(data))
    inputs.set(name, value, { kind: 'part', key, path: name }, `${name} of ${part.label}`);
}

/** Which criterion decides: the one whose use of its limit is the greatest. */
export type CableCriterion = 'ampacity' | 'voltage drop' | 'does not fit the conduit';

/** One area in the table of all areas. */
export interface SizedCable {
  partKey: string;
  label: string;
  areaMm2: number;
  conductorMaxC: number;
  ampacityA: number | null;
  conductorTemperatureC: number | null;
  voltageDropV: number | null;
  dropFraction: number | null;
  /** Share of each limit that is used. */
  ampacityUse: number | null;
  dropUse: number | null;
  governs: CableCriterion;
  fits: boolean;
  reasons: string[];
}

/** Judges one cable of the catalogue in the place of another. */
function size(part: PartOf<'cable'>, base: CableInput, maxDropFraction: number): SizedCable {
  const { massKgPerM: _mass, ...data } = part.data;
  const parsed = cable.parse({ ...base, ...data });
  const named = {
    partKey: partKey(part),
    label: part.label,
    areaMm2: part.data.areaMm2,
    conductorMaxC: part.data.conductorMaxC,
  };
  if (!parsed.ok) {
    return {
      ...named,
      ampacityA: null,
      conductorTemperatureC: null,
      voltageDropV: null,
      dropFraction: null,
      ampacityUse: null,
      dropUse: null,
      governs: 'does not fit the conduit',
      fits: false,
      reasons: parsed.issues.map(({ path, message }) => `${path} ${message}`),
    };
  }
  const result = cable.calculate(parsed.input).result;
  const ampacityUse = base.currentA / result.ampacityA;
  const dropUse = result.dropFraction === null ? null : result.dropFraction / maxDropFraction;
  const reasons = cableFailures(result, base.currentA, maxDropFraction);
  const governs = dropUse !== null && dropUse > ampacityUse ? 'voltage drop' : 'ampacity';
  const { ampacityA, conductorTemperatureC, voltageDropV, dropFraction } = result;
  return {
    ...named,
    ampacityA,
    conductorTemperatureC,
    voltageDropV,
    dropFraction,
    ampacityUse,
    dropUse,
    governs,
    fits: reasons.length === 0,
    reasons,
  };
}

function cableFailures(result: CableResult, currentA: number, maxDropFraction: number): string[] {
  const reasons: string[] = [];
  if (currentA > result.ampacityA * (1 + 1e-9)) {
    reasons.push(`carries ${formatNumber(result.ampacityA)} A of the ${formatNumber(currentA)} A asked`);
  }
  if (result.dropFraction !== null && result.dropFraction > maxDropFraction * (1 + 1e-9)) {
    reasons.push(
      `drops ${formatNumber(result.dropFraction * 100)} % where ${formatNumber(maxDropFraction * 100)} % are allowed`,
    );
  }
  return reasons;
}

const cableStep: StepDefinition = {
  id: 'conductor.cable',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const chosen = chosenCablePart(read, circuit.cable);
    const inputs = circuitInputs(subject, read);
    if (chosen === null)
      inputs.missing({ kind: 'not-given', path: `circuits.${subject}.cable`, label: 'cable' });
    else setCable(inputs, chosen);
    const run = inputs.run(cable);
    const maxDrop = circuit.maxDropFraction ?? defaultMaxDropFraction;
    const figures = run.figures('conductor.cable', subject, [
      { name: 'ampacityA', symbol: 'I_z', label: 'Ampacity', unit: 'A' },
      {
        name: 'conductorTemperatureC',
        symbol: 'T',
        label: 'Conductor temperature',
        unit: '°C',
        ...(chosen !== null && { limit: { max: chosen.data.conductorMaxC } }),
      },
      { name: 'voltageDropV', symbol: 'ΔU', label: 'Voltage drop', unit: 'V' },
      {
        name: 'dropFraction',
        symbol: 'ΔU',
        label: 'Voltage drop, share',
        unit: 'fraction',
        limit: { max: maxDrop },
      },
      { name: 'lossW', symbol: 'ΔU', label: 'Loss in the cable', unit: 'W' },
      { name: 'timeConstantS', label: 'Thermal time constant', unit: 's' },
    ]);
    const { result } = run;
    const currentA = run.input?.currentA ?? 0;
    const values = [
      { label: 'load', value: currentA, unit: 'A' },
      { label: 'ampacity', value: result?.ampacityA ?? 0, unit: 'A' },
      { label: 'voltage drop', value: result?.dropFraction ?? 0, unit: 'fraction' },
    ];
    const drops =
      result !== null && result.dropFraction !== null && result.dropFraction > maxDrop * (1 + 1e-9);
    const reasons = result === null ? [] : cableFailures(result, currentA, maxDrop);
    const message = reasons.length === 0 ? null : `${chosen?.label} ${reasons.join('; ')}.`;
    const suggestions: Suggestion[] =
      message === null || run.input === null
        ? []
        : sizeTable(run.input, maxDrop, { cables: read.parts('cable') })
            .filter(({ partKey: key }) => key !== circuit.cable)
            .sort(
              (a, b) =>
                Number(b.fits) - Number(a.fits) ||
                // Of the same insulation first.
                Number(b.conductorMaxC === chosen?.data.conductorMaxC) -
                  Number(a.conductorMaxC === chosen?.data.conductorMaxC) ||
                (a.fits ? a.areaMm2 - b.areaMm2 : b.areaMm2 - a.areaMm2),
            )
            .slice(0, 4);
    const nothing = suggestions.length > 0 && suggestions.every(({ fits }) => !fits);
    const said =
      message === null || !nothing || run.input === null
        ? message
        : `${message} Nothing in the library fits: a cable here needs an ampacity of ${formatNumber(currentA)} A and a drop below ${formatNumber(maxDrop * run.input.busVoltageV)} V over ${formatNumber(2 * run.input.lengthM)} m.`;
    const checks = [
      ...run.checks([subject], values),
      judge(
        dropRule,
        [subject],
        run.gaps,
        drops
          ? `The cable drops ${formatNumber(result.dropFraction! * 100)} % at ${formatNumber(currentA)} A; ${formatNumber(maxDrop * 100)} % are allowed.`
          : null,
        values,
      ),
      judge(chosenCable, [subject], run.gaps, said, values, suggestions),
    ];
    return run.output(figures, checks);
  },
};

/** Which cables are sized: of one class of insulation or of all; those of the starter catalogue, or of a library. */
export interface SizeChoice {
  conductorMaxC?: number;
  cables?: readonly PartOf<'cable'>[];
  /** The gland they must go through. */
  gland?: PartOf<'gland'>;
}

/** Every cable in the place of `base`, of one class of insulation or of all; drop judged against a share of 0…1. */
export function sizeTable(
  base: CableInput,
  maxDropFraction: number,
  { conductorMaxC, cables = catalogueOf('cable'), gland }: SizeChoice = {},
): SizedCable[] {
  return cables
    .filter(({ data }) => conductorMaxC === undefined || data.conductorMaxC === conductorMaxC)
    .map((part) => {
      const sized = size(part, base, maxDropFraction);
      const clamp = gland === undefined ? null : glandProblem(gland.data, part.data.outerDiameterMm);
      return clamp === null
        ? sized
        : { ...sized, fits: false, reasons: [...sized.reasons, `the gland ${clamp}`] };
    });
}

/**
 * The place in which all areas are compared while no cable is chosen; once one is, its own run has that input. The table
 * itself is made on request, by `sizeTable`.
 */
const sizesStep: StepDefinition = {
  id: 'conductor.sizes',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    if (chosenCablePart(read, read.at('circuits', subject, 'cable')) !== null)
      return { figures: [], checks: [] };
    const inputs = circuitInputs(subject, read);
    setCable(inputs, catalogueOf('cable')[0]!);
    const run = inputs.run(cable);
    if (run.input === null) return { figures: [], checks: [] };
    return { figures: [], checks: [], run: { calculator: 'cable', input: run.input, result: null } };
  },
};

/** Periods that are walked: the conductor has settled long before. */
const dutyPeriods = 400;

/** The conductor over its repeated load: what the mean square hides. */
const dutyStep: StepDefinition = {
  id: 'conductor.duty',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const inputs = placeInputs(subject, read);
    const chosen = chosenCablePart(read, circuit.cable);
    if (chosen === null) inputs.missing({ kind: 'not-given', path: `${at}.cable`, label: 'cable' });
    else setCable(inputs, chosen);
    const profile = circuit.loadProfile;
    inputs.given(
      'profile',
      profile === undefined || profile.length === 0 ? undefined : profile,
      `${at}.loadProfile`,
      'load profile',
    );
    // The temperature does not depend on it; reading the pack's would make every change of the pack run this again.
    inputs.set('busVoltageV', 1, { kind: 'constant', source: 'not in the temperature' });
    inputs.set('repeat', dutyPeriods, { kind: 'constant', source: 'until it has settled' });
    const run = inputs.run(cableDuty);
    const figures = run.figures('conductor.duty', subject, [
      {
        name: 'peakTemperatureC',
        symbol: 'T_pk',
        label: 'Hottest over the load',
        unit: '°C',
        ...(chosen !== null && { limit: { max: chosen.data.conductorMaxC } }),
      },
    ]);
    return run.output(
      figures,
      run.checks(
        [subject],
        [
          { label: 'hottest conductor', value: run.result?.peakTemperatureC ?? 0, unit: '°C' },
          { label: 'limit of the insulation', value: chosen?.data.conductorMaxC ?? 0, unit: '°C' },
        ],
      ),
    );
  },
};

export const conductorSteps: StepDefinition[] = [loopStep, cableStep, dutyStep, endsStep, sizesStep];
