import { figureId } from '../../../ground/figure';
import { formatQuantity } from '../../../ground/quantity';
import type { Id } from '../../../model/document';
import { catalogueOf } from '../../../model/parts';
import {
  defineTemplates,
  nominalOf,
  slips,
  type Builder,
  type Case,
  type Hypothesis,
  type Procedure,
} from '../../../model/procedure';
import { mainBus, ownBuses, prechargedCircuits } from '../bus-step';
import { busSubject, onBus } from './bus';

const templates = defineTemplates({
  'precharge-resistor': {
    causes: (of, value) => [...slips(of, value), ...otherResistors(of), alongside(of)],
  },
  'bleed-resistance': {
    causes: (of, value) => [...slips(of, value), ...bleedsAmiss(of, value), alongside(of)],
  },
});

/** The resistor of a circuit that pre-charges, before it is fitted. */
function circuitParts(builder: Builder, id: Id): void {
  const circuit = builder.design.circuits[id]!;
  const part = circuit.resistor === undefined ? undefined : builder.design.parts[circuit.resistor];
  const resistor = part?.kind === 'resistor' ? part.data : null;
  const ohm = resistor?.resistanceOhm ?? 0;
  const tolerance = (resistor?.toleranceFraction ?? 0) + 0.01;
  builder.add({
    template: templates['precharge-resistor'],
    of: id,
    gate: 'parts',
    title: `Pre-charge resistor of ${circuit.tag}`,
    do: 'Measure the resistor with one end free; take the leads’ own resistance off.',
    why: 'The wrong resistor makes every later pre-charge test wrong, and may burn.',
    hazard: 'part',
    instrument: 'meter',
    subjects: [{ id, tag: circuit.tag }],
    range: { kind: 'range', min: ohm * (1 - tolerance), max: ohm * (1 + tolerance), nominal: ohm, unit: 'Ω' },
    gaps:
      resistor === null
        ? [{ kind: 'not-given', path: `circuits.${id}.resistor`, label: 'pre-charge resistor' }]
        : [],
    basis:
      resistor === null
        ? []
        : [builder.row(`part:${circuit.resistor}:resistanceOhm`, `resistance of ${part!.number}`, ohm, 'Ω')],
  });
}

/** The bleed across the main bus, and across the bus of each branch that has one. */
function bleedResistances(builder: Builder): void {
  for (const bus of [mainBus, ...ownBuses(builder.design)]) {
    const bleed = builder.figures(figureId('precharge.bus', bus, 'bleedOhm'));
    const main = bus === mainBus;
    // A branch without a bleed of its own is a finding already.
    if (!main && bleed.gaps.length > 0) continue;
    const ohm = bleed.values[0]!;
    const subject = busSubject(builder, bus);
    builder.add({
      template: templates['bleed-resistance'],
      of: bus,
      gate: 'parts',
      title: main ? 'Bleed resistance across the bus' : `Bleed resistance of ${subject.tag}`,
      do: `With the pack disconnected and the bus proved dead, measure from ${main ? 'bus + to bus −' : `+ to − behind the contactors of ${subject.tag}`}; wait until the reading stands still.`,
      why: 'The bleed is all that empties the capacitors after shut-down.',
      hazard: 'isolated',
      instrument: 'meter',
      subjects: [subject],
      touchedBy: onBus(builder, bus),
      range: { kind: 'range', min: ohm * 0.9, max: ohm * 1.1, nominal: ohm, unit: 'Ω' },
      gaps: bleed.gaps,
      basis: bleed.basis,
    });
  }
}

const ohms = (value: number) => formatQuantity(value, 'Ω');

const otherResistors = ({ expected }: Case): Hypothesis[] =>
  catalogueOf('resistor')
    .filter(({ data }) => Math.abs(data.resistanceOhm - (nominalOf(expected) ?? 0)) >= 1e-9)
    .map(({ label, data: { resistanceOhm } }) => ({
      cause: `Another resistor was fitted: ${label}`,
      because: `it has ${ohms(resistanceOhm)}`,
      check: 'Read the marking on the part.',
      predicts: resistanceOhm,
    }));

function bleedsAmiss({ design, expected }: Case, value: number): Hypothesis[] {
  const bleeds = Object.values(design.devices).filter(({ bleedOhm }) => bleedOhm !== undefined);
  const causes = bleeds.flatMap((left): Hypothesis[] => {
    const sum = bleeds.filter((one) => one !== left).reduce((all, { bleedOhm }) => all + 1 / bleedOhm!, 0);
    if (sum === 0) return [];
    return [
      {
        cause: `The bleed of ${left.tag} is not connected`,
        because: `the others together have ${ohms(1 / sum)}`,
        check: `Look at the plug of ${left.tag}; measure at its terminals.`,
        predicts: 1 / sum,
      },
    ];
  });
  const nominal = nominalOf(expected);
  if (nominal === null || value >= nominal) return causes;
  const extra = ohms(1 / (1 / value - 1 / nominal));
  return [
    ...causes,
    {
      cause: `Something more lies across the bus, about ${extra}`,
      because: `in parallel with the ${ohms(nominal)} designed it makes ${ohms(value)}`,
      check: 'Unplug the devices one after another and watch the reading.',
      predicts: null,
    },
  ];
}

const alongside = ({ step }: Case): Hypothesis => ({
  cause: 'The leads’ own resistance, or something in parallel, was measured along',
  because: `${step.subjects[0]?.tag ?? 'the part'} was not alone on the meter`,
  check: 'Free one end; short the leads and take their reading off.',
  predicts: null,
});

export const partsProcedure: Procedure = {
  templates,
  steps: (builder) => {
    for (const id of prechargedCircuits(builder.design)) circuitParts(builder, id);
    bleedResistances(builder);
  },
};
