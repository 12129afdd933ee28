import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { lowVoltageRules } from './rules';
import { fedV, lowVoltageSystem } from './system';

const n = formatNumber;

/** Each charge controller on the low voltage of the vehicle: fed by the battery alone at the least, by what fills it at the most. */
export const controllerStep: StepDefinition = {
  id: 'low-voltage.controller',
  version: 1,
  subjects: ({ inlets = {} }) => Object.keys(inlets).filter((id) => inlets[id]!.controller !== undefined),
  compute(subject, read) {
    const { tag, controller: key = '' } = read.at('inlets')![subject]!;
    const part = read.at('parts', key);
    const data = part?.kind === 'controller' ? part.data : null;
    const system = lowVoltageSystem({
      lowVoltage: read.at('lowVoltage') ?? {},
      parts: read.at('parts'),
      settings: read.at('settings'),
    });
    const leastV = Math.min(system.nominalV, fedV(system));
    const mostV = Math.max(system.nominalV, fedV(system));
    const unknown: Gap[] =
      data === null
        ? [{ kind: 'not-given', path: `parts.${key}`, label: `charge controller of ${tag}` }]
        : [];
    return {
      figures: [],
      checks: [
        judge(
          lowVoltageRules.controllerSupply,
          [subject],
          unknown,
          data !== null && (leastV < data.supplyMinV || mostV > data.supplyMaxV)
            ? `${part!.label} at ${tag} works from ${n(data.supplyMinV)} to ${n(data.supplyMaxV)} V; the vehicle has ${n(leastV)} to ${n(mostV)} V.`
            : null,
          [
            { label: 'works from', value: data?.supplyMinV ?? 0, unit: 'V' },
            { label: 'works up to', value: data?.supplyMaxV ?? 0, unit: 'V' },
            { label: 'lowest of the vehicle', value: leastV, unit: 'V' },
            { label: 'highest of the vehicle', value: mostV, unit: 'V' },
          ],
          { parts: [key] },
        ),
      ],
    };
  },
};
