import { touchLimitOf, type Design } from '../../model/document';
import type { PartOf } from '../../model/parts';
import type { Evaluation } from '../../model/step';
import { Builder, type ProcedureStep } from './procedure-builder';

/** What is measured on each module when it comes in: its voltage always, the rest where there is gear for it. */
export function intakeSteps(builder: Builder): void {
  const { design } = builder;
  const placed = Object.values(design.strings).flatMap(({ modules }) => modules);
  const known = new Set(placed);
  const spare = Object.keys(design.modules).filter((id) => !known.has(id));
  for (const id of [...placed, ...spare]) {
    const module = design.modules[id];
    const part = module === undefined ? undefined : design.parts[module.part];
    if (module === undefined || part?.kind !== 'module') continue;
    stepsOfModule(builder, id, module.tag, part);
  }
}

/** The same of a thing that lies on the shelf: its steps are its own, and go where it goes. */
export function stepsOfItem(
  design: Design,
  evaluation: Evaluation,
  item: { id: string; serial: string | null },
  part: PartOf<'module'>,
): ProcedureStep[] {
  const builder = new Builder(design, evaluation);
  stepsOfModule(builder, item.id, item.serial ?? item.id, part);
  return builder.steps;
}

/** Less is a short, more a break, Ω: thermistors of modules have some kilo-ohms in a workshop. A judged bound. */
const sensorOhm = [300, 300_000] as const;

function stepsOfModule(builder: Builder, id: string, tag: string, part: PartOf<'module'>): void {
  const { cell, cellsInSeries, cellsInParallel, insulationMinMOhm } = part.data;
  const ohm = (cell.resistanceOhm * cellsInSeries) / cellsInParallel;
  const capacityAh = cell.capacityAh * cellsInParallel;
  const min = cell.minV * cellsInSeries;
  const max = cell.maxV * cellsInSeries;
  const key = `part:${part.id}@${part.revision}`;
  const common = {
    gate: 'parts' as const,
    hazard: max > touchLimitOf(builder.design) ? ('part-hv' as const) : ('part' as const),
    subjects: [{ id, tag }],
    gaps: [],
  };
  const voltage = {
    instrument: 'meter' as const,
    range: { kind: 'range' as const, min, max, unit: 'V' },
    basis: [
      builder.row(`${key}:minV`, `lowest voltage of ${part.number}`, min, 'V'),
      builder.row(`${key}:maxV`, `highest voltage of ${part.number}`, max, 'V'),
    ],
  };
  builder.add({
    ...common,
    id: `intake-voltage:${id}`,
    title: `Intake voltage of ${tag}`,
    do: `Measure ${tag} (${part.label}) from − to + at its terminals, at rest.`,
    why: 'A module below its minimum is damaged; one above its maximum was overcharged; a wrong sign is a wrong label.',
    ...voltage,
  });
  builder.add({
    ...common,
    optional: true,
    id: `intake-insulation:${id}`,
    title: `Intake insulation of ${tag}`,
    do: `Test ${tag} from its joined terminals to its case at a voltage the maker allows; read after one minute.`,
    why: 'A leak found on the bench is a screw and a cloth; found in the car it is a week.',
    instrument: 'insulation-tester',
    range: { kind: 'range', min: insulationMinMOhm, unit: 'MΩ' },
    basis: [
      builder.row(`${key}:insulationMinMOhm`, `maker’s criterion of ${part.number}`, insulationMinMOhm, 'MΩ'),
    ],
  });
  builder.add({
    ...common,
    optional: true,
    id: `intake-resistance:${id}`,
    title: `Intake resistance of ${tag}`,
    do: `Measure the internal resistance of ${tag}, all modules with one method, at one temperature and state of charge.`,
    why: 'A module that differs from its batch sags first and ages faster.',
    instrument: 'meter',
    range: { kind: 'range', nominal: ohm, unit: 'Ω' },
    basis: [builder.row(`${key}:resistanceOhm`, `resistance of ${part.number}`, ohm, 'Ω')],
  });
  builder.add({
    ...common,
    optional: true,
    id: `intake-capacity:${id}`,
    title: `Intake capacity of ${tag}`,
    do: `Discharge ${tag} from full to empty at one rate, all modules alike, and count the charge.`,
    why: 'The smallest module of a string sets the range of all.',
    instrument: 'meter',
    range: { kind: 'range', nominal: capacityAh, unit: 'Ah' },
    basis: [builder.row(`${key}:capacityAh`, `capacity of ${part.number}`, capacityAh, 'Ah')],
  });
  builder.add({
    ...common,
    optional: true,
    id: `intake-rested:${id}`,
    title: `Voltage of ${tag} after the wait`,
    do: `Leave ${tag} alone for some days, at one temperature and with nothing connected; measure again as the first time.`,
    why: 'What a module loses by itself it loses in the car as well: its string drifts apart whatever the monitor bleeds.',
    ...voltage,
  });
  builder.add({
    ...common,
    optional: true,
    id: `intake-sensor:${id}`,
    title: `Temperature sensor of ${tag}`,
    do: `Measure the resistance of the temperature sensor in ${tag}, all modules at one room temperature.`,
    why: 'A sensor that is open or shorted is mended while the module lies on the bench.',
    instrument: 'meter',
    range: { kind: 'range', min: sensorOhm[0], max: sensorOhm[1], unit: 'Ω' },
    basis: [
      builder.row(`${key}:sensorShort`, 'below it a short', sensorOhm[0], 'Ω'),
      builder.row(`${key}:sensorOpen`, 'above it a break', sensorOhm[1], 'Ω'),
    ],
  });
}
