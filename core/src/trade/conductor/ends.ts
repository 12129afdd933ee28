import { everyCircuit } from '../../model/document';
import { defineRule, type Rule, type Suggestion } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { partKey, type GlandData, type LugData, type Part, type PartOf } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';

const rule = (id: string, title: string, why: string, remedy: string): Rule =>
  defineRule({
    id: `cable.${id}`,
    version: 1,
    grade: 'mend',
    title,
    why,
    remedy,
    source: 'Makers of lugs and glands',
  });

export const endRules = {
  lugArea: rule(
    'lug-area',
    'The lug is made for another conductor',
    'A crimp holds and conducts only at the area its barrel and die are made for.',
    'A lug of the cable’s area and maker’s system.',
  ),
  lugStud: rule(
    'lug-stud',
    'The lug does not fit its stud',
    'Too small a hole does not go on; too large a one leaves half the face without contact.',
    'A lug for this stud.',
  ),
  lugHeat: rule(
    'lug-temperature',
    'The conductor runs hotter than its lug stands',
    'A joint that is hotter than it stands loosens and then gets hotter still.',
    'A lug for the temperature, or a larger cable.',
  ),
  glandClamp: rule(
    'gland-clamp',
    'The gland does not clamp this cable',
    'What is not clamped lets water in and pulls at the lug.',
    'A gland whose range holds the cable’s outer diameter.',
  ),
};

/** What a cable asks of its ends. */
export interface CableEnd {
  areaMm2: number;
  outerDiameterMm: number;
  /** null: not known. */
  conductorTemperatureC: number | null;
  studMm: number | null;
}

/** What does not hold of a lug at the end of a cable, by rule. */
export function lugProblems(lug: LugData, end: CableEnd): Map<Rule, string> {
  const n = formatNumber;
  const found = new Map<Rule, string>();
  if (lug.areaMm2 !== end.areaMm2)
    found.set(endRules.lugArea, `is for ${n(lug.areaMm2)} mm², the cable has ${n(end.areaMm2)} mm²`);
  if (end.studMm !== null && lug.studMm !== end.studMm)
    found.set(endRules.lugStud, `is for M${n(lug.studMm)}, the stud is M${n(end.studMm)}`);
  if (end.conductorTemperatureC !== null && end.conductorTemperatureC > lug.maxC)
    found.set(
      endRules.lugHeat,
      `stands ${n(lug.maxC)} °C, the conductor reaches ${n(end.conductorTemperatureC)} °C`,
    );
  return found;
}

/** What does not hold of a gland around a cable, or null. */
export function glandProblem({ clampMinMm, clampMaxMm }: GlandData, outerDiameterMm: number): string | null {
  const n = formatNumber;
  return outerDiameterMm >= clampMinMm && outerDiameterMm <= clampMaxMm
    ? null
    : `clamps ${n(clampMinMm)} to ${n(clampMaxMm)} mm, the cable has ${n(outerDiameterMm)} mm`;
}

/** Lugs for the end of a cable: those that fit first, the narrowest palm first among them. */
export function rankLugs(parts: readonly PartOf<'lug'>[], end: CableEnd): Suggestion[] {
  return ranked(
    parts,
    ({ data }) => [...lugProblems(data, end).values()],
    (a, b) =>
      Math.abs(a.data.areaMm2 - end.areaMm2) - Math.abs(b.data.areaMm2 - end.areaMm2) ||
      a.data.palmWidthMm - b.data.palmWidthMm,
  );
}

/** Glands for a cable: those that fit first, the one in whose range it lies most in the middle first among them. */
export function rankGlands(parts: readonly PartOf<'gland'>[], outerDiameterMm: number): Suggestion[] {
  const off = ({ data }: PartOf<'gland'>) =>
    Math.abs((data.clampMinMm + data.clampMaxMm) / 2 - outerDiameterMm);
  return ranked(
    parts,
    ({ data }) => [glandProblem(data, outerDiameterMm)].filter((one) => one !== null),
    (a, b) => off(a) - off(b),
  );
}

function ranked<P extends Part>(
  parts: readonly P[],
  reasonsOf: (part: P) => string[],
  order: (a: P, b: P) => number,
): Suggestion[] {
  return [...parts]
    .map((part) => ({ part, reasons: reasonsOf(part) }))
    .sort((a, b) => a.reasons.length - b.reasons.length || order(a.part, b.part))
    .map(({ part, reasons }) => ({
      partKey: partKey(part),
      label: part.label,
      fits: reasons.length === 0,
      reasons,
    }));
}

/** What of a lug each rule is about. */
const ratings = new Map<Rule, 'areaMm2' | 'studMm' | 'maxC'>([
  [endRules.lugArea, 'areaMm2'],
  [endRules.lugStud, 'studMm'],
  [endRules.lugHeat, 'maxC'],
]);

const hottest = (subject: string, read: Reader) =>
  read.figure(figureId('conductor.duty', subject, 'peakTemperatureC'));

/** Lugs and gland of each circuit's cable. */
export const endsStep: StepDefinition = {
  id: 'conductor.ends',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const partAt = <K extends 'cable' | 'lug' | 'gland'>(kind: K) => {
      const key = circuit[kind];
      const part = key === undefined ? undefined : read.at('parts', key);
      return part?.kind === kind ? (part as PartOf<K>) : null;
    };
    const [cable, lug, gland] = [partAt('cable'), partAt('lug'), partAt('gland')];
    const missing = (path: string, label: string): Gap => ({
      kind: 'not-given',
      path: `${at}.${path}`,
      label,
    });
    const noCable = cable === null ? [missing('cable', 'cable')] : [];
    const noLug = lug === null ? [...noCable, missing('lug', 'cable lug')] : noCable;
    const noStud = circuit.studMm === undefined ? [missing('studMm', 'stud of the lugs')] : [];
    const temperature = hottest(subject, read);
    const end: CableEnd | null = cable && {
      areaMm2: cable.data.areaMm2,
      outerDiameterMm: cable.data.outerDiameterMm,
      conductorTemperatureC: temperature.value,
      studMm: circuit.studMm ?? null,
    };
    const problems = lug === null || end === null ? new Map<Rule, string>() : lugProblems(lug.data, end);
    const [lugParts, glandParts] = [read.parts('lug'), read.parts('gland')];
    const lugs = () => ({ suggestions: end === null ? [] : rankLugs(lugParts, end).slice(0, 4) });
    const lugCheck = (of: Rule, gaps: Gap[], label: string, value: number | null, unit: string): Check => {
      const problem = problems.get(of);
      const message = problem === undefined ? null : `${lug?.label} ${problem}.`;
      return judge(
        of,
        [subject],
        gaps,
        message,
        [
          { label, value: value ?? 0, unit },
          { label: 'of the lug', value: lug === null ? 0 : lug.data[ratings.get(of)!], unit },
        ],
        { ranking: lugs, parts: lug === null ? [] : [partKey(lug)] },
      );
    };
    const clamp = gland === null || end === null ? null : glandProblem(gland.data, end.outerDiameterMm);
    return {
      figures: [],
      ...(end !== null && { run: { calculator: 'cable-ends', input: end, result: null } }),
      checks: [
        lugCheck(endRules.lugArea, noLug, 'area of the cable', end?.areaMm2 ?? null, 'mm²'),
        lugCheck(endRules.lugStud, [...noLug, ...noStud], 'stud', circuit.studMm ?? null, 'mm'),
        lugCheck(
          endRules.lugHeat,
          [...noLug, ...(temperature.value === null ? gapsBehind(temperature) : [])],
          'hottest conductor',
          temperature.value,
          '°C',
        ),
        judge(
          endRules.glandClamp,
          [subject],
          gland === null ? [...noCable, missing('gland', 'gland')] : noCable,
          clamp === null ? null : `${gland?.label} ${clamp}.`,
          [
            { label: 'outer diameter', value: end?.outerDiameterMm ?? 0, unit: 'mm' },
            { label: 'clamps from', value: gland?.data.clampMinMm ?? 0, unit: 'mm' },
            { label: 'clamps to', value: gland?.data.clampMaxMm ?? 0, unit: 'mm' },
          ],
          {
            ranking: () => ({
              suggestions: end === null ? [] : rankGlands(glandParts, end.outerDiameterMm).slice(0, 4),
            }),
            parts: gland === null ? [] : [partKey(gland)],
          },
        ),
      ],
    };
  },
};
