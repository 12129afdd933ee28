import { figureId } from '../figure';
import { catalogueOf } from '../parts';
import { prechargeFit } from '../precharge';
import { formatNumber, formatQuantity } from '../quantity';
import type { Measured } from '../record';
import { nominalOf, type Case, type Hypothesis } from './suspect-case';

export function riseCauses(of: Case, value: number, measured: Measured): Hypothesis[] {
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

export function dischargeCauses({ expected, design }: Case, value: number): Hypothesis[] {
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
