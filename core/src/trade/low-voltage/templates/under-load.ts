import { figureId } from '../../../ground/figure';
import type { Id } from '../../../model/document';
import {
  defineTemplates,
  slips,
  type Builder,
  type Hypothesis,
  type Procedure,
} from '../../../model/procedure';

/** Output of the converter with all loads on, within this share of its nominal. */
const converterWithinFraction = 0.04;
/** Loads below this current tell nothing of their wire by a drop, A. */
const dropFromA = 2;

const cause = (what: string, because: string, check: string): Hypothesis => ({
  cause: what,
  because,
  check,
  predicts: null,
});

const dropCauses = [
  cause(
    'A crimp or a ground is bad',
    'A tenth of an ohm is enough.',
    'Halve the way with the probes until the drop jumps.',
  ),
  cause('The wire is thinner than designed', 'Drop goes with the area.', 'Measure its strands.'),
];

const converterCauses = [
  cause(
    'The converter is at its limit',
    'Voltage gives in once its current does not rise any more.',
    'Clamp its output; switch loads off one by one.',
  ),
  cause(
    'A cell of the battery is shorted',
    'It pulls the voltage down at rest as well.',
    'The battery alone, at rest and under load.',
  ),
];

const templates = defineTemplates({
  'converter-load': { causes: (of, value) => [...slips(of, value), ...converterCauses] },
  'load-drop': { causes: (of, value) => [...slips(of, value), ...dropCauses] },
});

const gate = 'charging';

/** The converter with every load on. */
function converter(builder: Builder): void {
  const { lowVoltage, parts } = builder.design;
  const part = parts[lowVoltage?.converter ?? ''];
  if (lowVoltage?.school === 'mains charger' || part?.kind !== 'converter') return;
  const { outputV } = part.data;
  const ids = Object.keys(builder.design.devices).filter(
    (id) => builder.design.devices[id]!.kind === 'dc-dc',
  );
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'meter',
    template: templates['converter-load'],
    of: 'vehicle',
    title: 'Converter with every load on',
    do: 'High voltage on, standing: lamps, blower, wipers, pumps all on for ten minutes. Read the low voltage at the battery.',
    why: 'A converter that gives in under load empties the battery slowly enough that nobody notices.',
    subjects: ids.map((id) => ({ id, tag: builder.design.devices[id]!.tag })),
    touchedBy: ids,
    range: {
      kind: 'range',
      min: outputV * (1 - converterWithinFraction),
      max: outputV * (1 + converterWithinFraction),
      nominal: outputV,
      unit: 'V',
    },
    gaps: [],
    basis: [builder.row('converter:outputV', 'output of the converter', outputV, 'V')],
  });
}

/** Voltage lost on the way to a load that draws enough to show it. */
function dropAt(builder: Builder, load: Id): void {
  const { tag } = builder.design.loads![load]!;
  const current = builder.evaluation.figures[figureId('low-voltage.load', load, 'currentA')]?.value ?? 0;
  if (current < dropFromA) return;
  const drop = builder.figures(figureId('low-voltage.load', load, 'dropV'));
  const figure = builder.evaluation.figures[figureId('low-voltage.load', load, 'dropV')];
  const most = figure?.limit?.max ?? 0;
  builder.add({
    gate,
    hazard: 'low-voltage',
    instrument: 'meter',
    template: templates['load-drop'],
    of: load,
    title: `Drop to ${tag}`,
    do: `${tag} on: from the battery’s plus to its feed, and from its return to the battery’s minus; record the sum.`,
    why: 'A crimp that is bad by a tenth of an ohm passes every continuity test.',
    subjects: [{ id: load, tag }],
    touchedBy: [load],
    range: { kind: 'range', max: most, nominal: drop.values[0]!, unit: 'V' },
    gaps: drop.gaps,
    basis: [...drop.basis, builder.row(`load:${load}:most`, `drop allowed to ${tag}`, most, 'V')],
  });
}

export const underLoadProcedure: Procedure = {
  templates,
  steps: (builder) => {
    converter(builder);
    for (const load of Object.keys(builder.design.loads ?? {})) dropAt(builder, load);
  },
};
