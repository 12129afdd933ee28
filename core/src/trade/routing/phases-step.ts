import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { motorPhases, runLengths, type Design, type Id, type RunItem } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { runRules } from './rules';

const n = formatNumber;
/** The longest of three may be longer than the shortest by this, as a fraction of it. */
const unlikeWithin = 0.1;

const carriersOf = ({ runs = {} }: Pick<Design, 'runs'>, device: Id): [Id, RunItem][] =>
  Object.entries(runs).filter(([, run]) => run.phasesOf === device);

/** The motor cables of an inverter that is routed: all three, and as long as each other. */
export const phasesStep: StepDefinition = {
  id: 'routing.phases',
  version: 1,
  subjects: (design) => Object.keys(design.devices).filter((id) => carriersOf(design, id).length > 0),
  compute(subject, read) {
    const { tag } = read.at('devices', subject)!;
    const own = carriersOf({ runs: read.at('runs') ?? {} }, subject);
    const cuts = motorPhases.map((phase) => {
      const runs = own.filter(([, run]) => run.phase === undefined || run.phase === phase);
      const lengths = runs.map(([, run]) => runLengths(run)?.cutM ?? null);
      return {
        phase,
        routed: runs.length > 0,
        cutM: lengths.some((one) => one === null)
          ? null
          : lengths.reduce<number>((sum, one) => sum + (one ?? 0), 0),
      };
    });
    const routed = cuts.filter(({ routed: is }) => is);
    const missing = cuts.filter(({ routed: is }) => !is).map(({ phase }) => phase);
    const gaps: Gap[] = own.flatMap(([id, run]): Gap[] =>
      runLengths(run) === null
        ? [{ kind: 'not-given', path: `runs.${id}.points`, label: `length of ${run.tag}` }]
        : [],
    );
    const known = routed.flatMap(({ cutM }) => (cutM === null ? [] : [cutM]));
    const [shortestM, longestM] = [Math.min(...known), Math.max(...known)];
    const figure = (name: 'shortestM' | 'longestM', label: string, value: number): Figure => ({
      id: figureId('routing.phases', subject, name),
      label,
      unit: 'm',
      value: gaps.length > 0 ? null : value,
      gaps,
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'l',
                label,
                formula: name === 'shortestM' ? 'min(l)' : 'max(l)',
                inputs: routed.map(({ phase, cutM }) => ({
                  symbol: `l_${phase}`,
                  value: cutM ?? 0,
                  unit: 'm',
                })),
                value,
                unit: 'm',
                source: 'Each phase as cut, along all runs that carry it',
              },
            ],
    });
    return {
      figures: [
        figure('shortestM', 'Shortest motor phase', shortestM),
        figure('longestM', 'Longest motor phase', longestM),
      ],
      checks: [
        judge(
          runRules.phasesMissing,
          [subject],
          [],
          missing.length > 0
            ? `${tag}: ${routed.length} of ${motorPhases.length} motor phases have a run; ${missing.join(' and ')} ${missing.length === 1 ? 'has' : 'have'} none.`
            : null,
          [
            { label: 'phases with a run', value: routed.length, unit: '' },
            { label: 'phases', value: motorPhases.length, unit: '' },
          ],
        ),
        judge(
          runRules.phasesUnlike,
          [subject],
          gaps,
          longestM > shortestM * (1 + unlikeWithin) + 1e-9
            ? `The motor phases of ${tag} are ${n(shortestM)} m to ${n(longestM)} m long.`
            : null,
          gaps.length > 0
            ? []
            : [
                { label: 'shortest', value: shortestM, unit: 'm' },
                { label: 'longest', value: longestM, unit: 'm' },
              ],
          { also: own.map(([id]) => id) },
        ),
      ],
    };
  },
};
