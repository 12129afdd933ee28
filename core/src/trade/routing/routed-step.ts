import { judge, type StepDefinition } from '../../model/step';
import { runRules } from './rules';

/** Circuits that runs carry: both poles, and once. */
export const routedStep: StepDefinition = {
  id: 'routing.routed',
  version: 1,
  subjects: ({ circuits, runs = {} }) => {
    const carried = new Set(Object.values(runs).flatMap((run) => run.circuits ?? []));
    return Object.keys(circuits).filter((id) => carried.has(id));
  },
  compute(subject, read) {
    const { tag } = read.at('circuits', subject)!;
    const own = Object.values(read.at('runs') ?? {}).filter(({ circuits }) => circuits?.includes(subject));
    const has = (pole: 'plus' | 'minus') =>
      own.some(({ poles = 'both' }) => poles === 'both' || poles === pole);
    const one = own.length > 0 && has('plus') !== has('minus');
    const both = own.filter(({ poles = 'both' }) => poles === 'both');
    return {
      figures: [],
      checks: [
        judge(
          runRules.onePole,
          [subject],
          [],
          one
            ? `${tag}: 1 of its 2 poles has a run, the ${has('plus') ? 'positive' : 'negative'} one.`
            : null,
          [
            { label: 'poles with a run', value: Number(has('plus')) + Number(has('minus')), unit: '' },
            { label: 'poles', value: 2, unit: '' },
          ],
        ),
        judge(
          runRules.twice,
          [subject],
          [],
          both.length > 1
            ? `${tag} is carried by ${both.length} runs: ${both.map((run) => run.tag).join(', ')}.`
            : null,
          [{ label: 'runs', value: both.length, unit: '' }],
        ),
      ],
    };
  },
};
