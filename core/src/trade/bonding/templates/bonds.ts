import { formatNumber } from '../../../ground/quantity';
import { defineTemplates, type Builder, type Procedure } from '../../../model/procedure';
import { measuredBodies } from '../measured';
import { leastBondTestA, mostBondOhm } from '../rules';

const templates = defineTemplates({ bonds: {} });

/** Every conductive body measured to the chassis. */
function bonds(builder: Builder): void {
  const bodies = measuredBodies(builder.design);
  builder.add({
    template: templates['bonds'],
    of: 'chassis',
    gate: 'wiring',
    title: 'Bonds to the chassis',
    do: `Measure each of the ${bodies.length} bodies to the chassis at ${formatNumber(leastBondTestA)} A or more, and record the walk in Protect, Bonds and distances.`,
    why: 'A body without a bond takes the voltage of the first fault to it, and keeps it until somebody touches it.',
    hazard: 'isolated',
    instrument: 'meter',
    subjects: [{ id: 'bonds', tag: 'bonds' }],
    touchedBy: bodies.map(({ id }) => id),
    walk: {
      work: 'bond',
      items: bodies.map(({ id, tag }) => ({ id, tag })),
      leastA: leastBondTestA,
    },
    range: { kind: 'range', max: mostBondOhm, unit: 'Ω' },
    gaps: bodies.length === 0 ? [{ kind: 'not-given', path: 'boxes', label: 'boxes and devices' }] : [],
    basis: [builder.row('constant:mostBondOhm', 'most of a bond', mostBondOhm, 'Ω')],
  });
}

export const bondsProcedure: Procedure = { templates, steps: bonds };
