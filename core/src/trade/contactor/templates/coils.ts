import { mainCircuit, switchedCircuits, type Id } from '../../../model/document';
import { defineTemplates, type Builder, type Procedure } from '../../../model/procedure';
import { coilOf, holdCurrentA } from '../coil';

const templates = defineTemplates({ coils: {} });

/** How far the current of a held coil may lie from the maker’s figures: coils differ, and warm up. */
const coilTolerance = 0.25;

/** Contactors driven one by one while no high voltage is there. */
function coils(builder: Builder, id: Id): void {
  const circuit = builder.design.circuits[id]!;
  const part = builder.design.parts[circuit.contactor ?? ''];
  const coil = part?.kind === 'contactor' ? coilOf(part.data) : null;
  const holdA = coil === null ? 0 : holdCurrentA(coil);
  builder.add({
    template: templates['coils'],
    of: id,
    gate: 'coils',
    title: `Contactors of ${circuit.tag}, each alone`,
    do: `Disconnect out, bus proved dead. Drive each contactor of ${circuit.tag} alone${id === mainCircuit || circuit.resistor !== undefined ? ', the one of the pre-charge too' : ''}: hear it, read its auxiliary contact or its resistance back, see that no other one moves. Record the current of the held coil that lies farthest off.`,
    why: 'A swapped driver, a coil with its suppression the wrong way round or a contact that hangs shows here, and not with the pack behind it.',
    hazard: 'isolated',
    instrument: 'meter',
    subjects: [{ id, tag: circuit.tag }],
    range: {
      kind: 'range',
      min: holdA * (1 - coilTolerance),
      max: holdA * (1 + coilTolerance),
      nominal: holdA,
      unit: 'A',
    },
    gaps:
      coil === null
        ? [
            {
              kind: 'not-given',
              path: `circuits.${id}.contactor`,
              label: part?.kind === 'contactor' ? 'coil data of the contactor' : 'contactors',
            },
          ]
        : [],
    basis:
      coil === null
        ? []
        : [
            builder.row(
              `part:${circuit.contactor}:holdA`,
              `current of a held coil of ${part!.number}`,
              holdA,
              'A',
            ),
          ],
  });
}

export const coilsProcedure: Procedure = {
  templates,
  steps: (builder) => {
    for (const id of switchedCircuits(builder.design)) coils(builder, id);
  },
};
