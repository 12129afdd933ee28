import type { Design, Id, Vehicle } from '@torvek/core/document';
import type { Chip, Drawn, DrawnBox } from './chips';

/** From metres in the vehicle frame to pixels of the plan and of the side view below it. */
export interface PlanGeometry {
  extent: {
    rear: number;
    front: number;
    half: number;
    low: number;
    high: number;
    top: number;
    bottom: number;
  };
  /** Pixels to the metre. */
  scale: number;
  planPx: number;
  sidePx: number;
  axles: number[];
  wheelM: number;
  x(metres: number): number;
  y(metres: number): number;
  z(metres: number): number;
}

/** A single box fills at most this height. */
const mostPx = 420;

/**
 * @param zoom the box that fills the view; null: the whole vehicle
 * @param roomPx width there is
 */
export function planGeometry(
  vehicle: Vehicle,
  boxes: readonly DrawnBox[],
  zoom: Id | null,
  roomPx: number,
): PlanGeometry {
  const only = boxes.find(({ id }) => id === zoom);
  const extent = only === undefined ? wholeVehicle(vehicle, boxes) : around(only);
  const byWidth = Math.max(roomPx, 300) / Math.max(extent.front - extent.rear, 0.3);
  const scale = only === undefined ? byWidth : Math.min(byWidth, mostPx / (extent.high - extent.low));
  // A box that fills the height stands in the middle.
  const leftPx = Math.max((roomPx - (extent.front - extent.rear) * scale) / 2, 0);
  return {
    extent,
    scale,
    planPx: (extent.high - extent.low) * scale,
    sidePx: (extent.top - extent.bottom) * scale,
    axles: [0, -wheelbaseOf(vehicle)],
    wheelM: Math.min(vehicle.wheelDiameterM ?? 0.65, 2),
    x: (metres) => (metres - extent.rear) * scale + leftPx,
    y: (metres) => (extent.high - metres) * scale,
    z: (metres) => (extent.top - metres) * scale,
  };
}

const wheelbaseOf = ({ wheelbaseM = 2.6 }: Vehicle) => Math.min(Math.max(wheelbaseM, 0.5), 15);

const around = (box: DrawnBox): PlanGeometry['extent'] => ({
  rear: box.xM - box.lengthM / 2 - 0.12,
  front: box.xM + box.lengthM / 2 + 0.12,
  half: 0,
  low: box.yM - box.widthM / 2 - 0.1,
  high: box.yM + box.widthM / 2 + 0.1,
  top: box.zM + box.heightM / 2 + 0.08,
  bottom: box.zM - box.heightM / 2 - 0.05,
});

function wholeVehicle(vehicle: Vehicle, boxes: readonly DrawnBox[]): PlanGeometry['extent'] {
  const base = wheelbaseOf(vehicle);
  const front = Math.min(Math.max(vehicle.frontOverhangM ?? base * 0.3, 0), 5);
  const rear = front - Math.min(Math.max(vehicle.lengthM ?? base * 1.6, base + front), 25);
  const half = Math.max(0.75, ...boxes.map((box) => Math.abs(box.yM) + box.widthM / 2 + 0.12));
  const reach = boxes.flatMap((box) => [box.xM - box.lengthM / 2, box.xM + box.lengthM / 2]);
  return {
    rear: Math.min(rear, ...reach) - 0.12,
    front: Math.max(front, ...reach) + 0.12,
    half,
    low: -half - 0.08,
    high: half + 0.22,
    top: Math.max(1, ...boxes.map((box) => box.zM + box.heightM / 2 + 0.1)),
    bottom: -0.06,
  };
}

/** Longer along the vehicle than across it. */
export const flat = (chip: Pick<Chip, 'lengthM' | 'widthM'>) => chip.lengthM > chip.widthM;

export interface DrawnWay {
  id: Id;
  index: number;
  d: string;
  leads: string[];
  start: [number, number] | undefined;
  end: [number, number] | undefined;
}

/** The way of each string through its modules, from the mains and back. */
export function stringWays(
  design: Pick<Design, 'strings' | 'pack'>,
  { chips, boxes }: Pick<Drawn, 'chips' | 'boxes'>,
  { x, y }: PlanGeometry,
): DrawnWay[] {
  const at = new Map(chips.map((chip) => [chip.id, chip]));
  const home = boxes.find(({ id }) => id === (design.pack.combinerBox ?? design.pack.mainsBox));
  // Beside the text of a module.
  const passing = (chip: Chip): [number, number] => [
    x(chip.xM + chip.lengthM * (flat(chip) ? 0.3 : 0.28)),
    y(chip.yM),
  ];
  return Object.entries(design.strings).map(([id, { modules }], index) => {
    const points = modules.flatMap((module): [number, number][] => {
      const chip = at.get(module);
      return chip === undefined ? [] : [passing(chip)];
    });
    const start = points[0];
    const end = points.at(-1);
    const leads: [number, number][][] =
      home === undefined || start === undefined || end === undefined
        ? []
        : [
            [[x(home.xM), y(home.yM)], start],
            [end, [x(home.xM), y(home.yM)]],
          ];
    return { id, index, d: pathOf(points), leads: leads.map(pathOf), start, end };
  });
}

const pathOf = (points: readonly [number, number][]) =>
  points.map(([px, py], i) => `${i === 0 ? 'M' : 'L'}${Math.round(px)},${Math.round(py)}`).join(' ');
