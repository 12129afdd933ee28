import type { Gap } from '../../ground/figure';
import { distance, type Vector } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import { runGeometry, type Design, type Id, type RunItem } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { runRules } from './rules';
import { pointsAlong } from './solids';

const n = formatNumber;
/** Nearer than this, m, they lie along each other: bare, and where the phases have a screen. */
const nearM = { bare: 0.2, screened: 0.05 };
/** A crossing is as long as this at most, m. */
const crossingM = 0.3;

const carriesSignals = ({ boards = [], signals }: RunItem): boolean => boards.length > 0 || signals === true;
const pairs = ({ runs = {} }: Pick<Design, 'runs'>): string[] =>
  Object.entries(runs).flatMap(([id, run]) =>
    carriesSignals(run)
      ? Object.entries(runs).flatMap(([other, one]) => (one.phasesOf === undefined ? [] : [`${id}/${other}`]))
      : [],
  );

/** How far one way lies nearer to another than asked, m, and how near they come. */
export function alongside(
  own: readonly Vector[],
  other: readonly Vector[],
  withinM: number,
): { lengthM: number; leastM: number } {
  let lengthM = 0;
  let leastM = Infinity;
  own.forEach((point, i) => {
    const offM = other.reduce((least, one) => Math.min(least, distance(point, one)), Infinity);
    leastM = Math.min(leastM, offM);
    const next = own[i + 1];
    if (next !== undefined && offM < withinM) lengthM += distance(point, next);
  });
  return { lengthM, leastM };
}

/** Each run that carries sense wires or pairs of data, against each that carries motor phases. */
export const signalStep: StepDefinition = {
  id: 'routing.signal',
  version: 1,
  subjects: pairs,
  compute(subject, read) {
    const [id, other] = subject.split('/') as [Id, Id];
    const runs = read.at('runs')!;
    const [run, phases] = [runs[id]!, runs[other]!];
    const inverter = read.at('devices', phases.phasesOf!);
    const screened = inverter?.phaseScreened;
    const ways = [id, other].map((one) => runGeometry(runs[one]!));
    const gaps: Gap[] = [id, other].flatMap((one, i): Gap[] =>
      ways[i] === null
        ? [{ kind: 'not-given', path: `runs.${one}.points`, label: `way of ${runs[one]!.tag}` }]
        : [],
    );
    const withinM = screened === true ? nearM.screened : nearM.bare;
    const found =
      gaps.length > 0
        ? { lengthM: 0, leastM: 0 }
        : alongside(pointsAlong(ways[0]!.path), pointsAlong(ways[1]!.path), withinM);
    const same = id === other;
    return {
      figures: [],
      checks: [
        judge(
          runRules.signalNear,
          same ? [id] : [id, other],
          gaps,
          found.lengthM > crossingM
            ? same
              ? `${run.tag} carries ${run.signals === true ? 'pairs of data or sensors' : 'sense wires'} and motor phases together for ${n(found.lengthM)} m.`
              : `${run.tag} lies within ${n(withinM)} m of the motor phases in ${phases.tag} for ${n(found.lengthM)} m; at the nearest ${n(found.leastM * 1000)} mm.`
            : null,
          [
            { label: 'lie along each other', value: found.lengthM, unit: 'm' },
            { label: 'nearest', value: found.leastM, unit: 'm' },
            { label: 'asked', value: withinM, unit: 'm' },
          ],
        ),
      ],
    };
  },
};
