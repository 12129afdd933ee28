import { heaterOfDevice, type Design, type Id } from '../../model/document';
import { mainDevice } from './feeding';

/** The load that follows from what a circuit feeds. */
export type DeviceLoad =
  { ok: true; profile: [durationS: number, currentA: number][]; by: string } | { ok: false; because: string };

/** Steady, for as long as it matters to a fuse and a cable, s. */
const steadyS = 3600;

/**
 * What a device draws from the bus, steady: a heater of a box or of coolant what its part has, one of plain resistance at the highest voltage, any other power at the lowest, a
 * charger what it gives at the most.
 *
 * @param lowestV of the pack under load
 * @param highestV of the full pack
 */
export function deviceLoad(
  design: Pick<Design, 'circuits' | 'devices' | 'parts' | 'boxes' | 'plumbing'>,
  circuit: Id,
  lowestV: number | null,
  highestV: number | null,
): DeviceLoad {
  const no = (because: string): DeviceLoad => ({ ok: false, because });
  const item = design.circuits[circuit];
  const id = item?.device ?? (item?.role === 'main' ? mainDevice(design) : undefined);
  const device = design.devices[id ?? ''];
  if (device === undefined) return no('it feeds nothing yet');
  const { tag, ratedPowerW, ratedVoltageV, kind, maxOutputA } = device;
  const steady = (currentA: number, by: string): DeviceLoad => ({
    ok: true,
    profile: [[steadyS, Math.round(currentA * 1000) / 1000]],
    by,
  });
  if (kind === 'charger') {
    const part = design.parts[device.charger ?? ''];
    const mostA = maxOutputA ?? (part?.kind === 'charger' ? part.data.maxOutputA : undefined);
    return mostA === undefined
      ? no(`${tag}: what it gives at most is not given`)
      : steady(mostA, `${tag} at its most`);
  }
  const heater = kind === 'heater' ? heaterOfDevice(design, id!) : null;
  if (heater !== null)
    return lowestV === null || lowestV <= 0
      ? no('the lowest voltage of the pack is not computed')
      : steady(heater.data.ratedW / lowestV, `${tag}, as its part has it, at the pack’s lowest`);
  if (ratedPowerW === undefined) return no(`the rated power of ${tag} is not given`);
  if (kind === 'heater' && ratedVoltageV !== undefined) {
    if (!(ratedVoltageV > 0)) return no(`the rated voltage of ${tag} must be above 0`);
    if (highestV === null) return no('the highest voltage of the pack is not computed');
    return steady((highestV * ratedPowerW) / ratedVoltageV ** 2, `${tag}, a resistance, at the full pack`);
  }
  if (lowestV === null || lowestV <= 0) return no('the lowest voltage of the pack is not computed');
  return steady(ratedPowerW / lowestV, `${tag} at the pack’s lowest`);
}
