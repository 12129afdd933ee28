import { everyCircuit, type Id, settingsDefaults } from '../../model/document';
import { figureId, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Basis } from '../../record';
import type { Builder } from './procedure-builder';

/** Everything that can leak: opening any of it makes the whole due again. */
const everything = ({ design }: Builder): Id[] => [
  ...Object.keys(design.strings),
  ...Object.keys(design.modules),
  ...Object.keys(design.boxes),
  ...Object.keys(design.circuits),
  ...Object.keys(design.devices),
];

/** Both poles of the pack, then every circuit behind it, each by itself. */
export function insulation(builder: Builder): void {
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
      id: `insulation-${pole}:pack`,
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
      id: `insulation-branch:${id}`,
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
