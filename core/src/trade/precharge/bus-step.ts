import type { Design, DeviceItem, Id } from '../../model/document';
import { mainCircuits } from '../../model/document';
import { figureId, type Figure, type Gap, type TracedInput, type FigureName } from '../../ground/figure';
import { onMainBus, switches } from '../network';
import type { Reader, StepDefinition } from '../../model/step';

/** The bus behind the main contactors. */
export const mainBus = 'bus';

/**
 * Branches whose device has a bus of its own: behind contactors of their own, with capacitors that fill when those
 * close. Whether a device has capacitors is taken as yes until it is said.
 */
export const ownBuses = ({ circuits, devices }: Pick<Design, 'circuits' | 'devices'>): Id[] =>
  Object.entries(circuits).flatMap(([id, circuit]) => {
    const device = devices[circuit.device ?? ''];
    return circuit.role === 'branch' &&
      switches(circuit) &&
      device !== undefined &&
      device.busCapacitanceF !== 0
      ? [id]
      : [];
  });

/** The bus that a circuit’s contactors fill. */
export const busOf = ({ circuits }: Pick<Design, 'circuits'>, circuit: Id): string =>
  circuits[circuit]?.role === 'main' ? mainBus : circuit;

/** Circuits that fill their bus through a resistor: the main one, and branches that have one. */
export const prechargedCircuits = (design: Pick<Design, 'circuits' | 'devices'>): Id[] => [
  ...mainCircuits(design),
  ...ownBuses(design).filter((id) => design.circuits[id]!.resistor !== undefined),
];

/** The devices on a bus, by id. */
export function busDevices(design: Pick<Design, 'circuits' | 'devices'>, bus: string): Id[] {
  const ids = bus === mainBus ? onMainBus(design) : [design.circuits[bus]?.device ?? ''];
  return ids.filter((id) => design.devices[id] !== undefined);
}

/** The devices on a bus, as a step reads them. */
export function devicesOn(bus: string, read: Reader): (readonly [Id, DeviceItem])[] {
  const devices = read.at('devices');
  const circuits = read.at('circuits');
  return busDevices({ devices, circuits }, bus).map((id) => [id, devices[id]!] as const);
}

/**
 * What the devices of a bus add up to: capacitance; bleed; what empties it; what stands on it while it fills, bleeds and
 * loads together, active discharge off.
 */
export const busStep: StepDefinition = {
  id: 'precharge.bus',
  version: 1,
  subjects: (design) => [mainBus, ...ownBuses(design)],
  compute(subject, read) {
    const devices = devicesOn(subject, read);
    const capacitanceGaps: Gap[] = devices
      .filter(([, device]) => device.busCapacitanceF === undefined)
      .map(([id, device]) => ({
        kind: 'not-given',
        path: `devices.${id}.busCapacitanceF`,
        label: `bus capacitance of ${device.tag}`,
      }));
    if (devices.length === 0)
      capacitanceGaps.push({ kind: 'not-given', path: 'devices', label: 'devices on the bus' });
    const negative = devices.find(([, device]) => (device.busCapacitanceF ?? 0) < 0);
    if (negative) {
      const path = `devices.${negative[0]}.busCapacitanceF`;
      capacitanceGaps.push({
        kind: 'invalid',
        path,
        label: `bus capacitance of ${negative[1].tag}`,
        message: 'must be 0 or more',
      });
    }
    const inputsOf = (
      field: 'busCapacitanceF' | 'bleedOhm' | 'activeOhm' | 'prechargeLoadOhm',
      symbol: string,
      unit: string,
    ): TracedInput[] =>
      devices.flatMap(([id, device], i) => {
        const value = device[field];
        return value === undefined
          ? []
          : [
              {
                symbol: symbol.includes('_') ? `${symbol}${i + 1}` : `${symbol}_${i + 1}`,
                value,
                unit,
                origin: { kind: 'document' as const, path: `devices.${id}.${field}` },
              },
            ];
      });
    const parallel = (inputs: TracedInput[]) => 1 / inputs.reduce((sum, { value }) => sum + 1 / value, 0);
    const resistor = (
      name: FigureName<'precharge.bus'>,
      label: string,
      fields: readonly ('bleedOhm' | 'activeOhm' | 'prechargeLoadOhm')[],
      gap: Gap,
    ): Figure => {
      const inputs = fields.flatMap((field) => inputsOf(field, field === 'activeOhm' ? 'R_a' : 'R', 'Ω'));
      const bad = inputs.find(({ value }) => value <= 0);
      const gaps: Gap[] =
        bad?.origin?.kind === 'document'
          ? [{ kind: 'invalid', path: bad.origin.path, label, message: 'must be above 0' }]
          : inputs.length === 0
            ? [gap]
            : [];
      const value = gaps.length > 0 ? null : parallel(inputs);
      return {
        id: figureId('precharge.bus', subject, name),
        label,
        unit: 'Ω',
        value,
        gaps,
        working:
          value === null
            ? []
            : [
                {
                  symbol: 'R',
                  label,
                  formula: '1/Σ(1/R)',
                  inputs,
                  value,
                  unit: 'Ω',
                  source: 'Resistors in parallel',
                },
              ],
      };
    };
    const capacitors = inputsOf('busCapacitanceF', 'C', 'F');
    const sum = capacitors.reduce((total, { value }) => total + value, 0);
    const source = 'Capacitors in parallel';
    return {
      figures: [
        {
          id: figureId('precharge.bus', subject, 'capacitanceF'),
          label: 'Bus capacitance',
          unit: 'F',
          value: capacitanceGaps.length > 0 ? null : sum,
          gaps: capacitanceGaps,
          working:
            capacitanceGaps.length > 0
              ? []
              : [
                  {
                    symbol: 'C',
                    label: 'Bus capacitance',
                    formula: 'Σ(C)',
                    inputs: capacitors,
                    value: sum,
                    unit: 'F',
                    source,
                  },
                ],
        },
        resistor('bleedOhm', 'Bleed resistance', ['bleedOhm'], {
          kind: 'not-given',
          path: 'devices',
          label: 'bleed resistor of any device',
        }),
        resistor('emptyOhm', 'Resistance that empties the bus', ['bleedOhm', 'activeOhm'], {
          kind: 'not-given',
          path: 'devices',
          label: 'bleed resistor or active discharge of any device',
        }),
        resistor('loadOhm', 'On the bus while it fills', ['bleedOhm', 'prechargeLoadOhm'], {
          kind: 'never',
          label: 'Nothing stands on the bus while it fills',
        }),
      ],
      checks: [],
    };
  },
};
