import { interpolate } from '../../../ground/math';
import { formatQuantity } from '../../../ground/quantity';
import { touchLimitOf, type Design } from '../../../model/document';
import type { PartOf } from '../../../model/parts';
import type { Evaluation } from '../../../model/step';
import {
  Builder,
  defineTemplates,
  insulationReads,
  slips,
  type Case,
  type Hypothesis,
  type Near,
  type Procedure,
  type ProcedureStep,
} from '../../../model/procedure';

/** The voltage of a module at 55 % charge: what a stand-in reads. */
function restingV({ step, expected, design }: Case, near: Near): number {
  const part = design.parts[design.modules[step.subjects[0]!.id]?.part ?? ''];
  const truth =
    part?.kind === 'module'
      ? interpolate(part.data.cell.ocvTable, 0.55) * part.data.cellsInSeries
      : (expected.kind === 'range' ? expected.max! : 0) * 0.88;
  return near(truth, 0.004);
}

const ofVoltage = {
  reads: restingV,
  causes: (of: Case, value: number) => [...slips(of, value), ...moduleCauses(of, value)],
};

const templates = defineTemplates({
  'intake-voltage': ofVoltage,
  'intake-insulation': { reads: insulationReads },
  'intake-resistance': {},
  'intake-capacity': {},
  'intake-rested': ofVoltage,
  'intake-sensor': { reads: (_, near) => near(10_000, 0.02) },
});

/** What is measured on each module when it comes in: its voltage always, the rest where there is gear for it. */
function intakeSteps(builder: Builder): void {
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
    template: templates['intake-voltage'],
    of: id,
    title: `Intake voltage of ${tag}`,
    do: `Measure ${tag} (${part.label}) from − to + at its terminals, at rest.`,
    why: 'A module below its minimum is damaged; one above its maximum was overcharged; a wrong sign is a wrong label.',
    ...voltage,
  });
  builder.add({
    ...common,
    optional: true,
    template: templates['intake-insulation'],
    of: id,
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
    template: templates['intake-resistance'],
    of: id,
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
    template: templates['intake-capacity'],
    of: id,
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
    template: templates['intake-rested'],
    of: id,
    title: `Voltage of ${tag} after the wait`,
    do: `Leave ${tag} alone for some days, at one temperature and with nothing connected; measure again as the first time.`,
    why: 'What a module loses by itself it loses in the car as well: its string drifts apart whatever the monitor bleeds.',
    ...voltage,
  });
  builder.add({
    ...common,
    optional: true,
    template: templates['intake-sensor'],
    of: id,
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

function moduleCauses({ step, design }: Case, value: number): Hypothesis[] {
  const id = step.subjects[0]!.id;
  const part = design.parts[design.modules[id]?.part ?? ''];
  if (part?.kind !== 'module') return [];
  const { cell, cellsInSeries } = part.data;
  const causes: Hypothesis[] = [];
  const perCell = value / cellsInSeries;
  for (let missing = 1; missing < Math.min(cellsInSeries, 4); missing += 1) {
    const each = value / (cellsInSeries - missing);
    if (each < cell.minV || each > cell.maxV || perCell >= cell.minV) continue;
    causes.push({
      cause: `${missing} of ${cellsInSeries} cells reads nothing: reversed, shorted or a link inside is open`,
      because: `${formatQuantity(each, 'V', 3)} in each of the other ${cellsInSeries - missing} would be in the window`,
      check: 'Measure each cell at the sense plug.',
      predicts: value,
    });
  }
  if (value >= 0 && perCell < cell.minV)
    causes.push({
      cause: 'Discharged below its minimum: damaged',
      because: `${formatQuantity(perCell, 'V', 3)} a cell, the maker’s minimum is ${formatQuantity(cell.minV, 'V', 3)}`,
      check: 'Set it aside outdoors; charging it is for the maker’s document to allow or forbid.',
      predicts: null,
    });
  if (perCell > cell.maxV)
    causes.push({
      cause: 'Charged above its maximum',
      because: `${formatQuantity(perCell, 'V', 3)} a cell, the maker’s maximum is ${formatQuantity(cell.maxV, 'V', 3)}`,
      check: 'Leave it alone in a place where it may burn; look at the temperature from afar.',
      predicts: null,
    });
  if (Math.abs(value) < 0.5)
    causes.push({
      cause: 'A lead is open, or a fuse of the module',
      because: `${formatQuantity(value, 'V', 3)} is what an open lead reads`,
      check: 'Prove meter and leads on a known source, then measure at the cells.',
      predicts: null,
    });
  return causes;
}

export const intakeProcedure: Procedure = { templates, steps: intakeSteps };
