import type { Id } from '../../../model/document';
import type { Builder } from '../../../model/procedure';
import { busDevices, mainBus } from '../bus-step';

/** The devices of a bus: work on one of them makes due again what was measured on it. */
export const onBus = ({ design }: Builder, bus: string): Id[] => busDevices(design, bus);

/** What a step on a bus is called after. */
export const busSubject = ({ design }: Builder, bus: string) =>
  bus === mainBus ? { id: 'bus', tag: 'bus' } : { id: bus, tag: design.circuits[bus]!.tag };
