import { everyCircuit } from '../document';
import type { Suggestion } from '../finding';
import { figureId, type Figure, type Gap } from '../figure';
import { catalogueOf, partKey, type PartOf } from '../parts';
import { defineRule } from '../finding';
import { interpolate } from '../math';
import { gapsBehind, Inputs, judge, type Reader, type StepDefinition } from '../step';
import { faultCurrent } from './fault-current';
import { formatNumber, formatQuantity } from '../quantity';
import { continuousShare, derating, fuse, type FuseInput, type FuseResult } from './fuse';
import { inrushStep } from './inrush';
import { fuseRules } from './rules';
import { selectiveStep } from './selective';
import { defaultWarmFactor, stringsStep } from './strings';

/** Pack resistance cold and near empty over the one given, where the design does not say. */
const defaultColdFactor = 2.5;
const defaultMaxClearS = 5;

/** The chosen fuse no longer holds; the details are findings of their own. */
const chosenFuse = defineRule({
  id: 'fuse.chosen-fuse',
  version: 1,
  grade: 'stop',
  title: 'The chosen fuse does not hold',
  why: 'A fuse that fails one criterion protects against the other faults only on paper.',
  remedy: 'Choose one of the ranked replacements, or change what the failed criterion rests on.',
  source: 'All criteria of the fuse calculation together',
});

/** Largest fault: full, warm, at the pack. Smallest: low charge, cold, far end of the cable. */
const faultStep: StepDefinition = {
  id: 'fuse.fault',
  version: 1,
  subjects: (design) => everyCircuit(design).flatMap((id) => [`${id}/largest`, `${id}/smallest`]),
  compute(subject, read) {
    const [circuitId = '', which] = subject.split('/');
    const largest = which === 'largest';
    const settings = read.at('pack');
    const inputs = new Inputs(read);
    const resistance = read.figure(figureId('pack.pack', 'pack', 'resistanceOhm'));
    if (resistance.value === null) inputs.missing(...gapsBehind(resistance));
    if (largest) {
      inputs.figure('sourceVoltageV', figureId('pack.pack', 'pack', 'voltageMaxV'));
      const factor = settings.warmResistanceFactor ?? defaultWarmFactor;
      inputs.set(
        'sourceResistanceOhm',
        (resistance.value ?? 0) * factor,
        originOf(settings.warmResistanceFactor, 'pack.warmResistanceFactor'),
        'warm pack resistance',
      );
      inputs.set('pathResistanceOhm', 0, { kind: 'constant', source: 'a short right at the pack' });
    } else {
      readLowVoltage(read, inputs);
      const factor = settings.coldResistanceFactor ?? defaultColdFactor;
      inputs.set(
        'sourceResistanceOhm',
        (resistance.value ?? 0) * factor,
        originOf(settings.coldResistanceFactor, 'pack.coldResistanceFactor'),
        'cold pack resistance',
      );
      const loop = read.figure(figureId('conductor.loop', circuitId, 'loopOhm'));
      if (loop.value === null) inputs.missing(...gapsBehind(loop));
      else inputs.set('pathResistanceOhm', loop.value, { kind: 'figure', id: loop.id }, loop.label);
    }
    const run = inputs.run(faultCurrent);
    const figures = run.figures('fuse.fault', subject, [
      { name: 'prospectiveA', symbol: 'I', label: largest ? 'Largest fault' : 'Smallest fault', unit: 'A' },
      { name: 'timeConstantS', symbol: 'τ', label: 'Time constant of the fault', unit: 's' },
    ]);
    return run.output(figures, run.checks([subject]));
  },
};

const originOf = (given: number | undefined, path: string) =>
  given === undefined ? { kind: 'default' as const, path } : { kind: 'document' as const, path };

/** The pack's open-circuit voltage at the bottom of the charge window. */
function readLowVoltage(read: Reader, inputs: Inputs): void {
  const low = read.at('pack', 'socLowFraction');
  const nominal = read.figure(figureId('pack.pack', 'pack', 'voltageMinV'));
  if (nominal.value === null || low === undefined) {
    inputs.missing(...gapsBehind(nominal));
    return;
  }
  const moduleId =
    Object.values(read.at('strings')).find(({ modules }) => modules.length > 0)?.modules[0] ?? '';
  const part = read.at('parts', read.at('modules', moduleId)?.part ?? '');
  if (part?.kind !== 'module') return;
  const { cell } = part.data;
  const series = nominal.value / cell.minV;
  inputs.set(
    'sourceVoltageV',
    series * interpolate(cell.ocvTable, low),
    { kind: 'document', path: 'pack.socLowFraction' },
    'pack voltage at the bottom of the window',
  );
}

/** Everything a fuse of this circuit is judged by, apart from the fuse itself. */
function circuitInputs(subject: string, read: Reader): Inputs {
  const circuit = read.at('circuits', subject)!;
  const at = `circuits.${subject}`;
  const inputs = new Inputs(read);
  inputs.figure('busVoltageV', figureId('pack.pack', 'pack', 'voltageMaxV'));
  inputs.figure('faultMinA', figureId('fuse.fault', `${subject}/smallest`, 'prospectiveA'));
  inputs.figure('faultMaxA', figureId('fuse.fault', `${subject}/largest`, 'prospectiveA'));
  inputs.orDefault(
    'maxClearS',
    circuit.maxClearS,
    defaultMaxClearS,
    `${at}.maxClearS`,
    'longest clearing time',
  );
  inputs.optional('ambientC', circuit.fuseAmbientC, `${at}.fuseAmbientC`, 'ambient at the fuse');
  inputs.given('loadProfile', circuit.loadProfile, `${at}.loadProfile`, 'load profile');
  const cable = circuit.cable === undefined ? undefined : read.at('parts', circuit.cable);
  if (cable?.kind !== 'cable') inputs.missing({ kind: 'not-given', path: `${at}.cable`, label: 'cable' });
  else {
    const key = partKey(cable);
    inputs.set(
      'cable.areaMm2',
      cable.data.areaMm2,
      { kind: 'part', key, path: 'areaMm2' },
      'area of the cable',
    );
    inputs.set('cable.k', cable.data.adiabaticK, { kind: 'part', key, path: 'adiabaticK' }, 'k of the cable');
  }
  return inputs;
}

function setFuse(inputs: Inputs, part: PartOf<'fuse'>): void {
  const key = partKey(part);
  for (const [name, value] of Object.entries(part.data)) {
    inputs.set(name, value, { kind: 'part', key, path: name }, `${name} of ${part.label}`);
  }
}

/** A fuse of the catalogue judged for a circuit. */
export interface RankedFuse {
  partKey: string;
  label: string;
  ratedA: number;
  fits: boolean;
  reasons: string[];
}

/** What does not hold of a fuse, in words; empty when every criterion holds. */
function failures(findings: { rule: { id: string }; message: string }[]): string[] {
  const counted = new Set(
    Object.values(fuseRules)
      .filter(({ grade }) => grade !== 'note')
      .map(({ id }) => id),
  );
  return findings.filter(({ rule }) => counted.has(rule.id)).map(({ message }) => message.replace(/\.$/, ''));
}

/** The library's fuses for a circuit: fitting ones first, the smallest rating first among them. */
export function rankFuses(
  base: FuseInput,
  chosen: PartOf<'fuse'> | null,
  parts: readonly PartOf<'fuse'>[] = catalogueOf('fuse'),
): RankedFuse[] {
  const all =
    chosen === null || parts.some((part) => partKey(part) === partKey(chosen)) ? parts : [chosen, ...parts];
  const ranked = all.map((part) => {
    const { findings } = fuse.calculate({ ...base, ...part.data });
    const reasons = failures(findings);
    return {
      partKey: partKey(part),
      label: part.label,
      ratedA: part.data.ratedA,
      fits: reasons.length === 0,
      reasons,
    };
  });
  return ranked.sort(
    (a, b) => Number(b.fits) - Number(a.fits) || a.reasons.length - b.reasons.length || a.ratedA - b.ratedA,
  );
}

const offered = 4;

/**
 * The first of a ranking. Parts that fail by their ratings alone cannot fit: they are looked at only where there are no
 * others.
 */
function replacements(input: FuseInput, parts: readonly PartOf<'fuse'>[]): RankedFuse[] {
  const able = parts.filter(
    ({ data }) => data.ratedVoltageV >= input.busVoltageV && data.breakingA >= input.faultMaxA,
  );
  return rankFuses(input, null, able.length > 0 ? able : parts).slice(0, offered);
}

/** What a fuse must have to hold in a place, in numbers. */
export function fuseNeeds(input: FuseInput): string[] {
  const n = formatNumber;
  const squares = input.loadProfile.reduce(
    (sum, [durationS, currentA]) => sum + durationS * currentA ** 2,
    0,
  );
  const seconds = input.loadProfile.reduce((sum, [durationS]) => sum + durationS, 0);
  const ratedA = Math.sqrt(squares / seconds) / continuousShare / derating(input).value;
  const { cable, faultMinA, faultMaxA } = input;
  return [
    `${n(input.busVoltageV)} V DC or more`,
    `${n(faultMaxA)} A breaking capacity or more`,
    `a least breaking current of ${n(faultMinA)} A or less`,
    `to clear ${n(faultMinA)} A within ${n(input.maxClearS)} s`,
    `a rating of ${n(ratedA)} A or more at this ambient`,
    ...(cable === undefined
      ? []
      : [`a clearing I²t below ${formatQuantity((cable.k * cable.areaMm2) ** 2, 'A²s')}`]),
  ];
}

const mainFuseStep: StepDefinition = {
  id: 'fuse.main',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const key = read.at('circuits', subject, 'fuse');
    const part = key === undefined ? undefined : read.at('parts', key);
    const chosen = part?.kind === 'fuse' ? part : null;
    const inputs = circuitInputs(subject, read);
    if (chosen === null)
      inputs.missing({ kind: 'not-given', path: `circuits.${subject}.fuse`, label: 'fuse' });
    else setFuse(inputs, chosen);
    const run = inputs.run(fuse);
    const { result, input } = run;
    const figure = (
      name: string,
      label: string,
      unit: string,
      value: number | null | undefined,
      symbol: string,
      limit?: Figure['limit'],
    ): Figure => {
      const never: Gap[] =
        result !== null && value === null ? [{ kind: 'never', label: `${label}: never` }] : [];
      return {
        id: figureId('fuse.main', subject, name),
        label,
        unit,
        value: value ?? null,
        gaps: result === null ? run.gaps : never,
        working: run.working(symbol),
        ...(limit && { limit }),
      };
    };
    const clearing = run.outcome?.working.find(({ symbol }) => symbol === 't_c')?.value;
    const figures = [
      figure('rmsFraction', 'Load over derated rating', 'fraction', result?.rmsFraction, 'u', { max: 0.8 }),
      figure(
        'clearAtMinS',
        'Clearing of the smallest fault',
        's',
        clearing,
        't_c',
        input === null ? undefined : { max: input.maxClearS },
      ),
      figure('meltAtMaxS', 'Slowest melting, largest fault', 's', result?.meltAtMaxFault.slowestS, 't_f'),
      figure('wearPerPeriod', 'Wear per period', 'fraction', result?.wearPerPeriod, 'D'),
    ];
    const values = [
      { label: 'highest pack voltage', value: input?.busVoltageV ?? 0, unit: 'V' },
      { label: 'smallest fault', value: input?.faultMinA ?? 0, unit: 'A' },
      { label: 'largest fault', value: input?.faultMaxA ?? 0, unit: 'A' },
      { label: 'load', value: result?.rmsA ?? 0, unit: 'A' },
    ];
    const reasons = failures(run.outcome?.findings ?? []);
    const message =
      reasons.length === 0
        ? null
        : `${chosen?.label ?? 'The fuse'} fails ${reasons.length} of its criteria: ${reasons.join('; ')}.`;
    const suggestions: Suggestion[] =
      message === null || input === null
        ? []
        : replacements(
            input,
            read.parts('fuse').filter((one) => partKey(one) !== key),
          );
    const nothing = input !== null && suggestions.length > 0 && suggestions.every(({ fits }) => !fits);
    const said =
      message === null || !nothing
        ? message
        : `${message} Nothing in the library fits: a fuse here needs ${fuseNeeds(input).join(', ')}.`;
    const checks = [
      ...run.checks([subject], values),
      judge(chosenFuse, [subject], run.gaps, said, values, suggestions),
    ];
    return run.output(figures, checks);
  },
};

/**
 * The place for which all fuses are ranked while none is chosen; once one is, its own run has that input. The ranking
 * itself is made on request, by `rankFuses`.
 */
const fuseChoiceStep: StepDefinition = {
  id: 'fuse.choice',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const key = read.at('circuits', subject, 'fuse');
    const part = key === undefined ? undefined : read.at('parts', key);
    if (part?.kind === 'fuse') return { figures: [], checks: [] };
    const inputs = circuitInputs(subject, read);
    setFuse(inputs, catalogueOf('fuse')[0]!);
    const run = inputs.run<FuseInput, FuseResult>(fuse);
    if (run.input === null) return { figures: [], checks: [] };
    return { figures: [], checks: [], run: { calculator: 'fuse', input: run.input, result: null } };
  },
};

export const fuseSteps: StepDefinition[] = [
  faultStep,
  mainFuseStep,
  fuseChoiceStep,
  inrushStep,
  selectiveStep,
  stringsStep,
];
