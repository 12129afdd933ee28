import { figureId, type Figure, type Gap } from '../../ground/figure';
import { mainCircuit, type Id, type JointPlace } from '../../model/document';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';
import { kindStep } from './kind-step';
import { jointsOf } from './list';
import { jointRules as rules } from './rules';

const placeWords: Record<JointPlace, string> = {
  modules: 'posts of modules',
  lugs: 'lugs of cables',
  bars: 'ends of bus bars',
};

/** All joints: how many there are, and those nobody has said anything about. */
const allStep: StepDefinition = {
  id: 'joints.all',
  version: 1,
  subjects: () => ['all'],
  compute(subject, read) {
    const joints = jointsOf({
      joints: read.at('joints') ?? {},
      modules: read.at('modules'),
      strings: read.at('strings'),
      circuits: read.at('circuits'),
      pack: read.at('pack'),
    });
    const unsaid = joints.filter(({ kind }) => kind === null);
    const places = (Object.keys(placeWords) as JointPlace[]).filter((place) =>
      unsaid.some(({ carries }) => placeOf(carries) === place),
    );
    const none: Gap[] =
      joints.length === 0 ? [{ kind: 'not-given', path: 'strings', label: 'modules in series' }] : [];
    return {
      figures: [
        {
          id: figureId('joints.all', subject, 'count'),
          label: 'Joints that carry the pack’s current',
          unit: '',
          value: none.length > 0 ? null : joints.length,
          gaps: none,
          working: [],
        },
      ],
      checks: [
        judge(
          rules.unsaid,
          [subject],
          none,
          unsaid.length === 0
            ? null
            : `Of ${joints.length} joints ${unsaid.length} have no kind: ${places.map((place) => placeWords[place]).join(', ')}.`,
          [
            { label: 'joints without a kind', value: unsaid.length, unit: '' },
            { label: 'joints', value: joints.length, unit: '' },
          ],
        ),
      ],
    };
  },
};

const placeOf = (carries: object): JointPlace =>
  'string' in carries ? 'modules' : 'bar' in carries ? 'bars' : 'lugs';

/** What flows through joints: of a string, a circuit or a bar, in the mean square and at the peak. */
const currentStep: StepDefinition = {
  id: 'joints.current',
  version: 1,
  subjects: ({ strings, circuits, pack }) => [
    ...Object.keys(strings),
    ...Object.keys(circuits),
    ...Object.keys(pack.busbars ?? {}),
  ],
  compute(subject, read) {
    const { circuit, share, fixedA } = sourceOf(subject, read);
    const make = (name: 'rmsA' | 'peakA', label: string): Figure => {
      const id = figureId('joints.current', subject, name);
      if (fixedA !== null) return { id, label, unit: 'A', value: fixedA, gaps: [], working: [] };
      const load = read.figure(figureId('network.load', circuit, name));
      const value = load.value === null ? null : load.value * share;
      return {
        id,
        label,
        unit: 'A',
        value,
        gaps: load.value === null ? gapsBehind(load) : [],
        working:
          value === null
            ? []
            : [
                {
                  symbol: 'I_j',
                  label,
                  formula: 'I·s',
                  inputs: [
                    { symbol: 'I', value: load.value!, unit: 'A', origin: { kind: 'figure', id: load.id } },
                    {
                      symbol: 's',
                      value: share,
                      unit: '',
                      origin: { kind: 'constant', source: 'strings alike' },
                    },
                  ],
                  value,
                  unit: 'A',
                  source: 'The load’s share',
                },
              ],
      };
    };
    return {
      figures: [make('rmsA', 'Through the joint, rms'), make('peakA', 'Through the joint, peak')],
      checks: [],
    };
  },
};

/** Whose load it is, and which share of it: strings that are alike share the main’s. */
function sourceOf(subject: string, read: Reader): { circuit: Id; share: number; fixedA: number | null } {
  const strings = read.at('strings');
  if (Object.hasOwn(strings, subject)) {
    const filled = Object.values(strings).filter(({ modules }) => modules.length > 0).length;
    return { circuit: mainCircuit, share: 1 / Math.max(1, filled), fixedA: null };
  }
  const bar = read.at('pack').busbars?.[subject];
  if (bar !== undefined) return { circuit: bar.circuit ?? '', share: 1, fixedA: bar.currentA ?? null };
  return { circuit: subject, share: 1, fixedA: null };
}

export const jointSteps: StepDefinition[] = [kindStep, allStep, currentStep];
