import type { HeaterData } from '../parts';
import type { HeaterFeed } from './cooling';
import type { Design } from './design';
import type { Id } from './id';

type Slices = Pick<Design, 'boxes' | 'plumbing' | 'parts'>;

/** A heater of a box, or in the coolant. */
export interface PlacedHeater {
  /** The box, or the piece. */
  id: Id;
  tag: string;
  /** Where it stands in the design. */
  at: string;
  data: HeaterData;
  fed: HeaterFeed;
  device: Id | undefined;
  loads: readonly Id[];
}

/** The heaters of boxes and coolant whose part is named. */
export function placedHeaters({ boxes, plumbing = {}, parts }: Slices): PlacedHeater[] {
  const data = (key: string | undefined) => {
    const part = parts[key ?? ''];
    return part?.kind === 'heater' ? part.data : null;
  };
  return [
    ...Object.entries(boxes).flatMap(([id, box]): PlacedHeater[] => {
      const own = data(box.heater);
      const { heaterVoltage: fed = 'pack', heaterDevice: device, heaterLoads: loads = [] } = box;
      return own === null
        ? []
        : [{ id, tag: `Heater of ${box.tag}`, at: `boxes.${id}`, data: own, fed, device, loads }];
    }),
    ...Object.entries(plumbing).flatMap(([id, piece]): PlacedHeater[] => {
      const own = piece.kind === 'heater' ? data(piece.heater) : null;
      const { tag, fedFrom: fed = 'pack', heaterDevice: device, loads = [] } = piece;
      return own === null ? [] : [{ id, tag, at: `plumbing.${id}`, data: own, fed, device, loads }];
    }),
  ];
}

/** The heater that a device of the network is; null: none of boxes or coolant names it. */
export const heaterOfDevice = (design: Slices, device: Id): PlacedHeater | null =>
  placedHeaters(design).find((one) => one.device === device && one.fed === 'pack') ?? null;

/** What feeds the heaters that warm the modules of a box: its own one, and those in the coolant of plates under them. */
export function feedsOfBox(
  { boxes, plumbing = {}, modules }: Pick<Design, 'boxes' | 'plumbing' | 'modules'>,
  id: Id,
): HeaterFeed[] {
  const { heater, heaterVoltage = 'pack' } = boxes[id]!;
  const pieces = Object.values(plumbing);
  const loops = new Set(
    pieces.flatMap(({ kind, loop, modules: on = [] }) =>
      kind === 'plate' && on.some((module) => modules[module]?.box === id) ? [loop] : [],
    ),
  );
  return [
    ...(heater === undefined ? [] : [heaterVoltage]),
    ...pieces.flatMap(({ kind, loop, heater: key, fedFrom = 'pack' }) =>
      kind === 'heater' && key !== undefined && loops.has(loop) ? [fedFrom] : [],
    ),
  ];
}
