import { busCharge, truckCharge } from './charge';
import { busCool, truckCool } from './cool';
import { busLowVoltage, truckLowVoltage } from './low-voltage';
import { busRoutes, truckRoutes } from './route';
import { busSense, truckSense } from './sense';
import type { Mistake } from '../../core/src/whole/design/mistakes/mistake';

/** Mistakes in what the clean designs do not have: ways, coolant, charging, low voltage and monitoring, made to the demos. */
export const mistakesOfDemos: Record<'bus' | 'truck', readonly Mistake[]> = {
  bus: [...busCharge, ...busLowVoltage, ...busSense, ...busCool, ...busRoutes],
  truck: [...truckCharge, ...truckLowVoltage, ...truckSense, ...truckCool, ...truckRoutes],
};
