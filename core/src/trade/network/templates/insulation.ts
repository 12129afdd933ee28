import { everyCircuit, type Id, settingsDefaults } from '../../../model/document';
import { figureId, type Gap } from '../../../ground/figure';
import { formatNumber, formatQuantity } from '../../../ground/quantity';
import type { Basis } from '../../../record';
import {
  defineTemplates,
  insulationReads,
  type Builder,
  type Case,
  type Hypothesis,
  type Procedure,
} from '../../../model/procedure';

const asInsulation = { reads: insulationReads, causes: insulationCauses };

const templates = defineTemplates({
  'insulation-negative': asInsulation,
  'insulation-positive': asInsulation,
  'insulation-branch': asInsulation,
});

/** Everything that can leak: opening any of it makes the whole due again. */
const everything = ({ design }: Builder): Id[] => [
  ...Object.keys(design.strings),
  ...Object.keys(design.modules),
  ...Object.keys(design.boxes),
  ...Object.keys(design.circuits),
  ...Object.keys(design.devices),
];

/** Both poles of the pack, then every circuit behind it, each by itself. */
function insulation(builder: Builder): void {
  const highest = builder.figures(figureId('pack.pack', 'pack', 'voltageMaxV'));
  const perV = builder.design.settings.insulationOhmPerV ?? settingsDefaults.insulationOhmPerV;
  const limit: { min: number; gaps: Gap[]; basis: Basis[] } = {
    min: (perV * highest.values[0]!) / 1e6,
    gaps: highest.gaps,
    basis: [...highest.basis, builder.row('settings.insulationOhmPerV', 'insulation limit', perV, 'Ω/V')],
  };
  const why = `${formatNumber(perV)} Ω for each volt keeps the current through a person who touches one pole small.`;
  const common = { gate: 'insulation', hazard: 'isolated', instrument: 'insulation-tester' } as const;
  const { min, gaps, basis } = limit;
  for (const pole of ['negative', 'positive'] as const)
    builder.add({
      ...common,
      template: templates[`insulation-${pole}`],
      of: 'pack',
      title: `Insulation, ${pole} pole to chassis`,
      do: `Electronics isolated from the tester. Test from the pack’s ${pole} pole to the chassis at a test voltage the makers allow; read after one minute.`,
      why,
      subjects: [{ id: 'pack', tag: `pack, ${pole} pole` }],
      touchedBy: everything(builder),
      range: { kind: 'range', min, unit: 'MΩ' },
      gaps,
      basis,
    });
  for (const id of everyCircuit(builder.design)) {
    const circuit = builder.design.circuits[id]!;
    if (circuit.role === 'main') continue;
    builder.add({
      ...common,
      template: templates['insulation-branch'],
      of: id,
      title: `Insulation of ${circuit.tag}`,
      do: `${circuit.contactor === undefined ? 'Fuse out' : 'Contactors open'}, device unplugged or isolated from the tester. Join both poles of ${circuit.tag} and test them to the chassis at a test voltage the makers allow; read after one minute.`,
      why,
      subjects: [{ id, tag: circuit.tag }],
      touchedBy: [
        ...(circuit.device === undefined ? [] : [circuit.device]),
        ...(circuit.box === undefined ? [] : [circuit.box]),
      ],
      range: { kind: 'range', min, unit: 'MΩ' },
      gaps,
      basis,
    });
  }
}

function insulationCauses({ design }: Case, value: number): Hypothesis[] {
  const causes: Omit<Hypothesis, 'predicts'>[] = [];
  if (value < 0.001)
    causes.push({
      cause: 'A conductor touches the chassis or a box',
      because: `${formatQuantity(value, 'MΩ')} is a contact, not a leak`,
      check: 'Take out links until it rises; the place lies in the piece that was taken out last.',
    });
  causes.push({
    cause: 'Electronics were not isolated from the tester',
    because: `${Object.keys(design.devices).length} devices have filters from bus to chassis`,
    check: 'Unplug the devices and the monitor; test again.',
  });
  for (const box of Object.values(design.boxes))
    causes.push({
      cause: `Moisture or coolant in ${box.tag}`,
      because: 'a reading that falls while the voltage is on is a wet surface',
      check: `Open ${box.tag}, look at gland and vent, dry, test the box alone.`,
    });
  return causes.map((one) => ({ ...one, predicts: null }));
}

export const insulationProcedure: Procedure = { templates, steps: insulation };
