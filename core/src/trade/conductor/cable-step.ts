import { everyCircuit } from '../../model/document';
import { rulesOf, type CheckValue } from '../../ground/finding';
import { type Check, type Figure } from '../../ground/figure';
import { partKey, type PartOf } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import {
  judge,
  withReplacements,
  type Ranking,
  type Reader,
  type Run,
  type StepDefinition,
} from '../../model/step';
import { cable, type CableInput, type CableResult } from './cable';
import { dropRule } from './cable-rules';
import { hottestC } from './heat';
import { cablePlace } from './place';
import { together, type Together } from './cable-place';
import { cableNeeds, defaultMaxDropFraction, rankCables } from './size';
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
  version: 2,
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
    const load = { label: 'load', value: currentA, unit: 'A' };
    const parts = chosen === null ? [] : [partKey(chosen)];
    const figures = figuresOf(subject, governing, chosen, maxDrop).map((figure) =>
      ways.length === 1 ? figure : summed(figure, all, ways, results, gaps),
    );
    const drops = all !== null && all.dropFraction !== null && all.dropFraction > maxDrop * (1 + 1e-9);
    const dropMessage = drops
      ? `The cable drops ${formatNumber(all.dropFraction! * 100)} % at ${formatNumber(currentA)} A; ${formatNumber(maxDrop * 100)} % are allowed.`
      : null;
    const own = [
      ...eachRule(subject, ways, runs, load, parts),
      judge(
        dropRule,
        [subject],
        gaps,
        dropMessage,
        [
          load,
          { label: 'voltage drop', value: all?.dropFraction ?? 0, unit: 'fraction' },
          { label: 'drop allowed', value: maxDrop, unit: 'fraction' },
        ],
        { parts },
      ),
    ];
    const checks = [
      ...withReplacements(own, () => cableRanking(subject, read, chosen)),
      judgeUneven(subject, read, governing, parts),
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
  load: CheckValue,
  parts: string[],
): Check[] {
  const perWay = runs.map((run) => run.checks([subject]));
  return perWay[0]!.map((first, i) => {
    const own = perWay.map((checks) => checks[i]!);
    const gaps = own.flatMap((check) => (check.state === 'not-checked' ? check.gaps : []));
    const said = own.flatMap((check, k) =>
      check.state !== 'raised'
        ? []
        : [ways[k]!.tag === null ? check.message : `${ways[k]!.tag}: ${check.message}`],
    );
    const values = runs.flatMap((run, k): CheckValue[] => {
      const of = ways[k]!.tag === null ? '' : ` of ${ways[k]!.tag}`;
      const { input, result } = run;
      return input === null || result === null
        ? []
        : [
            { label: `ampacity${of}`, value: result.ampacityA, unit: 'A' },
            { label: `conductor${of}`, value: result.conductorTemperatureC ?? hottestC, unit: '°C' },
            { label: `limit of the insulation${of}`, value: input.conductorMaxC, unit: '°C' },
            { label: `outer diameter${of}`, value: input.outerDiameterMm, unit: 'mm' },
          ];
    });
    return judge(first.rule, [subject], gaps, said.length === 0 ? null : said.join(' '), [load, ...values], {
      parts,
    });
  });
}

/** Cables that could take the place of the chosen one, and what a fitting one needs; ranked when somebody looks. */
export function cableRanking(subject: string, read: Reader, chosen: PartOf<'cable'> | null): Ranking {
  const place = cablePlace(subject, read);
  if (place === null || chosen === null) return () => ({ suggestions: [] });
  const [cables, lugs, glands] = [read.parts('cable'), read.parts('lug'), read.parts('gland')];
  const [key, { conductorMaxC }] = [partKey(chosen), chosen.data];
  return () => ({
    suggestions: rankCables(
      place,
      conductorMaxC,
      { cables: cables.filter((one) => partKey(one) !== key), lugs, glands },
      4,
    ),
    needs: cableNeeds(place),
  });
}

/** The share of the shortest of conductors in parallel whose longest is longer by so much, 1/n when alike. */
export function shortestShare(parallel: number, shortestM: number, unevenM: number): number {
  const own = 1 / shortestM;
  return own / (own + (parallel - 1) / (shortestM + unevenM));
}

function judgeUneven(subject: string, read: Reader, run: CableRun, parts: string[]): Check {
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
    [
      { label: 'in the shortest', value: shareA, unit: 'A' },
      { label: 'each carries', value: eachA, unit: 'A' },
      { label: 'conductors in parallel', value: parallel, unit: '' },
      { label: 'longest is longer by', value: unevenM, unit: 'm' },
    ],
    { parts },
  );
}

/** The place in which all areas are compared, whether a cable is chosen or not; the table is made on request. */
export const sizesStep: StepDefinition = {
  id: 'conductor.sizes',
  version: 2,
  subjects: everyCircuit,
  compute(subject, read) {
    const place = cablePlace(subject, read);
    return place === null
      ? { figures: [], checks: [] }
      : { figures: [], checks: [], run: { calculator: 'cable-sizes', input: place, result: null } };
  },
};
