import { everyCircuit } from '../../model/document';
import { figureId, type Figure, type Gap, type FigureName } from '../../ground/figure';
import type { StepDefinition } from '../../model/step';
import { networkChecks } from './checks';
import { deviceLoadStep } from './device-load-step';
import { structureView } from './structure';

/** A longer profile is not written out in the working. */
const mostShown = 60;

/** Load of a circuit over one period: rms and peak. */
const loadStep: StepDefinition = {
  id: 'network.load',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const profile = read.at('circuits', subject, 'loadProfile');
    const path = `circuits.${subject}.loadProfile`;
    const named = `load profile of ${read.at('circuits', subject)?.tag ?? subject}`;
    const gaps: Gap[] = [];
    if (profile === undefined || profile.length === 0) gaps.push({ kind: 'not-given', path, label: named });
    else if (profile.some(([durationS]) => durationS <= 0)) {
      gaps.push({ kind: 'invalid', path, label: named, message: 'has a step without duration' });
    }
    const steps = gaps.length > 0 ? [] : (profile ?? []);
    let [seconds, squares, peakA] = [0, 0, steps.length === 0 ? -Infinity : 0];
    for (const step of steps) {
      seconds += step[0];
      squares += step[0] * step[1] * step[1];
      peakA = Math.max(peakA, Math.abs(step[1]));
    }
    const figure = (
      name: FigureName<'network.load'>,
      label: string,
      formula: string,
      value: number,
    ): Figure => ({
      id: figureId('network.load', subject, name),
      label,
      unit: 'A',
      value: gaps.length > 0 ? null : value,
      gaps,
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'I',
                label,
                formula,
                inputs: (steps.length > mostShown ? [] : steps).map(([durationS, currentA], i) => ({
                  symbol: `I_${i + 1}`,
                  value: currentA,
                  unit: `A for ${durationS} s`,
                  origin: { kind: 'document' as const, path },
                })),
                value,
                unit: 'A',
                source:
                  steps.length > mostShown
                    ? `One period of ${steps.length} steps of the load profile, repeating`
                    : 'One period of the load profile, repeating',
              },
            ],
    });
    return {
      figures: [
        figure('rmsA', 'Load, rms', '√(Σ(t·I²)/Σ(t))', Math.sqrt(squares / seconds)),
        figure('peakA', 'Load, peak', 'max(|I|)', peakA),
      ],
      checks: [],
    };
  },
};

/** How things connect: every rule of chapter network, over the graph that follows from the design. */
const networkStep: StepDefinition = {
  id: 'network.network',
  version: 1,
  subjects: () => ['network'],
  compute: (_subject, read) => ({ figures: [], checks: networkChecks(read.shared(structureView)) }),
};

export const networkSteps: StepDefinition[] = [loadStep, networkStep, deviceLoadStep];
