import { mainCircuit, type Id } from '../../model/document';
import { coilOf, holdCurrentA } from '../../trade/contactor';
import { figureId } from '../../ground/figure';
import { busDevices, mainBus, ownBuses } from '../../trade/precharge';
import type { Builder } from './procedure-builder';

/** The devices of a bus: work on one of them makes due again what was measured on it. */
export const onBus = ({ design }: Builder, bus: string): Id[] => busDevices(design, bus);

/** What a step on a bus is called after. */
export const busSubject = ({ design }: Builder, bus: string) =>
  bus === mainBus ? { id: 'bus', tag: 'bus' } : { id: bus, tag: design.circuits[bus]!.tag };

/** The resistor of a circuit that pre-charges, before it is fitted. */
export function circuitParts(builder: Builder, id: Id): void {
  const circuit = builder.design.circuits[id]!;
  const part = circuit.resistor === undefined ? undefined : builder.design.parts[circuit.resistor];
  const resistor = part?.kind === 'resistor' ? part.data : null;
  const ohm = resistor?.resistanceOhm ?? 0;
  const tolerance = (resistor?.toleranceFraction ?? 0) + 0.01;
  builder.add({
    id: `precharge-resistor:${id}`,
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
export function bleedResistances(builder: Builder): void {
  for (const bus of [mainBus, ...ownBuses(builder.design)]) {
    const bleed = builder.figures(figureId('precharge.bus', bus, 'bleedOhm'));
    const main = bus === mainBus;
    // A branch without a bleed of its own is a finding already.
    if (!main && bleed.gaps.length > 0) continue;
    const ohm = bleed.values[0]!;
    const subject = busSubject(builder, bus);
    builder.add({
      id: `bleed-resistance:${bus}`,
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

/** How far the current of a held coil may lie from the maker’s figures: coils differ, and warm up. */
const coilTolerance = 0.25;

/** Contactors driven one by one while no high voltage is there. */
export function coils(builder: Builder, id: Id): void {
  const circuit = builder.design.circuits[id]!;
  const part = builder.design.parts[circuit.contactor ?? ''];
  const coil = part?.kind === 'contactor' ? coilOf(part.data) : null;
  const holdA = coil === null ? 0 : holdCurrentA(coil);
  builder.add({
    id: `coils:${id}`,
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
