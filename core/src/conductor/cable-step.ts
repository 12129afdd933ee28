import { everyCircuit } from '../document';
import { rulesOf, type CheckValue, type Suggestion } from '../finding';
import { type Check, type Figure } from '../figure';
import { catalogueOf, type PartOf } from '../parts';
import { formatNumber } from '../quantity';
import { judge, type Reader, type Run, type StepDefinition } from '../step';
import { cable, type CableInput, type CableResult } from './cable';
import { chosenCable, dropRule } from './cable-rules';
import { cableFailures, defaultMaxDropFraction, sizeTable, together, type Together } from './size';
import { chosenCablePart, circuitInputs, setCable, waysOf, type Way } from './ways';

const unevenRule = rulesOf('cable')(
  'uneven-parallel',
  'mend',
  'Parallel conductors share unevenly',
  'The shortest of them carries more than its part: it is the one that gets hot.',
  'Cut them to one length, with lugs of one kind on the same studs.',
  'Currents divide as the lengths, contacts left out',
);

type CableRun = Run<CableInput, CableResult>;

/** Every part of a circuit’s cable: the hottest governs, drops and losses add up. */
export const cableStep: StepDefinition = {
  id: 'conductor.cable',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const chosen = chosenCablePart(read, circuit.cable);
    const ways = waysOf(circuit, subject);
    const runs = ways.map((way): CableRun => {
      const inputs = circuitInputs(way, circuit, subject, read);
      if (chosen === null)
        inputs.missing({ kind: 'not-given', path: `circuits.${subject}.cable`, label: 'cable' });
      else setCable(inputs, chosen);
      return inputs.run(cable);
    });
    const gaps = runs.flatMap((run) => run.gaps);
    const results = gaps.length > 0 ? [] : runs.map((run) => run.result!);
    const all = results.length === 0 ? null : together(results);
    const governing =
      results.length === 0
        ? runs[0]!
        : runs.reduce((least, run) => (run.result!.ampacityA < least.result!.ampacityA ? run : least));
    const maxDrop = circuit.maxDropFraction ?? defaultMaxDropFraction;
    const currentA = governing.input?.currentA ?? 0;
    const values: CheckValue[] = [
      { label: 'load', value: currentA, unit: 'A' },
      { label: 'ampacity', value: all?.ampacityA ?? 0, unit: 'A' },
      { label: 'voltage drop', value: all?.dropFraction ?? 0, unit: 'fraction' },
    ];
    const figures = figuresOf(subject, governing, chosen, maxDrop).map((figure) =>
      ways.length === 1 ? figure : summed(figure, all, ways, results, gaps),
    );
    const drops = all !== null && all.dropFraction !== null && all.dropFraction > maxDrop * (1 + 1e-9);
    const dropMessage = drops
      ? `The cable drops ${formatNumber(all.dropFraction! * 100)} % at ${formatNumber(currentA)} A; ${formatNumber(maxDrop * 100)} % are allowed.`
      : null;
    const checks = [
      ...eachRule(subject, ways, runs, values),
      judge(dropRule, [subject], gaps, dropMessage, values),
      judgeChosen(subject, read, chosen, { runs, all, maxDrop, values }),
      judgeUneven(subject, read, governing),
    ];
    const inputs = runs.flatMap(({ input }) => (input === null ? [] : [input]));
    return all === null
      ? { figures, checks }
      : { figures, checks, run: { calculator: 'cable', input: inputs, result: all } };
  },
};

function figuresOf(
  subject: string,
  run: CableRun,
  chosen: PartOf<'cable'> | null,
  maxDrop: number,
): Figure[] {
  return run.figures('conductor.cable', subject, [
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
}

/** A figure of a cable in parts: what adds up is the sum of all of them. */
function summed(
  figure: Figure,
  all: Together | null,
  ways: readonly Way[],
  results: readonly CableResult[],
  gaps: Figure['gaps'],
): Figure {
  const name = figure.id.split(':')[2] as keyof CableResult;
  if (all === null) return { ...figure, value: null, gaps, working: [] };
  if (name !== 'voltageDropV' && name !== 'dropFraction' && name !== 'lossW') return figure;
  const value = all[name];
  return {
    ...figure,
    value,
    gaps: value === null ? [{ kind: 'never', label: `${figure.label}: never` }] : [],
    working:
      value === null
        ? []
        : [
            {
              symbol: 'Σ',
              label: figure.label,
              formula: 'Σ(x)',
              inputs: results.map((one, i) => ({
                symbol: `x_${i + 1}`,
                value: one[name] as number,
                unit: figure.unit,
                origin: { kind: 'document' as const, path: ways[i]!.at },
              })),
              value,
              unit: figure.unit,
              source: 'Each part of the way by itself',
            },
          ],
  };
}

/** Each rule of the cable once: what it says of several parts is said of each by name. */
function eachRule(
  subject: string,
  ways: readonly Way[],
  runs: readonly CableRun[],
  values: CheckValue[],
): Check[] {
  const perWay = runs.map((run) => run.checks([subject], values));
  return perWay[0]!.map((first, i) => {
    const own = perWay.map((checks) => checks[i]!);
    const gaps = own.flatMap((check) => (check.state === 'not-checked' ? check.gaps : []));
    const said = own.flatMap((check, k) =>
      check.state !== 'raised'
        ? []
        : [ways[k]!.tag === null ? check.message : `${ways[k]!.tag}: ${check.message}`],
    );
    return judge(first.rule, [subject], gaps, said.length === 0 ? null : said.join(' '), values);
  });
}

function judgeChosen(
  subject: string,
  read: Reader,
  chosen: PartOf<'cable'> | null,
  {
    runs,
    all,
    maxDrop,
    values,
  }: { runs: CableRun[]; all: Together | null; maxDrop: number; values: CheckValue[] },
): Check {
  const gaps = runs.flatMap((run) => run.gaps);
  const inputs = runs.flatMap(({ input }) => (input === null ? [] : [input]));
  const [first] = inputs;
  if (all === null || first === undefined || chosen === null)
    return judge(chosenCable, [subject], gaps, null, values);
  const reasons = cableFailures(all, first.currentA, maxDrop);
  if (reasons.length === 0) return judge(chosenCable, [subject], [], null, values);
  const message = `${chosen.label} ${reasons.join('; ')}.`;
  const suggestions: Suggestion[] = sizeTable(inputs, maxDrop, { cables: read.parts('cable') })
    .filter(({ partKey: key }) => key !== read.at('circuits', subject, 'cable'))
    .sort(
      (a, b) =>
        Number(b.fits) - Number(a.fits) ||
        // Of the same insulation first.
        Number(b.conductorMaxC === chosen.data.conductorMaxC) -
          Number(a.conductorMaxC === chosen.data.conductorMaxC) ||
        (a.fits ? a.areaMm2 - b.areaMm2 : b.areaMm2 - a.areaMm2),
    )
    .slice(0, 4);
  const nothing = suggestions.length > 0 && suggestions.every(({ fits }) => !fits);
  const lengthM = inputs.reduce((sum, input) => sum + input.lengthM, 0);
  const said = !nothing
    ? message
    : `${message} Nothing in the library fits: a cable here needs an ampacity of ${formatNumber(first.currentA)} A and a drop below ${formatNumber(maxDrop * first.busVoltageV)} V over ${formatNumber(2 * lengthM)} m.`;
  return judge(chosenCable, [subject], [], said, values, suggestions);
}

/** The share of the shortest of conductors in parallel whose longest is longer by so much, 1/n when alike. */
export function shortestShare(parallel: number, shortestM: number, unevenM: number): number {
  const own = 1 / shortestM;
  return own / (own + (parallel - 1) / (shortestM + unevenM));
}

function judgeUneven(subject: string, read: Reader, run: CableRun): Check {
  const { unevenM = 0, lengthM, stretches = [] } = read.at('circuits', subject)!;
  const gaps = [
    ...run.gaps,
    ...(unevenM >= 0
      ? []
      : [
          {
            kind: 'invalid' as const,
            path: `circuits.${subject}.unevenM`,
            label: 'difference of the lengths',
            message: 'must be 0 or more',
          },
        ]),
  ];
  if (gaps.length > 0 || run.input === null) return judge(unevenRule, [subject], gaps, null);
  const { parallel, currentA } = run.input;
  const totalM =
    stretches.length === 0 ? (lengthM ?? 0) : stretches.reduce((sum, one) => sum + (one.lengthM ?? 0), 0);
  const even = parallel <= 1 || unevenM === 0 || !(totalM > 0);
  const shareA = currentA * (even ? 1 / parallel : shortestShare(parallel, totalM, unevenM));
  const eachA = run.result!.ampacityA / parallel;
  const n = formatNumber;
  return judge(
    unevenRule,
    [subject],
    [],
    !even && shareA > eachA
      ? `The shortest of ${n(parallel)} conductors carries ${n(shareA)} A where the others are ${n(unevenM)} m longer; each carries ${n(eachA)} A.`
      : null,
    [{ label: 'in the shortest', value: shareA, unit: 'A' }],
  );
}

/**
 * The place in which all areas are compared while no cable is chosen; once one is, its own run has that input. The table
 * itself is made on request, by `sizeTable`.
 */
export const sizesStep: StepDefinition = {
  id: 'conductor.sizes',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    if (chosenCablePart(read, circuit.cable) !== null) return { figures: [], checks: [] };
    const inputs = waysOf(circuit, subject).map((way) => {
      const place = circuitInputs(way, circuit, subject, read);
      setCable(place, catalogueOf('cable')[0]!);
      return place.run(cable).input;
    });
    const ways = inputs.filter((input) => input !== null);
    if (ways.length < inputs.length) return { figures: [], checks: [] };
    return { figures: [], checks: [], run: { calculator: 'cable', input: ways, result: null } };
  },
};
