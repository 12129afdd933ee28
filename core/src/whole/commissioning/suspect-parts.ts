import { catalogueOf } from '../../model/parts';
import { formatQuantity } from '../../ground/quantity';
import { nominalOf, type Case, type Hypothesis } from './suspect-case';

/** Slips of reading: sign, decimal point. */
export function slips({ expected }: Case, value: number): Hypothesis[] {
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

export function moduleCauses({ step, design }: Case, value: number): Hypothesis[] {
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

export function resistanceCauses(
  { step, design, expected }: Case,
  template: string,
  value: number,
): Hypothesis[] {
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
