import type { Design } from '@torvek/core/document';

/** What the side of a vehicle is drawn from. */
export type SideOf = Pick<
  Design['vehicle'],
  'wheelbaseM' | 'lengthM' | 'frontOverhangM' | 'heightM' | 'wheelDiameterM'
>;

/** Centimetres of a drawing. */
export const sidePx = (metres: number) => metres * 100;

/** The side of a vehicle, in centimetres: the front axle at 0, the front to the right, up is negative. */
export function sideShape(vehicle: SideOf) {
  const wheelbase = Math.min(Math.max(vehicle.wheelbaseM ?? 2.6, 0.5), 15);
  const overhang = Math.min(Math.max(vehicle.frontOverhangM ?? wheelbase * 0.3, 0), 5);
  const length = Math.max(vehicle.lengthM ?? wheelbase * 1.6, wheelbase + overhang);
  const height = Math.min(Math.max(vehicle.heightM ?? 1.6, 0.5), 6);
  const wheel = Math.min(vehicle.wheelDiameterM ?? 0.65, 2);
  const floor = wheel * 0.5;
  const front = sidePx(overhang);
  const rear = sidePx(overhang - length);
  const roof = -sidePx(height);
  const sill = -sidePx(floor);
  const slope = Math.min(sidePx(height) * 0.22, sidePx(overhang) * 0.5);
  return {
    wheelbase,
    wheel,
    floor,
    view: {
      left: rear - 30,
      top: roof - 25,
      width: sidePx(length) + 60,
      height: sidePx(height) + 120,
    },
    body: `M${rear},${sill} L${rear},${roof + 12} Q${rear},${roof} ${rear + 14},${roof} L${front - slope},${roof} Q${front - slope * 0.3},${roof + 6} ${front - 6},${roof + sidePx(height) * 0.45} L${front},${sill - 18} L${front - 4},${sill} Z`,
  };
}
