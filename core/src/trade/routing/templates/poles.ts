import { mainCircuit } from '../../../model/document';
import { defineTemplates, type Builder, type Procedure } from '../../../model/procedure';

const templates = defineTemplates({ poles: {} });

/** A wire from pole to pole has less than this, with leads and contacts, Ω. */
const continuityOhm = 1;

/** Which pole of each branch is which, while nothing is live yet. */
function branchPolarity(builder: Builder): void {
  const { circuits, devices } = builder.design;
  for (const [id, circuit] of Object.entries(circuits)) {
    const device = devices[circuit.device ?? ''];
    if (id === mainCircuit || device === undefined) continue;
    const own = circuit.contactor !== undefined;
    builder.add({
      template: templates['poles'],
      of: id,
      gate: 'wiring',
      title: `Poles of ${circuit.tag}`,
      do: `Disconnect out, bus proved dead, ${device.tag} unplugged${own ? ', its contactors held closed by hand or by a supply' : ''}, fuse in. Measure from bus + to the + contact of the plug; then see that the − contact stays open.`,
      why: 'Swapped poles destroy a device the moment the bus rises; here they cost nothing.',
      hazard: 'isolated',
      instrument: 'meter',
      subjects: [{ id, tag: circuit.tag }],
      touchedBy: [circuit.device!],
      range: { kind: 'range', min: 0, max: continuityOhm, unit: 'Ω' },
      gaps: [],
      basis: [builder.row('constant:continuityOhm', 'most of a wire with its contacts', continuityOhm, 'Ω')],
    });
  }
}

/** Comes with the cables: once they are laid, each is held against its pole. */
export const polesProcedure: Procedure = { templates, steps: branchPolarity };
