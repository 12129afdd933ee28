import type { Design } from '../document';
import { figureId } from '../figure';
import { catalogueOf } from '../parts';
import { prechargeFit } from '../precharge';
import { formatNumber, formatQuantity } from '../quantity';
import type { Measured } from '../record';
import type { Evaluation } from '../step';
import type { Expectation, ProcedureStep } from './procedure';

/** A cause that would explain a failed result. */
export interface Suspect {
  cause: string;
  /** The numbers that speak for it. */
  because: string;
  /** What to do to be sure. */
  check: string;
  /** How far what it predicts lies from what was measured, as a share; null: it predicts no figure. */
  missFraction: number | null;
}

/** A cause with the value the step would have read because of it. */
interface Hypothesis extends Omit<Suspect, 'missFraction'> {
  predicts: number | null;
}

/** Beyond this miss a numerical hypothesis explains nothing. */
const explainsWithinFraction = 0.15;

interface Case {
  step: ProcedureStep;
  expected: Expectation;
  design: Design;
  evaluation: Evaluation;
}

/**
 * Causes that could explain a failed result, computed from the design and ranked by how closely each predicts what
 * was measured; those that predict no figure come last, in the order of the trade's experience.
 *
 * @returns an empty list for a step that has no expectation
 */
export function suspects(
  step: ProcedureStep,
  design: Design,
  evaluation: Evaluation,
  measured: Measured,
): Suspect[] {
  const { expected } = step;
  if (expected === null) return [];
  const value = measuredFigure({ step, expected, design, evaluation }, measured);
  if (value === null) return [];
  const made = hypotheses({ step, expected, design, evaluation }, value, measured);
  const numeric = made
    .filter((one) => one.predicts !== null)
    .map(({ predicts, ...one }) => ({ ...one, missFraction: miss(value, predicts!) }))
    .filter(({ missFraction }) => missFraction <= explainsWithinFraction)
    .sort((a, b) => a.missFraction - b.missFraction);
  const others = made
    .filter(({ predicts }) => predicts === null)
    .map(({ predicts: _none, ...one }) => ({ ...one, missFraction: null }));
  return [...numeric, ...others];
}

const miss = (value: number, predicted: number) =>
  Math.abs(value - predicted) / Math.max(Math.abs(value), Math.abs(predicted), 1e-12);

/** The one figure hypotheses are held against: the value, or the capacitance a trace fits. */
function measuredFigure({ expected }: Case, measured: Measured): number | null {
  if (measured.kind === 'value') return measured.value;
  if (expected.kind !== 'rise') return null;
  const { samples, packVoltageV } = measured;
  const parsed = prechargeFit.parse({ packVoltageV, resistanceOhm: expected.resistanceOhm, samples });
  return parsed.ok ? prechargeFit.calculate(parsed.input).result.capacitanceF : null;
}

function hypotheses(of: Case, value: number, measured: Measured): Hypothesis[] {
  const template = of.step.id.split(':')[0];
  switch (template) {
    case 'intake-voltage':
      return [...slips(of, value), ...moduleCauses(of, value)];
    case 'polarity':
      return [...slips(of, value), ...packCauses(of)];
    case 'precharge-resistor':
    case 'bleed-resistance':
      return [...slips(of, value), ...resistanceCauses(of, template, value)];
    case 'insulation-negative':
    case 'insulation-positive':
      return insulationCauses(of, value);
    case 'bus-dead':
      return deadBusCauses(of, value);
    case 'precharge-time':
    case 'precharge-curve':
      return riseCauses(of, value, measured);
    case 'stop-discharge':
      return dischargeCauses(of, value);
    default:
      return [];
  }
}

const nominalOf = (expected: Expectation): number | null => {
  if (expected.kind === 'rise') return expected.capacitanceF;
  if (expected.nominal !== undefined) return expected.nominal;
  const { min, max } = expected;
  return min !== undefined && max !== undefined ? (min + max) / 2 : null;
};

/** Slips of reading: sign, decimal point. */
function slips({ expected }: Case, value: number): Hypothesis[] {
  const nominal = nominalOf(expected);
  if (nominal === null || nominal === 0) return [];
  const q = (x: number) => formatQuantity(x, expected.unit, 4);
  const within = (x: number) =>
    expected.kind === 'range' && x >= (expected.min ?? -Infinity) && x <= (expected.max ?? Infinity);
  const slip = (factor: number, cause: string, check: string): Hypothesis[] =>
    within(value / factor)
      ? [{ cause, check, because: `${q(value / factor)} would be in place`, predicts: value }]
      : [];
  return [
    ...slip(
      -1,
      'Leads swapped, or the part is labelled the wrong way round',
      'Measure again with the red lead at the marked +; if it stays negative, mark the part.',
    ),
    ...slip(
      10,
      'Meter in another range: ten times too much',
      'Prove the meter on a known source in this range.',
    ),
    ...slip(0.1, 'Meter in another range: a tenth', 'Prove the meter on a known source in this range.'),
    ...slip(
      1000,
      'Unit taken for another: a thousand times too much',
      'Read the prefix on the display again.',
    ),
    ...slip(0.001, 'Unit taken for another: a thousandth', 'Read the prefix on the display again.'),
  ];
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

function packCauses({ design, evaluation }: Case): Hypothesis[] {
  const nominal = evaluation.figures[figureId('pack.pack', 'pack', 'voltageNominalV')]?.value;
  const string = Object.values(design.strings)[0];
  if (nominal === null || nominal === undefined || string === undefined || string.modules.length === 0)
    return [];
  const count = string.modules.length;
  const each = nominal / count;
  const causes: Hypothesis[] = [];
  for (let missing = 1; missing <= Math.min(3, count - 1); missing += 1) {
    const s = missing === 1 ? '' : 's';
    causes.push({
      cause: `${missing} module${s} of the string bridged or not in it`,
      because: `${count - missing} of ${count} modules make about ${formatQuantity(each * (count - missing), 'V', 4)}`,
      check: 'Count the links against the drawing, box by box, disconnect out.',
      predicts: each * (count - missing),
    });
    if (2 * missing < count)
      causes.push({
        cause: `${missing} module${s} the wrong way round`,
        because: `${count} modules less twice ${missing} make about ${formatQuantity(each * (count - 2 * missing), 'V', 4)}`,
        check: 'Look at the polarity of every module; a reversed one heats its links.',
        predicts: each * (count - 2 * missing),
      });
  }
  causes.push({
    cause: 'A link or the service disconnect is open',
    because: 'an open string reads whatever the meter’s own resistance lets through',
    check: 'Measure box by box toward the open place.',
    predicts: null,
  });
  return causes;
}

function resistanceCauses({ step, design, expected }: Case, template: string, value: number): Hypothesis[] {
  const q = (x: number) => formatQuantity(x, 'Ω');
  const causes: Hypothesis[] = [];
  if (template === 'precharge-resistor') {
    for (const part of catalogueOf('resistor')) {
      const ohm = part.data.resistanceOhm;
      if (Math.abs(ohm - (nominalOf(expected) ?? 0)) < 1e-9) continue;
      causes.push({
        cause: `Another resistor was fitted: ${part.label}`,
        because: `it has ${q(ohm)}`,
        check: 'Read the marking on the part.',
        predicts: ohm,
      });
    }
  } else {
    const bleeds = Object.values(design.devices).filter(({ bleedOhm }) => bleedOhm !== undefined);
    for (const left of bleeds) {
      const sum = bleeds.filter((one) => one !== left).reduce((all, { bleedOhm }) => all + 1 / bleedOhm!, 0);
      if (sum === 0) continue;
      causes.push({
        cause: `The bleed of ${left.tag} is not connected`,
        because: `the others together have ${q(1 / sum)}`,
        check: `Look at the plug of ${left.tag}; measure at its terminals.`,
        predicts: 1 / sum,
      });
    }
    const nominal = nominalOf(expected);
    if (nominal !== null && value < nominal) {
      const extra = 1 / (1 / value - 1 / nominal);
      causes.push({
        cause: `Something more lies across the bus, about ${q(extra)}`,
        because: `in parallel with the ${q(nominal)} designed it makes ${q(value)}`,
        check: 'Unplug the devices one after another and watch the reading.',
        predicts: null,
      });
    }
  }
  causes.push({
    cause: 'The leads’ own resistance, or something in parallel, was measured along',
    because: `${step.subjects[0]?.tag ?? 'the part'} was not alone on the meter`,
    check: 'Free one end; short the leads and take their reading off.',
    predicts: null,
  });
  return causes;
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

function deadBusCauses({ evaluation }: Case, value: number): Hypothesis[] {
  const pack = evaluation.figures[figureId('pack.pack', 'pack', 'voltageNominalV')]?.value ?? null;
  const causes: Hypothesis[] = [];
  if (pack !== null)
    causes.push({
      cause: 'The bus is on the pack: a contactor is welded or closed',
      because: `the pack has about ${formatQuantity(pack, 'V', 4)}`,
      check: 'Do not go on. Service disconnect out, then measure each contactor.',
      predicts: pack,
    });
  causes.push({
    cause: 'The capacitors are not empty yet',
    because: `${formatQuantity(value, 'V', 3)} stands on the bus`,
    check: 'Wait and measure again: it must fall by the bleed.',
    predicts: null,
  });
  return causes;
}

function riseCauses(of: Case, value: number, measured: Measured): Hypothesis[] {
  const { design, evaluation, expected } = of;
  const nominal = nominalOf(expected);
  if (nominal === null || nominal === 0) return [];
  const ratio = value / nominal;
  const capacitance = evaluation.figures[figureId('precharge.bus', 'bus', 'capacitanceF')]?.value ?? null;
  const circuit = design.circuits[of.step.subjects[0]!.id];
  const fitted = design.parts[circuit?.resistor ?? ''];
  const ohm = fitted?.kind === 'resistor' ? fitted.data.resistanceOhm : null;
  const causes: Hypothesis[] = [];
  if (ohm !== null)
    for (const part of catalogueOf('resistor')) {
      if (part.data.resistanceOhm === ohm) continue;
      causes.push({
        cause: `Another resistor is fitted: ${part.label}`,
        because: `${formatQuantity(part.data.resistanceOhm, 'Ω')} for ${formatQuantity(ohm, 'Ω')} takes ${formatNumber(part.data.resistanceOhm / ohm, 3)} times as long`,
        check: 'Disconnect out, bus dead; measure the resistor with one end free.',
        predicts: (nominal * part.data.resistanceOhm) / ohm,
      });
    }
  if (capacitance !== null)
    for (const device of Object.values(design.devices)) {
      const own = device.busCapacitanceF ?? 0;
      if (own <= 0 || own >= capacitance) continue;
      causes.push({
        cause: `${device.tag} is not connected`,
        because: `without its ${formatQuantity(own, 'F')} the bus has ${formatQuantity(capacitance - own, 'F')}`,
        check: `Look at the fuse and plug of ${device.tag}.`,
        predicts: (nominal * (capacitance - own)) / capacitance,
      });
    }
  if (capacitance !== null && ratio > 1)
    causes.push({
      cause: 'More capacitance on the bus than the design says',
      because: `it would be ${formatQuantity(capacitance * ratio, 'F')} for ${formatQuantity(capacitance, 'F')}`,
      check: 'Look up each device’s input capacitance again; a device may be missing in the design.',
      predicts: null,
    });
  causes.push({
    cause: 'A load draws on the bus while it charges',
    because: seenLoad(of, measured),
    check: 'Unplug heater, compressor and DC-DC one after another and repeat.',
    predicts: null,
  });
  return causes;
}

function seenLoad({ expected }: Case, measured: Measured): string {
  if (measured.kind !== 'trace' || expected.kind !== 'rise') return 'the bare time does not tell it apart';
  const { samples, packVoltageV } = measured;
  const parsed = prechargeFit.parse({ packVoltageV, resistanceOhm: expected.resistanceOhm, samples });
  if (!parsed.ok) return 'the trace cannot be fitted';
  const { finalVoltageV, parallelLoadOhm } = prechargeFit.calculate(parsed.input).result;
  return parallelLoadOhm === null
    ? `but the trace ends at ${formatQuantity(finalVoltageV, 'V', 4)}, near the pack: little speaks for it`
    : `the trace ends at ${formatQuantity(finalVoltageV, 'V', 4)}: about ${formatQuantity(parallelLoadOhm, 'Ω')}`;
}

function dischargeCauses({ expected, design }: Case, value: number): Hypothesis[] {
  const nominal = nominalOf(expected);
  if (nominal === null || nominal <= 0) return [];
  const bleeds = Object.values(design.devices).filter(({ bleedOhm }) => bleedOhm !== undefined);
  const together = bleeds.reduce((sum, { bleedOhm }) => sum + 1 / bleedOhm!, 0);
  const causes = bleeds.flatMap((left): Hypothesis[] => {
    const rest = together - 1 / left.bleedOhm!;
    if (rest <= 0) return [];
    return [
      {
        cause: `The bleed of ${left.tag} is not connected`,
        because: `the others take ${formatNumber(together / rest, 3)} times as long: ${formatQuantity((nominal * together) / rest, 's')}`,
        check: `Disconnect out, bus dead; measure the bleed at ${left.tag}.`,
        predicts: (nominal * together) / rest,
      },
    ];
  });
  return [
    ...causes,
    {
      cause: 'A main contactor stays closed or is welded',
      because: `${formatQuantity(value, 's')} where the bleed alone takes ${formatQuantity(nominal, 's')}`,
      check: 'Does the bus fall at all? If not: service disconnect, then the contactor.',
      predicts: null,
    },
    {
      cause: 'More capacitance on the bus than the design says',
      because: `${formatNumber(value / nominal, 3)} times as much would explain it`,
      check: 'Compare with the pre-charge curve: its fit tells the capacitance.',
      predicts: null,
    },
  ];
}
