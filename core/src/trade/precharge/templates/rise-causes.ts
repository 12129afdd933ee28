import { figureId, type FigureName } from '../../../ground/figure';
import { catalogueOf } from '../../../model/parts';
import { busDevices, busOf, mainBus } from '../bus-step';
import { prechargeFit } from '../fit';
import { prechargeDefaults, timeToReachS } from '../precharge';
import { loadWords } from '../sequence';
import { formatNumber, formatQuantity } from '../../../ground/quantity';
import type { Measured } from '../../../record';
import { nominalOf, type Case, type Hypothesis } from '../../../model/procedure';

export function riseCauses(of: Case, value: number, measured: Measured): Hypothesis[] {
  const { design, evaluation, expected } = of;
  const nominal = nominalOf(expected);
  if (nominal === null || nominal === 0) return [];
  const subject = of.step.subjects[0]!.id;
  const circuit = design.circuits[subject];
  if (circuit?.completion === 'timer' && expected.kind === 'range') return [timerCause(value, nominal)];
  const ratio = value / nominal;
  const bus = busOf(design, subject);
  const devices = busDevices(design, bus).map((id) => design.devices[id]!);
  const figure = (name: FigureName<'precharge.bus'>) =>
    evaluation.figures[figureId('precharge.bus', bus, name)]?.value ?? null;
  const [capacitance, loadOhm] = [figure('capacitanceF'), figure('loadOhm')];
  const fitted = design.parts[circuit?.resistor ?? ''];
  const ohm = fitted?.kind === 'resistor' ? fitted.data.resistanceOhm : null;
  if (ohm === null || capacitance === null)
    return [moreCapacitance(capacitance, ratio), leftOn(of, measured)].flat();
  const plant = {
    resistanceOhm: ohm,
    busCapacitanceF: capacitance,
    ...(loadOhm !== null && { parallelLoadOhm: loadOhm }),
  };
  /** What would be read: the time to the threshold, or the capacitance that a fit through the designed resistor shows. */
  const reads = (other: Partial<typeof plant>): number | null =>
    expected.kind === 'range'
      ? timeToReachS(
          { ...plant, ...other },
          circuit?.thresholdFraction ?? prechargeDefaults.thresholdFraction,
        )
      : (nominal * (other.busCapacitanceF ?? capacitance) * (other.resistanceOhm ?? ohm)) /
        (capacitance * ohm);
  const causes: Hypothesis[] = [];
  for (const part of catalogueOf('resistor')) {
    const predicts = reads({ resistanceOhm: part.data.resistanceOhm });
    if (part.data.resistanceOhm === ohm || predicts === null) continue;
    causes.push({
      cause: `Another resistor is fitted: ${part.label}`,
      because: `${formatQuantity(part.data.resistanceOhm, 'Ω')} for ${formatQuantity(ohm, 'Ω')} takes ${formatNumber(predicts / nominal, 3)} times as long`,
      check: 'Disconnect out, bus dead; measure the resistor with one end free.',
      predicts,
    });
  }
  for (const device of devices) {
    const own = device.busCapacitanceF ?? 0;
    if (own <= 0 || own >= capacitance) continue;
    const left =
      1 / ((loadOhm === null ? 0 : 1 / loadOhm) - (device.bleedOhm === undefined ? 0 : 1 / device.bleedOhm));
    const without = device.bleedOhm === undefined || !Number.isFinite(left) ? {} : { parallelLoadOhm: left };
    causes.push({
      cause: `${device.tag} is not connected`,
      because: `without its ${formatQuantity(own, 'F')} the bus has ${formatQuantity(capacitance - own, 'F')}`,
      check: `Look at the fuse and plug of ${device.tag}.`,
      predicts: reads({ busCapacitanceF: capacitance - own, ...without }),
    });
  }
  return [...causes, ...moreCapacitance(capacitance, ratio), leftOn(of, measured)];
}

const moreCapacitance = (capacitance: number | null, ratio: number): Hypothesis[] =>
  capacitance === null || ratio <= 1
    ? []
    : [
        {
          cause: 'More capacitance on the bus than the design says',
          because: `it would be ${formatQuantity(capacitance * ratio, 'F')} for ${formatQuantity(capacitance, 'F')}`,
          check: 'Look up each device’s input capacitance again; a device may be missing in the design.',
          predicts: null,
        },
      ];

const leftOn = (of: Case, measured: Measured): Hypothesis => ({
  cause: 'A load draws on the bus while it charges',
  because: seenLoad(of, measured),
  check: 'Unplug heater, compressor and DC-DC one after another and repeat.',
  predicts: null,
});

const timerCause = (value: number, nominal: number): Hypothesis => ({
  cause: 'The timer is set otherwise than the design says',
  because: `${formatQuantity(value, 's')} for ${formatQuantity(nominal, 's')}`,
  check: 'Read the setting back from the controller.',
  predicts: null,
});

function seenLoad({ expected }: Case, measured: Measured): string {
  if (measured.kind !== 'trace' || expected.kind !== 'rise') return 'the bare time does not tell it apart';
  const { samples, packVoltageV } = measured;
  const parsed = prechargeFit.parse({ packVoltageV, resistanceOhm: expected.resistanceOhm, samples });
  if (!parsed.ok) return 'the trace cannot be fitted';
  const { finalVoltageV, parallelLoadOhm } = prechargeFit.calculate(parsed.input).result;
  const words = loadWords(parallelLoadOhm, expected);
  return words === null
    ? `but the trace ends at ${formatQuantity(finalVoltageV, 'V', 4)}, as the design has it: little speaks for it`
    : `the trace ends at ${formatQuantity(finalVoltageV, 'V', 4)}: ${words}`;
}

export function dischargeCauses({ expected, design, step }: Case, value: number): Hypothesis[] {
  const nominal = nominalOf(expected);
  if (nominal === null || nominal <= 0) return [];
  const own = step.subjects[0]!.id;
  const bleeds = busDevices(design, design.circuits[own] === undefined ? mainBus : busOf(design, own))
    .map((id) => design.devices[id]!)
    .filter(({ bleedOhm }) => bleedOhm !== undefined);
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
