import { everyCircuit } from '../../model/document';
import type { Rule } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { partKey, type PartOf } from '../../model/parts';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';
import {
  endRules,
  glandProblem,
  lugProblems,
  rankGlands,
  rankLugs,
  screensClamped,
  type CableEnd,
} from './ends';
import { conduitCheck, glandChecks } from './run-checks';

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
      screensClamped: screensClamped(circuit),
    };
    const problems = lug === null || end === null ? new Map<Rule, string>() : lugProblems(lug.data, end);
    const [lugParts, glandParts] = [read.parts('lug'), read.parts('gland')];
    const glands = () => ({ suggestions: end === null ? [] : rankGlands(glandParts, end).slice(0, 4) });
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
            ranking: glands,
            parts: gland === null ? [] : [partKey(gland)],
          },
        ),
        ...glandChecks(
          subject,
          circuit.tag,
          gland,
          end,
          {
            both: gland === null ? [...noCable, missing('gland', 'gland')] : noCable,
            heat: temperature.value === null ? gapsBehind(temperature) : [],
          },
          glands,
        ),
        ...conduitCheck(subject, circuit, cable),
      ],
    };
  },
};
